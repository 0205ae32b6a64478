/**
 * Values in percent of the first known one, so that large and small assets can be compared.
 *
 * @param v null = unknown.
 * @returns null where the first is missing or not above 0, of which a percentage would mislead.
 */
export function inPercentOfFirst(v: readonly (number | null)[]): readonly (number | null)[] | null {
  const first = v.find((value) => value !== null);
  if (first == null || !(first > 0)) return null;
  return v.map((value) => (value === null ? null : (100 * value) / first));
}
