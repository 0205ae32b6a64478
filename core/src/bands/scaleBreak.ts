/** The stretch of a value scale between two neighbouring values, which nothing lies on. */
export interface ScaleBreak {
  readonly below: number;
  readonly above: number;
}

/** Values lie far apart where more than this share of their range is empty. */
const EMPTY_SHARE = 0.5;

/**
 * Where a scale may be broken: the largest empty stretch between neighbouring values, if it takes more than
 * half of their whole range.
 *
 * @param values in any order; those that are not finite are passed over.
 * @returns the values below and above it; null where values do not lie far apart.
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
