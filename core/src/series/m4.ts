import { firstAtOrAfter, type Series } from './series';

/** So near to the end of a column that rounding cannot put a sample before it into the next. */
const NEARLY_ONE = 1 - 1e-6;

/**
 * Thins a series to at most four samples a pixel column – the first, the lowest, the highest and the
 * last – so that the drawn line has the same extent in every column as a line through all samples.
 *
 * @param series  samples, increasing times; NaN values are left out.
 * @param from,to the drawn stretch of time [from, to), ms.
 * @param columns how many pixel columns it is drawn on, ≥ 1.
 * @throws {RangeError} if columns < 1 or to ≤ from.
 * Source: Jugel, Jerzak, Hackenbroich, Markl: M4, Proc. VLDB Endowment 7(10), 2014.
 */
export function m4(series: Series, from: number, to: number, columns: number): Series {
  if (columns < 1 || to <= from) {
    throw new RangeError(`m4: needs columns ≥ 1 and from < to, got ${columns}, [${from}, ${to})`);
  }
  const { t, v } = series;
  const keep: number[] = [];
  const perMs = columns / (to - from);
  let column = -1;
  let first = -1;
  let low = -1;
  let high = -1;
  let last = -1;
  const close = (): void => {
    if (first < 0) return;
    const inside = [first, low, high, last].sort((a, b) => a - b);
    for (let i = 0; i < inside.length; i++) {
      if (i === 0 || inside[i] !== inside[i - 1]) keep.push(inside[i]);
    }
  };
  let lowest = 0;
  let highest = 0;
  // Only a sample near the edge of its column needs the division.
  let edge = -Infinity;
  const stop = firstAtOrAfter(t, to);
  for (let i = firstAtOrAfter(t, from); i < stop; i++) {
    const value = v[i];
    if (value !== value) continue;
    if (t[i] >= edge) {
      const here = Math.floor((t[i] - from) * perMs);
      edge = from + (here + NEARLY_ONE) / perMs;
      if (here !== column) {
        close();
        column = here;
        first = low = high = i;
        lowest = highest = value;
      }
    }
    if (value < lowest) {
      lowest = value;
      low = i;
    } else if (value > highest) {
      highest = value;
      high = i;
    }
    last = i;
  }
  close();
  return { t: Float64Array.from(keep, (i) => t[i]), v: Float64Array.from(keep, (i) => v[i]) };
}
