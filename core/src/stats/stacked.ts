/** One part of a stacked column. */
export interface StackedPart {
  /** Index of the part. */
  readonly of: number;
  readonly from: number;
  readonly to: number;
}

/**
 * Columns of stacked parts, from zero up in the order of the parts. What is missing or not above zero takes no room; a
 * column in which nothing is known is empty.
 *
 * @param courses values of each part, one for each column. @param count number of columns.
 * @param isShares whether each column is scaled to 100.
 * @example stackedColumns([[1, null], [3, null]], 2, true)
 * // => [[{ of: 0, from: 0, to: 25 }, { of: 1, from: 25, to: 100 }], []]
 */
export function stackedColumns(
  courses: readonly (readonly (number | null)[])[],
  count: number,
  isShares: boolean,
): readonly (readonly StackedPart[])[] {
  return Array.from({ length: count }, (_, k) => {
    const known = courses.flatMap((course, of) => {
      const value = course[k] ?? null;
      return value === null || value <= 0 ? [] : [{ of, value }];
    });
    const sum = known.reduce((total, { value }) => total + value, 0);
    let at = 0;
    return known.map(({ of, value }) => {
      const from = at;
      at += isShares ? (value / sum) * 100 : value;
      return { of, from, to: at };
    });
  });
}
