import fc from 'fast-check';
import { levelOf, type TargetBand } from '../bands/targetBand';
import { changeWords } from './changeWords';
import { stateWords } from './stateWords';

const BAND: TargetBand = { direction: 'lower', caution: 200, breach: 205, target: null };
const wordsOf = (value: number, decimals: number, band = BAND): string =>
  stateWords({ value, level: levelOf(band, value), coverage: 1, partial: false }, band, decimals);

describe('a distance from a limit', () => {
  it.each([
    [206.25, 1, 'Breach, 1.3 over limit'],
    [205.04, 1, 'Breach, 0.04 over limit'],
    [205.0004, 1, 'Breach, 0.0004 over limit'],
    [205.000001, 1, 'Breach, just over limit'],
    [200.001, 0, 'Caution, 0.001 over Clear'],
    [205, 1, 'Caution, 5.0 over Clear'],
  ])('of %d with %d decimals is "%s"', (value, decimals, words) => {
    expect(wordsOf(value, decimals)).toBe(words);
  });

  it('is never told as nothing', () => {
    const limits = fc.double({ min: -1e6, max: 1e6, noNaN: true });
    const size = fc.double({ min: 1e-9, max: 10, noNaN: true });
    fc.assert(
      fc.property(limits, size, fc.integer({ min: 0, max: 4 }), (limit, by, decimals) => {
        const band: TargetBand = { direction: 'lower', caution: limit, breach: limit, target: null };
        const words = wordsOf(limit + by, decimals, band);
        fc.pre(words.startsWith('Breach'));
        expect(words).not.toMatch(/ 0(\.0+)? over/);
      }),
    );
  });

  it('of a change is not told as nothing either', () => {
    const change = (value: number): string =>
      changeWords({ value, previous: 100, unit: 'kg', partial: false }, 1).replace(/\s/g, ' ');
    expect(change(100.02)).toBe('up 0.02 (0.02 %) on 100.0 kg before');
    expect(change(99.9999999)).toBe('just below 100.0 kg before');
    expect(change(100)).toBe('the same as 100.0 kg before');
  });
});
