import fc from 'fast-check';
import { decodeTrend, encodeTrend } from './trendColumns';

describe('a trend as columns', () => {
  it('comes back as it was, gaps and all', () => {
    const finite = fc.double({ noNaN: true, noDefaultInfinity: true });
    const points = fc.array(fc.tuple(fc.integer(), fc.option(finite, { nil: null })), { maxLength: 50 });
    fc.assert(
      fc.property(points, fc.boolean(), fc.string({ maxLength: 12 }), (all, bucketed, unit) => {
        const t = all.map(([at]) => at);
        const answer = {
          window: { start: 1, end: 2 },
          zone: 'Europe/London',
          unit,
          now: 5,
          samples: all.length,
          gaps: [{ start: 1, end: 2 }],
          t,
          v: all.map(([, value]) => value),
          bucket: bucketed ? ('hour' as const) : null,
          until: bucketed ? t.map((at) => at + 1) : null,
        };
        expect(decodeTrend(encodeTrend(answer).buffer)).toEqual(answer);
      }),
    );
  });

  it('is refused when it is cut short', () => {
    const bytes = encodeTrend({
      window: { start: 0, end: 1 },
      zone: 'UTC',
      unit: '',
      now: 0,
      samples: 2,
      gaps: [],
      t: [1, 2],
      v: [3, null],
      bucket: null,
      until: null,
    });
    expect(() => decodeTrend(bytes.slice(0, bytes.length - 8).buffer)).toThrow(RangeError);
  });
});
