import fc from 'fast-check';
import { levelOf, type TargetBand } from '@vivid-beacon/core';
import { bandLimits, histogramBars, sharesByLevel, withBandLimit } from './histogram';
import { spacedOut } from './spacedOut';

const BAND: TargetBand = { direction: 'lower', caution: 3, breach: 4, target: 2.5 };

describe('histogram', () => {
  it('counts every value once, with the level of its bar', () => {
    const values = [1, 2, 2.9, 3.5, 5];
    const bars = histogramBars(values, 0, 6, 12, BAND);
    expect(bars.reduce((n, { count }) => n + count, 0)).toBe(values.length);
    expect(bars.find(({ from }) => from === 5)?.level).toBe('breach');
    expect(sharesByLevel(values, BAND)).toEqual({
      clear: expect.closeTo(0.6, 9),
      caution: expect.closeTo(0.2, 9),
      breach: expect.closeTo(0.2, 9),
    });
  });

  it('never lets a limit pass its neighbour', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, min: -100, max: 100 }), (value) => {
        const moved = withBandLimit(BAND, 'caution', value);
        const limits = bandLimits(moved).map((limit) => limit.value);
        expect(limits).toEqual([...limits].sort((a, b) => a - b));
        expect(levelOf(moved, 4.5)).toBe('breach');
      }),
    );
  });
});

describe('spacedOut', () => {
  it('draws marks that would lie on one another once', () => {
    expect(spacedOut([30, 0, 5, 14], 14)).toEqual([0, 14, 30]);
  });
});
