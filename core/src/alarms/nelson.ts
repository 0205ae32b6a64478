import { mean } from '../stats/stats';

/**
 * The eight run rules of a control chart after L. S. Nelson, "The Shewhart control chart: tests for special
 * causes", Journal of Quality Technology 16 (1984), 237 to 239 (wording from memory).
 */
export const RUN_RULES: readonly { readonly rule: number; readonly words: string }[] = [
  { rule: 1, words: 'one point more than 3 σ away' },
  { rule: 2, words: 'nine in a row on one side' },
  { rule: 3, words: 'six in a row rising, or falling' },
  { rule: 4, words: 'fourteen in a row up and down by turns' },
  { rule: 5, words: 'two of three more than 2 σ away on one side' },
  { rule: 6, words: 'four of five more than 1 σ away on one side' },
  { rule: 7, words: 'fifteen in a row within 1 σ' },
  { rule: 8, words: 'eight in a row more than 1 σ away' },
];

/** Points that the longest rule needs, the newest included. */
export const RUN_LENGTH = 15;

type Points = readonly number[];

const inARow = (points: Points, n: number, holds: (z: number, i: number, of: Points) => boolean): boolean =>
  points.length >= n && points.slice(-n).every(holds);

const ofNewest = (points: Points, n: number, least: number, holds: (z: number) => boolean): boolean =>
  points.length >= n && points.slice(-n).filter(holds).length >= least;

const eitherSide = (test: (sign: 1 | -1) => boolean): boolean => test(1) || test(-1);

const BROKEN: Readonly<Record<number, (z: Points) => boolean>> = {
  1: (z) => inARow(z, 1, (each) => Math.abs(each) > 3),
  2: (z) => eitherSide((sign) => inARow(z, 9, (each) => sign * each > 0)),
  3: (z) => eitherSide((sign) => inARow(z, 6, (each, i, row) => i === 0 || sign * (each - row[i - 1]) > 0)),
  4: (z) =>
    eitherSide((sign) =>
      inARow(z, 14, (each, i, row) => i === 0 || sign * (i % 2 === 0 ? 1 : -1) * (each - row[i - 1]) > 0),
    ),
  // The newest point has to be one of them, because it is the point that breaks the rule.
  5: (z) => eitherSide((sign) => sign * z[z.length - 1] > 2 && ofNewest(z, 3, 2, (each) => sign * each > 2)),
  6: (z) => eitherSide((sign) => sign * z[z.length - 1] > 1 && ofNewest(z, 5, 4, (each) => sign * each > 1)),
  7: (z) => inARow(z, 15, (each) => Math.abs(each) < 1),
  8: (z) => inARow(z, 8, (each) => Math.abs(each) > 1),
};

/**
 * Which of `rules` the newest point breaks.
 *
 * @param z points as distances from the centre line in σ, oldest first; {@link RUN_LENGTH} are enough.
 * @example brokenRunRules([0, 0.5, 3.2], [1, 2]) // => [1]
 */
export function brokenRunRules(z: readonly number[], rules: readonly number[]): number[] {
  return z.length === 0 ? [] : rules.filter((rule) => BROKEN[rule]?.(z) ?? false);
}

/** d2 for ranges of two: the expected range of two values of a normal distribution, in σ (2/√π). */
const D2_OF_TWO = 2 / Math.sqrt(Math.PI);

/**
 * Centre and σ of a chart of individual values: mean, and mean moving range over d2 = 1.128 (constants of
 * the chart for individuals and moving ranges in NIST/SEMATECH e-Handbook of Statistical Methods, 6.3.2.2).
 * A missing value (NaN) interrupts the ranges: two values on either side of it are no neighbours. Null for
 * fewer than two neighbours, or when none differ.
 */
export function individualsChart(
  values: readonly number[],
): { readonly centre: number; readonly sigma: number } | null {
  const ranges = values.flatMap((value, i) => {
    const range = i === 0 ? NaN : Math.abs(value - values[i - 1]);
    return Number.isNaN(range) ? [] : [range];
  });
  if (ranges.length === 0) return null;
  const sigma = mean(ranges) / D2_OF_TWO;
  return sigma === 0 ? null : { centre: mean(values.filter((value) => !Number.isNaN(value))), sigma };
}
