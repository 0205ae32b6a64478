import fc from 'fast-check';
import { periodOfCourse, periodOfMetric } from '../time/automaticPeriod';
import { DAY_MS } from '../time/lengths';
import { periodCourse } from './periodCourse';

const periods = { start: [0, 10, 20, 30], end: [10, 20, 30, 40] };
const values = { values: [5, 7, null, 9], coverage: [1, 0.5, 0, 1], samples: [10, 5, 0, 10] };

describe('values by period as a course', () => {
  it('end with the period under way, and leave out what too little is known of', () => {
    expect(periodCourse(periods, values, 'hour', 25)).toEqual({
      bucket: 'hour',
      t: [0, 10, 20],
      v: [5, null, null],
      until: [10, 20, 30],
      // Of too little data, and of none: only this is a gap.
      thin: [{ start: 10, end: 20, value: 7, coverage: 0.5 }],
      gaps: [{ start: 20, end: 25 }],
      samples: 15,
    });
  });

  it('go on where the future is known', () => {
    const { t, v, gaps, samples } = periodCourse(periods, values, 'day', 25, true);
    expect([t, v, gaps, samples]).toEqual([
      [0, 10, 20, 30],
      [5, null, null, 9],
      [{ start: 20, end: 25 }],
      25,
    ]);
  });

  it('have a value, one of too little data or a gap at every moment up to now', () => {
    const period = fc.record({
      value: fc.option(fc.double({ noNaN: true }), { nil: null }),
      coverage: fc.double({ min: 0, max: 1, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.array(period, { minLength: 1, maxLength: 20 }),
        fc.integer({ min: 0, max: 220 }),
        (all, now) => {
          const given = {
            values: all.map(({ value }) => value),
            coverage: all.map(({ coverage }) => coverage),
            samples: all.map(() => 1),
          };
          const bounds = { start: all.map((_, i) => i * 10), end: all.map((_, i) => i * 10 + 10) };
          const { t, v, until, gaps, thin } = periodCourse(bounds, given, 'hour', now);
          for (let at = 0; at < Math.min(now, all.length * 10); at++) {
            const i = t.findIndex((start, k) => start <= at && at < until[k]);
            const inGap = gaps.some(({ start, end }) => start <= at && at < end);
            const isThin = thin.some(({ start, end }) => start <= at && at < end);
            expect(inGap || isThin).toBe(v[i] === null);
            expect(inGap && isThin).toBe(false);
          }
        },
      ),
    );
  });
});

describe('periods that nobody has chosen', () => {
  it('are days of a year and hours of a month, but samples of what has steps of its own', () => {
    const register = { kind: 'register', origin: 'samples' } as const;
    expect(periodOfMetric(register, 30 * DAY_MS)).toBe('hour');
    expect(periodOfMetric(register, 365 * DAY_MS)).toBe('day');
    expect(periodOfMetric({ kind: 'level', origin: 'samples' }, 365 * DAY_MS)).toBeNull();
    expect(periodOfMetric({ kind: 'amount', origin: 'reference' }, DAY_MS)).toBe('day');
  });

  it('are hours of a course without samples of its own', () => {
    expect([
      periodOfCourse('samples', true),
      periodOfCourse('samples', false),
      periodOfCourse('reference', true),
    ]).toEqual([null, 'hour', 'day']);
  });
});
