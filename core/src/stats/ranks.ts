import { ascending, descending, rank } from 'd3-array';

/**
 * Ranks of values, 1 first. Equal values share the better rank and the next one is left out (standard competition
 * ranking, "1224"); a missing value has none.
 *
 * @param order whether the largest or the smallest value comes first.
 * @example ranksOf([5, null, 9, 5], 'largest') // => [2, null, 1, 2]
 */
export function ranksOf(
  values: readonly (number | null)[],
  order: 'largest' | 'smallest',
): (number | null)[] {
  const numbers = values.map((value) => value ?? NaN);
  return Array.from(rank(numbers, order === 'largest' ? descending : ascending), (at) =>
    Number.isNaN(at) ? null : at + 1,
  );
}
