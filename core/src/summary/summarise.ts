import type { MetricReading, Summary } from '../domain/metric';
import { firstAtOrAfter, usableOf, type Series } from '../series/series';
import { quantile } from '../stats/stats';
import type { Interval } from '../time/interval';
import { checkSummary } from './checkSummary';
import { spansOfEdges, aggregate, type Spans } from './aggregate';
import { needsSamples, NOTHING, sumOfAmounts, valueOfAggregates, type Summarised } from './valueOf';

type MaybeQualified = Series & { readonly q?: Uint8Array | null };

/** The summaries that are quantiles, with their p. */
export const QUANTILE: Readonly<Partial<Record<Summary, number>>> = { p5: 0.05, p50: 0.5, p95: 0.95 };

/**
 * Summarises the samples of a window by the rules of the metric's kind.
 *
 * @param series must reach back before the window to the sample that holds at its start (and, for a register,
 * on to the sample after it).
 * @param window [start, end). @param now nothing after it counts as elapsed.
 * @throws {BeaconError} BAD_INPUT if the summary is not defined for the kind.
 * @example
 * // 20 °C for one minute, then 30 °C for three: the time-weighted mean is 27.5 °C.
 * summarise(
 *   seriesOf([0, 60_000], [20, 30]),
 *   'mean',
 *   { kind: 'level', intervalMs: 60_000, maxGapMs: 600_000, rollover: null },
 *   { start: 0, end: 240_000 },
 *   240_000,
 * ).value // => 27.5
 */
export function summarise(
  series: MaybeQualified,
  summary: Summary,
  reading: MetricReading,
  window: Interval,
  now: number,
): Summarised {
  return summariseBuckets(series, summary, reading, [window.start, window.end], now)[0];
}

/** Summarises every bucket [edges[i], edges[i + 1]). */
export function summariseBuckets(
  series: MaybeQualified,
  summary: Summary,
  reading: MetricReading,
  edges: readonly number[],
  now: number,
): Summarised[] {
  return summariseSpans(series, summary, reading, elapsedSpans(spansOfEdges(edges), now), edges.length - 1);
}

/** Summarises spans joined to `size` buckets. The spans must have passed already. */
export function summariseSpans(
  series: MaybeQualified,
  summary: Summary,
  reading: MetricReading,
  spans: Spans,
  size: number,
): Summarised[] {
  checkSummary(summary, reading.kind);
  const usable = usableOf(series);
  const aggregates = aggregate(usable, reading, spans, size);
  const elapsed = lengthOfSpans(spans, size);
  const percentile = needsSamples(summary) ? quantileBySpan(usable, QUANTILE[summary]!, spans, size) : null;
  return Array.from({ length: size }, (_, i) => {
    if (!percentile && summary === 'sum' && reading.isSpread) {
      return sumOfAmounts([aggregates], [true], i, elapsed[i]);
    }
    if (!percentile) return valueOfAggregates(aggregates, i, summary, reading.kind, elapsed[i]);
    const rest = valueOfAggregates(aggregates, i, 'count', reading.kind, elapsed[i]);
    return elapsed[i] > 0 ? { ...rest, value: percentile[i] } : NOTHING;
  });
}

/** How many ms of spans each bucket has. */
export function lengthOfSpans(spans: Spans, size: number): Float64Array {
  const length = new Float64Array(size);
  for (let i = 0; i < spans.start.length; i++) length[spans.into[i]] += spans.end[i] - spans.start[i];
  return length;
}

/** The part of each span that has elapsed at `now`. */
export function elapsedSpans(spans: Spans, now: number): Spans {
  let passed = 0;
  while (passed < spans.end.length && spans.end[passed] <= now) passed++;
  if (passed === spans.end.length) return spans;
  const start: number[] = [];
  const end: number[] = [];
  const into: number[] = [];
  for (let i = 0; i < spans.start.length && spans.start[i] < now; i++) {
    start.push(spans.start[i]);
    end.push(Math.min(spans.end[i], now));
    into.push(spans.into[i]);
  }
  return { start, end, into };
}

function quantileBySpan({ t, v }: Series, p: number, spans: Spans, size: number): (number | null)[] {
  const parts: Float64Array[][] = Array.from({ length: size }, () => []);
  for (let i = 0; i < spans.start.length; i++) {
    const part = v.subarray(firstAtOrAfter(t, spans.start[i]), firstAtOrAfter(t, spans.end[i]));
    if (part.length > 0) parts[spans.into[i]].push(part);
  }
  return parts.map((each) => {
    const n = each.reduce((total, part) => total + part.length, 0);
    if (n === 0) return null;
    const all = new Float64Array(n);
    let at = 0;
    for (const part of each) {
      all.set(part, at);
      at += part.length;
    }
    return quantile(all, p);
  });
}
