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
