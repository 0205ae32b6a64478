import type { MetricKind, MetricReading, Summary, MetricOrigin } from '../domain/metric';
import { firstAtOrAfter, type Series } from '../series/series';
import { quantile } from '../stats/stats';
import { elapsedSpans, lengthOfSpans, QUANTILE } from '../summary/summarise';
import { emptyAggregates, type Aggregates } from '../summary/aggregates';
import { aggregate, type Spans } from '../summary/aggregate';
import { NOTHING, sumOfAmounts, valueOfAggregates, type Summarised } from '../summary/valueOf';
import type { BucketSpans } from '../time/bucketSpans';
import { joinAll } from './assemble';

/**
 * The elapsed parts of the periods; for a reference series also whole periods that have begun, because its
 * values are known in advance.
 */
export function countedSpans(origin: MetricOrigin, buckets: BucketSpans, now: number): Spans {
  if (origin !== 'reference') return elapsedSpans(buckets.spans, now);
  const { spans, start } = buckets;
  const end = Array.from(spans.end, (each, i) => (start[spans.into[i]] < now ? Math.min(each, now) : each));
  return { start: spans.start, end: end.map((each, i) => Math.max(each, spans.start[i])), into: spans.into };
}

/**
 * Values of pooled metrics of one kind, one per period: sums and durations are added, means are weighted by
 * time or count.
 *
 * @param elapsed the time counted of all of them together, ms for each period.
 * @param isSpread of amounts, one for each: counts by share.
 */
export function pooledValues(
  aggregates: readonly Aggregates[],
  summary: Summary,
  kind: MetricKind,
  elapsed: Float64Array,
  isSpread: readonly boolean[] = [],
): Summarised[] {
  const size = elapsed.length;
  if (summary === 'sum' && isSpread.some(Boolean)) {
    return Array.from(elapsed, (ms, i) => sumOfAmounts(aggregates, isSpread, i, ms));
  }
  const total = aggregates.length === 1 ? aggregates[0] : emptyAggregates(size);
  if (aggregates.length > 1) for (const each of aggregates) joinAll(total, each);
  return Array.from({ length: size }, (_, i) => valueOfAggregates(total, i, summary, kind, elapsed[i]));
}

/**
 * Percentiles over the samples of all pooled metrics, one per period.
 *
 * @param metrics each with the spans in which it counts. @param elapsed as in {@link pooledValues}.
 */
export function pooledPercentiles(
  metrics: readonly { readonly series: Series; readonly reading: MetricReading; readonly spans: Spans }[],
  summary: Summary,
  elapsed: Float64Array,
): Summarised[] {
  const { kind } = metrics[0].reading;
  const size = elapsed.length;
  const values: number[][] = Array.from({ length: size }, () => []);
  const aggregates = emptyAggregates(size);
  for (const { series, reading, spans } of metrics) {
    const { t, v } = series;
    for (let i = 0; i < spans.start.length; i++) {
      const to = firstAtOrAfter(t, spans.end[i]);
      for (let j = firstAtOrAfter(t, spans.start[i]); j < to; j++) values[spans.into[i]].push(v[j]);
    }
    joinAll(aggregates, aggregate(series, reading, spans, size));
  }
  return values.map((each, i) => {
    if (!(elapsed[i] > 0)) return NOTHING;
    const counted = valueOfAggregates(aggregates, i, 'count', kind, elapsed[i]);
    return { ...counted, value: each.length === 0 ? null : quantile(each, QUANTILE[summary]!) };
  });
}

/**
 * Adds sums of plants whose periods lie at different times: the first day of one and the first day of
 * another.
 */
export function addedUp(parts: readonly (readonly Summarised[])[]): Summarised[] {
  const size = Math.max(...parts.map((part) => part.length));
  return Array.from({ length: size }, (_, i) => {
    const given = parts.flatMap((part) => (part[i] ? [part[i]] : []));
    const values = given.flatMap(({ value }) => (value === null ? [] : [value]));
    return {
      value: values.length === 0 ? null : values.reduce((a, b) => a + b, 0),
      samples: given.reduce((n, { samples }) => n + samples, 0),
      coverage: given.reduce((n, { coverage }) => n + coverage, 0) / parts.length,
    };
  });
}

/** ms counted of several metrics together in each period. */
export function elapsedOfAll(spans: readonly Spans[], size: number): Float64Array {
  const total = new Float64Array(size);
  for (const each of spans) lengthOfSpans(each, size).forEach((ms, i) => (total[i] += ms));
  return total;
}
