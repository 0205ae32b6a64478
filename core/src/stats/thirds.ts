import type { TargetBand } from '../bands/targetBand';

const WORDS = ['lowest third', 'middle third', 'highest third'] as const;
const FEWEST = 3;

/**
 * Where each value stands between the lowest and the highest of its list: in which third of that range.
 * null for a list of fewer than three values, or of equal ones.
 */
export function thirdsOf(values: readonly (number | null)[]): (string | null)[] | null {
  const known = values.filter((value) => value !== null);
  const low = Math.min(...known);
  const high = Math.max(...known);
  if (known.length < FEWEST || low === high) return null;
  return values.map((value) =>
    value === null ? null : WORDS[Math.min(2, Math.floor(((value - low) / (high - low)) * 3))],
  );
}

/**
 * A target band cut at the thirds of a list's range, as a first draft of a real one: lower is better, Clear in
 * the lowest third. Limits are rounded to three figures of the range. null where {@link thirdsOf} has none.
 */
export function bandOfThirds(values: readonly (number | null)[]): TargetBand | null {
  const known = values.filter((value) => value !== null);
  if (thirdsOf(values) === null) return null;
  const low = Math.min(...known);
  const range = Math.max(...known) - low;
  const digits = Math.min(9, Math.max(0, 2 - Math.floor(Math.log10(range))));
  const round = (value: number): number => Number(value.toFixed(digits));
  return {
    direction: 'lower',
    caution: round(low + range / 3),
    breach: round(low + (2 * range) / 3),
    target: null,
  };
}
