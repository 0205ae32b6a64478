import fc from 'fast-check';
import { levelOf, type TargetBand } from '../bands/targetBand';
import { barScale, valueBar } from './valueBar';

const LOWER: TargetBand = { direction: 'lower', caution: 60, breach: 80, target: 50 };
const HIGHER: TargetBand = { direction: 'higher', caution: 60, breach: 40, target: 70 };

const drawn = (value: number | null, band: TargetBand | null, values: readonly number[] = []) =>
  valueBar(
    {
      value,
      band,
      level: band ? levelOf(band, value) : value === null ? 'nodata' : 'clear',
      scale: barScale([value, 100, ...values], band),
      isChosen: false,
    },
    100,
  ).flatMap((mark) => (mark.kind === 'rect' ? [[mark.key, mark.x, mark.width, mark.fill]] : [[mark.key]]));

describe('a value as a bar', () => {
  it('has the colour of a level only where it lies beyond Clear, seen from zero', () => {
    expect(drawn(50, LOWER)).toEqual([['own', 0, 50, 'bar'], ['target']]);
    expect(drawn(90, LOWER)).toEqual([
      ['own', 0, 60, 'bar'],
      ['beyond 0', 60, 20, 'caution'],
      ['beyond 1', 80, 10, 'breach'],
      ['target'],
    ]);
    expect(drawn(90, HIGHER)).toEqual([['own', 0, 90, 'bar'], ['target']]);
  });

  it('shows what is short of Clear as a thin line up to it', () => {
    expect(drawn(30, HIGHER)).toEqual([['own', 0, 30, 'bar'], ['short', 30, 30, 'breach'], ['target']]);
  });

  it('begins at zero, whatever the values; a missing one is a broken line', () => {
    expect(drawn(null, null)).toEqual([['none']]);
    expect(drawn(-50, null)).toEqual([['own', 0, expect.closeTo(100 / 3, 6), 'bar'], ['zero']]);
    fc.assert(
      fc.property(fc.double({ min: -1e6, max: 1e6, noNaN: true }), (value) => {
        const { low, high } = barScale([value, 5], null);
        expect(low).toBeLessThanOrEqual(0);
        expect(high).toBeGreaterThan(low);
      }),
    );
  });
});
