/**
 * Samples as two columns of equal length n: `t` in ms since the Unix epoch, strictly increasing;
 * `v` in the metric's unit, NaN for a sample of bad quality.
 */
export interface Series {
  readonly t: Float64Array;
  readonly v: Float64Array;
}

/** A series with nothing in it. */
export const EMPTY_SERIES: Series = { t: new Float64Array(0), v: new Float64Array(0) };

/** Builds a series from plain numbers. */
export function seriesOf(t: ArrayLike<number>, v: ArrayLike<number>): Series {
  return { t: Float64Array.from(t), v: Float64Array.from(v) };
}

/** First index whose time is at or after `at` (n if there is none). By bisection. */
export function firstAtOrAfter(t: ArrayLike<number>, at: number): number {
  let low = 0;
  let high = t.length;
  while (low < high) {
    const middle = (low + high) >>> 1;
    if (t[middle] < at) low = middle + 1;
    else high = middle;
  }
  return low;
}

/** Joins series that follow each other in time. The parts must not overlap. */
export function joinSeries(parts: readonly Series[]): Series {
  const length = parts.reduce((n, part) => n + part.t.length, 0);
  const t = new Float64Array(length);
  const v = new Float64Array(length);
  let at = 0;
  for (const part of parts) {
    t.set(part.t, at);
    v.set(part.v, at);
    at += part.t.length;
  }
  return { t, v };
}

/** The samples with `from` ≤ t < `to`, as views on the same memory. */
export function sliceSeries(series: Series, from: number, to: number): Series {
  const low = firstAtOrAfter(series.t, from);
  const high = firstAtOrAfter(series.t, to);
  return { t: series.t.subarray(low, high), v: series.v.subarray(low, high) };
}
