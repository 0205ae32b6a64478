import type { MetricReading } from '../domain/metric';
import { sharedDigits } from '../series/dayCodec';
import { firstAtOrAfter, usableOf, type Series } from '../series/series';
import { sum } from '../stats/stats';
import { counterStep } from './counterStep';
import { emptyAggregates, mergeAggregates, stateColumn, type Aggregates } from './aggregates';

/** Stretches of time in order of their start, and the bucket each belongs to. Those of one bucket are disjoint. */
export interface Spans {
  readonly start: ArrayLike<number>;
  readonly end: ArrayLike<number>;
  readonly into: ArrayLike<number>;
}

/** Two readings of a register further apart than this say nothing about the time between. */
export const REGISTER_REACH_MS = 400 * 86_400_000;

/** Spans of neighbouring buckets: bucket i is [edges[i], edges[i + 1]). */
export function spansOfEdges(edges: ArrayLike<number>): Spans {
  const n = Math.max(0, edges.length - 1);
  const start = new Float64Array(n);
  const end = new Float64Array(n);
  const into = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    start[i] = edges[i];
    end[i] = edges[i + 1];
    into[i] = i;
  }
  return { start, end, into };
}

/**
 * Aggregates the samples of a series over spans, by the rules of the metric's kind.
 *
 * A level, register or state holds until the next usable sample, at most the longest allowed gap; an amount
 * covers its logging interval. A register's increase is even between two readings.
 *
 * @param series must reach back to what holds at the first start and, for a register, on to the reading
 *               after the last end. Missing, bad and implausible samples are left out.
 * @param size   how many buckets there are.
 */
export function aggregate(
  series: Series & { readonly q?: Uint8Array | null },
  reading: MetricReading,
  spans: Spans,
  size: number,
): Aggregates {
  const usable = usableOf(series);
  const pieces = emptyAggregates(spans.start.length);
  // Decimals are added as integers, so that 0.1 + 0.2 is 0.3 and the same samples give the same last digit.
  const whole = wholeNumbers(usable.v);
  aggregateSamples(usable, spans, pieces, whole);
  aggregateHeld(usable, reading, spans, pieces, whole);
  if (reading.kind === 'register') aggregateIncrease(usable, reading, spans, pieces);
  if (size === pieces.size && isIdentity(spans.into)) return pieces;
  const out = emptyAggregates(size);
  for (let i = 0; i < pieces.size; i++) mergeAggregates(out, spans.into[i], pieces, i);
  return out;
}

/** One span per bucket, in order, so nothing has to be merged. */
function isIdentity(into: ArrayLike<number>): boolean {
  for (let i = 0; i < into.length; i++) if (into[i] !== i) return false;
  return true;
}

/** Values as integers divided by scale if that is exact; otherwise unchanged, with scale 1. */
interface Whole {
  readonly w: Float64Array;
  readonly scale: number;
  /** Whether all their sums are exact. */
  readonly exact: boolean;
}

function wholeNumbers(v: Float64Array): Whole {
  const digits = sharedDigits(v);
  if (digits === null) return { w: v, scale: 1, exact: false };
  const scale = 10 ** digits;
  const w = new Float64Array(v.length);
  let largest = 0;
  for (let i = 0; i < v.length; i++) {
    const scaled = Math.round(v[i] * scale);
    w[i] = scaled;
    if (scaled > largest) largest = scaled;
    else if (-scaled > largest) largest = -scaled;
  }
  return { w, scale, exact: largest * v.length < Number.MAX_SAFE_INTEGER };
}

function aggregateSamples({ t, v }: Series, spans: Spans, out: Aggregates, { w, scale, exact }: Whole): void {
  let i = spans.start.length > 0 ? firstAtOrAfter(t, spans.start[0]) : t.length;
  for (let k = 0; k < spans.start.length; k++) {
    const start = spans.start[k];
    const end = spans.end[k];
    if (k > 0 && start < spans.end[k - 1]) i = firstAtOrAfter(t, start);
    while (i < t.length && t[i] < start) i++;
    const from = i;
    while (i < t.length && t[i] < end) i++;
    const n = i - from;
    if (n === 0) continue;
    let low = v[from];
    let high = v[from];
    for (let j = from + 1; j < i; j++) {
      if (v[j] < low) low = v[j];
      if (v[j] > high) high = v[j];
    }
    const total = (exact ? plainSum(w, from, i) : sum(w.subarray(from, i))) / scale;
    out.n[k] = n;
    out.sum[k] = total;
    out.min[k] = low;
    out.max[k] = high;
    out.first[k] = v[from];
    out.last[k] = v[i - 1];
    if (low === high) continue;
    const centre = total / n;
    let squares = 0;
    let rest = 0;
    for (let j = from; j < i; j++) {
      const d = v[j] - centre;
      squares += d * d;
      rest += d;
    }
    out.m2[k] = Math.max(0, squares - (rest * rest) / n);
  }
}

function plainSum(w: Float64Array, from: number, to: number): number {
  let total = 0;
  for (let j = from; j < to; j++) total += w[j];
  return total;
}

function aggregateHeld(
  { t, v }: Series,
  reading: MetricReading,
  spans: Spans,
  out: Aggregates,
  { w, scale }: Whole,
): void {
  const longest = reading.kind === 'amount' ? reading.intervalMs : reading.maxGapMs;
  const level = reading.kind === 'level';
  const state = reading.kind === 'state';
  const spread = reading.kind === 'amount' && reading.isSpread === true;
  const { heldMs, area } = out;
  const starts = asFloats(spans.start);
  const ends = asFloats(spans.end);
  const count = starts.length;
  const n = t.length;
  let k = 0;
  for (let i = 0; i < n && k < count; i++) {
    const at = t[i];
    let end = at + longest;
    if (i + 1 < n && t[i + 1] < end) end = t[i + 1];
    while (k < count && ends[k] <= at) k++;
    const value = w[i];
    for (let j = k; j < count && starts[j] < end; j++) {
      const held = (end < ends[j] ? end : ends[j]) - (at > starts[j] ? at : starts[j]);
      if (held <= 0) continue;
      heldMs[j] += held;
      if (level) area[j] += value * held;
      else if (spread) area[j] += value * (held / (end - at));
      else if (state) stateColumn(out, v[i])[j] += held;
    }
  }
  if (scale !== 1) for (let j = 0; j < count; j++) area[j] /= scale;
}

function asFloats(values: ArrayLike<number>): Float64Array {
  return values instanceof Float64Array ? values : Float64Array.from(values);
}

function aggregateIncrease({ t, v }: Series, reading: MetricReading, spans: Spans, out: Aggregates): void {
  const count = spans.start.length;
  let k = 0;
  for (let i = 1; i < t.length && k < count; i++) {
    const length = t[i] - t[i - 1];
    if (length > REGISTER_REACH_MS) continue;
    while (k < count && spans.end[k] <= t[i - 1]) k++;
    const step = counterStep(v[i - 1], v[i], reading.rollover);
    for (let j = k; j < count && spans.start[j] < t[i]; j++) {
      const shared = Math.min(t[i], spans.end[j]) - Math.max(t[i - 1], spans.start[j]);
      if (shared <= 0) continue;
      out.increase[j] += shared === length ? step : step * (shared / length);
      out.spanMs[j] += shared;
    }
  }
}
