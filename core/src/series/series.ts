import { bisectLeft } from 'd3-array';
import { isUsable } from './quality';

/**
 * Samples as columns of equal length n: `t` in ms since the Unix epoch, strictly increasing;
 * `v` in the metric's unit, NaN for a missing value.
 */
export interface Series {
  readonly t: Float64Array;
  readonly v: Float64Array;
}

/** Samples with their quality, one byte each (see quality.ts); null = all good. */
export interface QualifiedSeries extends Series {
  readonly q: Uint8Array | null;
}

/** An empty series. */
export const EMPTY_SERIES: QualifiedSeries = { t: new Float64Array(0), v: new Float64Array(0), q: null };

/** Builds a series from plain numbers. */
export function seriesOf(t: ArrayLike<number>, v: ArrayLike<number>): Series {
  return { t: Float64Array.from(t), v: Float64Array.from(v) };
}

/**
 * First index whose time is at or after `at` (n if there is none).
 * @example firstAtOrAfter(new Float64Array([10, 20, 30]), 20) // => 1
 */
export function firstAtOrAfter(t: ArrayLike<number>, at: number): number {
  return bisectLeft(t, at);
}

/** Joins series that follow each other in time. The parts must not overlap. */
export function joinSeries(parts: readonly (Series & { readonly q?: Uint8Array | null })[]): QualifiedSeries {
  if (parts.length === 1) return { t: parts[0].t, v: parts[0].v, q: parts[0].q ?? null };
  const length = parts.reduce((n, part) => n + part.t.length, 0);
  const t = new Float64Array(length);
  const v = new Float64Array(length);
  const q = parts.some((part) => part.q) ? new Uint8Array(length) : null;
  let at = 0;
  for (const part of parts) {
    t.set(part.t, at);
    v.set(part.v, at);
    if (q && part.q) q.set(part.q, at);
    at += part.t.length;
  }
  return { t, v, q };
}

/** The samples with `from` ≤ t < `to`, as views on the same memory; the same object if all do. */
export function sliceSeries<S extends Series & { readonly q?: Uint8Array | null }>(
  series: S,
  from: number,
  to: number,
): S {
  const low = firstAtOrAfter(series.t, from);
  const high = firstAtOrAfter(series.t, to);
  if (low === 0 && high === series.t.length) return series;
  const cut = { t: series.t.subarray(low, high), v: series.v.subarray(low, high) };
  return ('q' in series ? { ...cut, q: series.q?.subarray(low, high) ?? null } : cut) as S;
}

/**
 * The usable samples: no missing values, no bad or implausible quality. The same object if all are usable.
 */
export function usableOf(series: Series & { readonly q?: Uint8Array | null }): Series {
  const { t, v, q } = series;
  let kept = 0;
  for (let i = 0; i < t.length; i++) if (v[i] === v[i] && (!q || isUsable(q[i]))) kept++;
  if (kept === t.length) return series;
  const out = { t: new Float64Array(kept), v: new Float64Array(kept) };
  for (let i = 0, k = 0; i < t.length; i++) {
    if (v[i] !== v[i] || (q && !isUsable(q[i]))) continue;
    out.t[k] = t[i];
    out.v[k++] = v[i];
  }
  return out;
}
