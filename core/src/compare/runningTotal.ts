/**
 * Each value added to those before it; a missing one adds nothing and stays missing.
 * @example runningTotal([1, null, 2]) // => [1, null, 3]
 */
export function runningTotal(v: readonly (number | null)[]): (number | null)[] {
  let total = 0;
  return v.map((value) => (value === null ? null : (total += value)));
}
