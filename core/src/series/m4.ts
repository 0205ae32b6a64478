import { firstAtOrAfter, type Series } from './series';

/**
 * Thins a series to at most four samples per pixel column – the first, the lowest, the highest and the last –
 * so that the drawn line has the same extent in every column as a line through all samples.
 *
 * @param series samples, increasing times; NaN values are left out.
 * @param from,to the drawn stretch of time [from, to), ms.
 * @param columns how many pixel columns it is drawn on, ≥ 1.
 * @throws {RangeError} if columns < 1 or to ≤ from. Source: Jugel, Jerzak, Hackenbroich, Markl: M4, Proc.
 * VLDB Endowment 7(10), 2014.
 */
export function m4(series: Series, from: number, to: number, columns: number): Series {
  if (columns < 1 || to <= from) {
    throw new RangeError(`m4: needs columns ≥ 1 and from < to, got ${columns}, [${from}, ${to})`);
  }
  const { t, v } = series;
  const perMs = columns / (to - from);
  const stop = firstAtOrAfter(t, to);
  let i = firstAtOrAfter(t, from);
  const keep = new Int32Array(Math.max(0, Math.min(stop - i, 4 * columns + 4)));
  let kept = 0;
  while (i < stop) {
    // The end of a column is found by search, so that the inner loop reads only values.
    const end = columnEnd(t, i, stop, from, perMs);
    while (i < end && v[i] !== v[i]) i++;
    if (i === end) continue;
    let last = end - 1;
    while (v[last] !== v[last]) last--;
    let low = i;
    let high = i;
    let lowest = v[i];
    let highest = lowest;
    for (let k = i + 1; k <= last; k++) {
      const value = v[k];
      if (value < lowest) {
        lowest = value;
        low = k;
      } else if (value > highest) {
        highest = value;
        high = k;
      }
    }
    const one = low < high ? low : high;
    const other = low < high ? high : low;
    keep[kept++] = i;
    if (one > i) keep[kept++] = one;
    if (other > one) keep[kept++] = other;
    if (last > other) keep[kept++] = last;
    i = end;
  }
  const thinT = new Float64Array(kept);
  const thinV = new Float64Array(kept);
  for (let k = 0; k < kept; k++) {
    thinT[k] = t[keep[k]];
    thinV[k] = v[keep[k]];
  }
  return { t: thinT, v: thinV };
}

/** First index after the column of `t[i]`: galloping, then bisection. */
function columnEnd(t: Float64Array, i: number, stop: number, from: number, perMs: number): number {
  const column = Math.floor((t[i] - from) * perMs);
  let inside = i;
  let step = 1;
  while (inside + step < stop && Math.floor((t[inside + step] - from) * perMs) === column) {
    inside += step;
    step *= 2;
  }
  let outside = Math.min(inside + step, stop);
  while (outside - inside > 1) {
    const middle = (inside + outside) >> 1;
    if (Math.floor((t[middle] - from) * perMs) === column) inside = middle;
    else outside = middle;
  }
  return outside;
}
