import fc from 'fast-check';
import { formatDistance, formatGraduation, formatNumber } from './format';
import { exactNumber, readTypedNumber, understoodAs } from './typedNumber';

describe('a typed number', () => {
  it.each([
    ['12.5', 12.5, null],
    ['12,5', 12.5, null],
    ['300,000', 300_000, 300],
    ['300.000', 300, 300_000],
    ['1.234.567', 1_234_567, null],
    ['1,234,567.8', 1_234_567.8, null],
    ['1.234,5', 1234.5, null],
    ['300 000', 300_000, null],
    ['300\u2009000,5', 300_000.5, null],
    ['1’200', 1200, null],
    ['300k', 300_000, null],
    ['1,2 M', 1_200_000, null],
    ['1.1 million', 1_100_000, null],
    ['2.5 thousand', 2500, null],
    ['−3', -3, null],
    ['1e3', 1000, null],
    ['1.98\u2009×\u200910¹²', 1.98e12, null],
    ['−2 × 10⁻⁶', -2e-6, null],
    [' 0,125 ', 0.125, null],
  ])('%p is %d', (text, value, other) => {
    expect(readTypedNumber(text)).toEqual({ value, other });
  });

  it.each(['', '  ', 'twelve', '1.2.3', '1,2,3', 'Infinity', 'k', '12 kg', '5 m', '–', '1,23,456'])(
    '%p is none',
    (text) => {
      expect(readTypedNumber(text)).toBeNull();
    },
  );

  it('that the product writes, in any format, is read back as itself', () => {
    const value = fc
      .oneof(
        fc.double({ min: -1e13, max: 1e13, noNaN: true }),
        fc.double({ min: -100, max: 100, noNaN: true }),
        fc.integer({ min: -5_000_000, max: 5_000_000 }),
      )
      .map((x) => x + 0);
    fc.assert(
      fc.property(value, fc.integer({ min: 0, max: 6 }), (x, decimals) => {
        fc.pre(x === 0 || Math.abs(x) > 1e-300);
        const readBack = (text: string): number => readTypedNumber(text)!.value;
        const shown = formatNumber(x, decimals);
        // Powers of ten have three figures.
        const rounded = shown.includes('10') && shown.includes('×') ? Number(x.toPrecision(3)) : null;
        const size = Math.abs(x);
        if (rounded === null)
          expect(Math.abs(readBack(shown) - x)).toBeLessThanOrEqual(
            0.5000001 * 10 ** -decimals + size * 1e-15,
          );
        else expect(readBack(shown)).toBeCloseTo(rounded, -Math.floor(Math.log10(size)) + 9);
        const graduation = formatGraduation(x);
        if (!graduation.includes('×')) expect(readBack(graduation)).toBe(x);
        expect(readBack(String(x))).toBe(x);
        const exact = readBack(exactNumber(x));
        expect(Math.abs(exact - x)).toBeLessThanOrEqual(Math.max(size * 1e-14, 1e-12));
        const distance = formatDistance(size, decimals);
        if (size > 0 && distance !== 'just') expect(readBack(distance)).toBeGreaterThan(0);
      }),
      { numRuns: 1000 },
    );
  });

  it('shows what it was understood as where the text does not say it just so', () => {
    expect(understoodAs('12.5')).toBeNull();
    expect(understoodAs('12,5')).toBe('= 12.5');
    expect(understoodAs('300k')).toBe('= 300,000');
    expect(understoodAs('300,000')).toBe('Read as 300,000, not 300');
    expect(understoodAs('1.234')).toBe('Read as 1.234, not 1,234');
    expect(understoodAs('x')).toBeNull();
  });
});
