import fc from 'fast-check';
import * as reference from 'simple-statistics';
import { mean, quantile, standardDeviation, sum } from './stats';

/*
 * Certified values of the NIST Statistical Reference Datasets, univariate summary statistics
 * (https://www.itl.nist.gov/div898/strd/). Data and certified values written down from memory: NumAcc1 to
 * NumAcc4 follow from their definition, Michelson is the series of 100 speeds of light of 1879.
 */
function alternating(first: number, low: number, high: number): number[] {
  return [first, ...Array.from({ length: 1000 }, (_, i) => (i % 2 === 0 ? low : high))];
}

const MICHELSON = [
  850, 740, 900, 1070, 930, 850, 950, 980, 980, 880, 1000, 980, 930, 650, 760, 810, 1000, 1000, 960, 960, 960,
  940, 960, 940, 880, 800, 850, 880, 900, 840, 830, 790, 810, 880, 880, 830, 800, 790, 760, 800, 880, 880,
  880, 860, 720, 720, 620, 860, 970, 950, 880, 910, 850, 870, 840, 840, 850, 840, 840, 840, 890, 810, 810,
  820, 800, 770, 760, 740, 750, 760, 910, 920, 890, 860, 880, 720, 840, 850, 850, 780, 890, 840, 780, 810,
  760, 810, 790, 810, 820, 850, 870, 870, 810, 740, 810, 940, 950, 800, 810, 870,
].map((above) => (299_000 + above) / 1000);

describe('mean and standardDeviation', () => {
  it.each([
    ['NumAcc1', [10_000_001, 10_000_003, 10_000_002], 10_000_002, 1, 14],
    ['NumAcc2', alternating(1.2, 1.1, 1.3), 1.2, 0.1, 12],
    ['NumAcc3', alternating(1_000_000.2, 1_000_000.1, 1_000_000.3), 1_000_000.2, 0.1, 9],
    ['NumAcc4', alternating(10_000_000.2, 10_000_000.1, 10_000_000.3), 10_000_000.2, 0.1, 8],
    ['Michelson', MICHELSON, 299.8524, 0.0790105478190518, 12],
  ] as const)('agree with the certified values of %s', (_name, data, certifiedMean, certifiedSd, digits) => {
    expect(Math.abs(mean(data) - certifiedMean) / certifiedMean).toBeLessThan(1e-15);
    expect(Math.abs(standardDeviation(data) - certifiedSd) / certifiedSd).toBeLessThan(10 ** -(digits - 1));
  });

  it('agree with a reference library on any values', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ noNaN: true, min: -1e6, max: 1e6 }), { minLength: 2, maxLength: 60 }),
        (values) => {
          const scale = 1 + Math.max(...values.map(Math.abs));
          expect(Math.abs(mean(values) - reference.mean(values)) / scale).toBeLessThan(1e-12);
          expect(
            Math.abs(standardDeviation(values) - reference.sampleStandardDeviation(values)) / scale,
          ).toBeLessThan(1e-9);
        },
      ),
    );
  });

  it('keep small terms beside large ones', () => {
    expect(sum([1e16, 1, -1e16])).toBe(1);
  });

  it('are not a number where there is nothing to take them of', () => {
    expect(mean([])).toBeNaN();
    expect(standardDeviation([5])).toBeNaN();
  });
});

describe('quantile', () => {
  it('interpolates as type 7 of Hyndman and Fan: the example 1, 2, 3, 4 gives 1.75 at a quarter', () => {
    expect(quantile([4, 1, 3, 2], 0.25)).toBe(1.75);
  });

  it('agrees with a reference library inside the data on any values', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -1000, max: 1000 }), { minLength: 1, maxLength: 40 }),
        (values) => {
          // The library uses another type of quantile; the extremes and an odd median are the same in both.
          expect(quantile(values, 0)).toBe(reference.min(values));
          expect(quantile(values, 1)).toBe(reference.max(values));
          expect(quantile(values, 0.5)).toBeCloseTo(reference.median(values), 9);
        },
      ),
    );
  });

  it('refuses a share outside 0 to 1', () => {
    expect(() => quantile([1], 1.5)).toThrow('between 0 and 1, got 1.5');
  });
});
