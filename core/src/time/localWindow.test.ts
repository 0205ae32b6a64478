import fc from 'fast-check';
import { HOUR_MS } from './lengths';
import { localStretch } from './localWindow';
import { resolveWindow } from './window';

const LONDON = 'Europe/London';

describe('a stretch of time as wall-clock times', () => {
  it('reads back as the same stretch, or says that wall-clock times do not tell it', () => {
    const start = fc.integer({ min: Date.UTC(2025, 0), max: Date.UTC(2027, 0) }).map((t) => t - (t % 1000));
    fc.assert(
      fc.property(start, fc.integer({ min: 1, max: 400 }), (from, hours) => {
        const interval = { start: from, end: from + hours * HOUR_MS };
        const window = localStretch(interval, LONDON);
        if (window) expect(resolveWindow(window, Date.UTC(2026, 5), LONDON)).toEqual(interval);
      }),
    );
  });

  it('is told for at most one of the two equal hours when clocks go back', () => {
    // 25 October 2026: 01:00 comes at 00:00 UTC and again at 01:00 UTC.
    const ends = [Date.UTC(2026, 9, 25, 0), Date.UTC(2026, 9, 25, 1)];
    const told = ends.map((end) => localStretch({ start: Date.UTC(2026, 9, 24, 12), end }, LONDON));
    expect(told.filter((window) => window === null)).toHaveLength(1);
  });
});
