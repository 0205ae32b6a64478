import { DateTime } from 'luxon';
import fc from 'fast-check';
import { DEFAULT_CALENDAR } from '../calendar/workingCalendar';
import { DAY_MS, HOUR_MS } from '../time/lengths';
import { baselineOf, weeksBefore } from './baseline';
import { fixedTarget } from './targetOfWindow';

const ZONE = 'Europe/Berlin';
const WEEK_MS = 7 * DAY_MS;
const some = (value: number | null, coverage = 1) => ({ value, coverage, samples: 1 });

describe('the stretches a baseline rests on', () => {
  it('lie on the same hours of the week, before the window and apart, also over a clock change', () => {
    const clock = (t: number): string => DateTime.fromMillis(t, { zone: ZONE }).toFormat('c HH:mm');
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 365 * 24 }),
        fc.integer({ min: 1, max: 24 * 40 }),
        fc.integer({ min: 2, max: 8 }),
        (hour, length, count) => {
          const start = Date.UTC(2025, 0, 1) + hour * HOUR_MS;
          const window = { start, end: start + length * HOUR_MS };
          const stretches = weeksBefore(window, count, ZONE);
          expect(stretches).toHaveLength(count);
          stretches.forEach((each, i) => {
            // A wall-clock time that the change skips is read an hour later.
            if (clock(each.start) !== clock(start)) expect(clock(each.start).slice(2, 4)).toBe('03');
            // Where the clock goes back, a stretch may reach into the repeated hour.
            expect(each.end).toBeLessThanOrEqual((stretches[i + 1] ?? window).start + HOUR_MS);
          });
        },
      ),
    );
  });

  it('of a month are stretches of five weeks, so that none overlaps it', () => {
    const month = { start: Date.UTC(2026, 9, 1), end: Date.UTC(2026, 10, 1) };
    expect(weeksBefore(month, 2, 'UTC').map(({ start }) => (month.start - start) / WEEK_MS)).toEqual([10, 5]);
  });
});

describe('a baseline', () => {
  const whole = (...values: (number | null)[]) =>
    values.map((v) => ({ numerator: some(v), denominator: null }));

  it('is the mean of the stretches; those with too little data are left out', () => {
    expect(baselineOf(whole(10, 20, 30), 1)).toBe(20);
    expect(baselineOf([...whole(10, 20, null), { numerator: some(90, 0.5), denominator: null }], 1)).toBe(15);
  });

  it('needs two stretches, and half of those asked for', () => {
    expect(baselineOf(whole(10, null), 1)).toBeNull();
    expect(baselineOf(whole(10, 10, null, null, null, null), 1)).toBeNull();
  });

  it('of a ratio divides the sums, and has none over nothing', () => {
    const ratio = (top: number, bottom: number) => ({ numerator: some(top), denominator: some(bottom) });
    // 100 × (10 + 90) / (100 + 300), not the mean of 10 % and 30 %.
    expect(baselineOf([ratio(10, 100), ratio(90, 300)], 100)).toBe(25);
    expect(baselineOf([ratio(1, 0), ratio(1, 0)], 1)).toBeNull();
  });
});

describe('a fixed target', () => {
  const month = { start: Date.UTC(2026, 10, 1), end: Date.UTC(2026, 11, 1) };
  const site = { zone: 'UTC', calendar: DEFAULT_CALENDAR };
  const tenth = { start: month.start, end: month.start + 3 * DAY_MS };

  it('of a total is prorated for what has passed, if it is to be', () => {
    expect(fixedTarget(300, 'calendar', month, tenth, true, site)).toBeCloseTo(30, 9);
    expect(fixedTarget(300, 'none', month, tenth, true, site)).toBe(300);
    expect(fixedTarget(300, 'calendar', month, month, true, site)).toBe(300);
  });

  it('of a mean holds as it is', () => {
    expect(fixedTarget(300, 'calendar', month, tenth, false, site)).toBe(300);
  });
});
