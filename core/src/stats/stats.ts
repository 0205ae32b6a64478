import { quantileSorted } from 'd3-array';

/* Mean, sum and deviation are not those of d3-array: there missing values (NaN) are passed over, and the sum of
   its mean and deviation is not corrected for rounding. Here a missing value makes the result missing. */

/**
 * Arithmetic mean, with the sum corrected for rounding (Neumaier's variant of Kahan summation:
 * A. Neumaier, ZAMM 54, 1974). NaN for no values.
 * @example mean([1, 2, 6]) // => 3
 */
export function mean(values: ArrayLike<number>): number {
  return values.length === 0 ? NaN : sum(values) / values.length;
}

/**
 * Sum with Neumaier's correction. 0 for no values.
 * @example sum([0.1, 0.2, 0.3, 1e16, -1e16]) // => 0.6
 */
export function sum(values: ArrayLike<number>): number {
  let total = 0;
  let lost = 0;
  for (let i = 0; i < values.length; i++) {
    const next = total + values[i];
    lost += Math.abs(total) >= Math.abs(values[i]) ? total - next + values[i] : values[i] - next + total;
    total = next;
  }
  return total + lost;
}

/**
 * Standard deviation of a sample (n − 1), in two passes with the correction term of Chan, Golub and
 * LeVeque (The American Statistician 37, 1983). NaN for fewer than two values.
 * @example standardDeviation([2, 4, 4, 4, 5, 5, 7, 9]) // => 2.138089935299395
 */
export function standardDeviation(values: ArrayLike<number>): number {
  const n = values.length;
  if (n < 2) return NaN;
  const centre = mean(values);
  let squares = 0;
  let rest = 0;
  for (let i = 0; i < n; i++) {
    const d = values[i] - centre;
    squares += d * d;
    rest += d;
  }
  return Math.sqrt((squares - (rest * rest) / n) / (n - 1));
}

/**
 * Quantile type 7, linear interpolation between order statistics (Hyndman & Fan, The American
 * Statistician 50, 1996). The input is not modified. NaN for no values.
 *
 * @param p between 0 and 1. @throws {RangeError} outside of it.
 * @example quantile([1, 2, 3, 4], 0.5) // => 2.5
 */
export function quantile(values: ArrayLike<number>, p: number): number {
  if (!(p >= 0 && p <= 1)) throw new RangeError(`quantile: p must be between 0 and 1, got ${p}`);
  if (values.length === 0) return NaN;
  const sorted = Float64Array.from(values).sort();
  // d3's types ask for an array; it reads by index only.
  return quantileSorted(sorted as unknown as number[], p)!;
}
