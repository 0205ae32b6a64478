/** A share of a whole, with the angles it takes on a ring; 0 = straight up, clockwise, degrees. */
export interface RingPart<T> {
  readonly of: T;
  readonly share: number;
  readonly from: number;
  readonly to: number;
}

/** Shares of a whole, largest first, small ones combined at the end. */
export interface Ring<T> {
  readonly parts: readonly RingPart<T>[];
  readonly total: number;
  /** The combined small parts: their number and share. */
  readonly others: { readonly count: number; readonly share: number; readonly from: number } | null;
}

const MAX_PARTS = 8;
const MIN_SHARE = 0.02;

/**
 * Shares of a total. Missing and non-positive values have no share; null if any value is negative, because
 * there is no whole then.
 */
export function ringOf<T extends { readonly value: number | null }>(values: readonly T[]): Ring<T> | null {
  if (values.some(({ value }) => value !== null && value < 0)) return null;
  const known = values.filter(({ value }) => value !== null && value > 0).sort((a, b) => b.value! - a.value!);
  const total = known.reduce((sum, { value }) => sum + value!, 0);
  if (total === 0) return null;
  const large = known.filter(({ value }, i) => i < MAX_PARTS && value! / total >= MIN_SHARE);
  // A single small part keeps its name.
  const shown = known.length - large.length === 1 ? known : large;
  let at = 0;
  const parts = shown.map((of) => {
    const share = of.value! / total;
    const from = at;
    at += share * 360;
    return { of, share, from, to: at };
  });
  const count = known.length - shown.length;
  return { parts, total, others: count === 0 ? null : { count, share: 1 - at / 360, from: at } };
}
