import type { TargetBand } from '../bands/targetBand';

const WORDS = ['lowest third', 'middle third', 'highest third'] as const;
const FEWEST = 3;

/**
 * The tercile of the list's range that each value lies in; null for fewer than three values, or if all are
 * equal.
 * @example tercilesOf([0, 5, 9]) // => ['lowest third', 'middle third', 'highest third']
 */
export function tercilesOf(values: readonly (number | null)[]): (string | null)[] | null {
  const known = values.filter((value) => value !== null);
  const low = Math.min(...known);
  const high = Math.max(...known);
  if (known.length < FEWEST || low === high) return null;
  return values.map((value) =>
    value === null ? null : WORDS[Math.min(2, Math.floor(((value - low) / (high - low)) * 3))],
  );
}

/**
 * A first draft of a target band from the terciles of a list's range: lower is better, Clear in the lowest
 * tercile. Limits have three significant figures of the range. null where {@link tercilesOf} is.
 */
export function bandOfTerciles(values: readonly (number | null)[]): TargetBand | null {
  const known = values.filter((value) => value !== null);
  if (tercilesOf(values) === null) return null;
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
