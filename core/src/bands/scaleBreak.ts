/** An empty stretch of a value scale between two neighbouring values. */
export interface ScaleBreak {
  readonly below: number;
  readonly above: number;
}

/** Values are far apart if more than this share of their range is empty. */
const EMPTY_SHARE = 0.5;

/**
 * Where to break a scale: the largest gap between neighbouring values, if it is more than half of their
 * range.
 *
 * @param values in any order; non-finite values are ignored.
 * @returns the values below and above the gap; null if there is no such gap.
 * @example findBreak([1, 2, 100]) // => { below: 2, above: 100 }
 */
export function findBreak(values: readonly number[]): ScaleBreak | null {
  const sorted = Float64Array.from(values.filter((value) => Number.isFinite(value))).sort();
  if (sorted.length < 3) return null;
  let at = 0;
  for (let i = 1; i + 1 < sorted.length; i++) {
    if (sorted[i + 1] - sorted[i] > sorted[at + 1] - sorted[at]) at = i;
  }
  const gap = sorted[at + 1] - sorted[at];
  const range = sorted[sorted.length - 1] - sorted[0];
  return gap > range * EMPTY_SHARE ? { below: sorted[at], above: sorted[at + 1] } : null;
}
