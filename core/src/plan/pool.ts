import type { MetricKind, MetricReading, Summary, MetricOrigin } from '../domain/metric';
import { firstAtOrAfter, type Series } from '../series/series';
import { quantile } from '../stats/stats';
import { elapsedSpans, lengthOfSpans, QUANTILE } from '../summary/summarise';
import { emptyTallies, type Tallies } from '../summary/tally';
import { tallySpans, type Spans } from '../summary/tallySpans';
import { NOTHING, valueOfTally, type Summarised } from '../summary/valueOf';
import type { BucketSpans } from '../time/bucketSpans';
import { joinAll } from './assemble';

/** What has passed of the periods; of a reference series also those that have begun, whole, because its values are known before. */
export function countedSpans(origin: MetricOrigin, buckets: BucketSpans, now: number): Spans {
  if (origin !== 'reference') return elapsedSpans(buckets.spans, now);
  const { spans, start } = buckets;
  const end = Array.from(spans.end, (each, i) => (start[spans.into[i]] < now ? Math.min(each, now) : each));
  return { start: spans.start, end: end.map((each, i) => Math.max(each, spans.start[i])), into: spans.into };
}

/** Tallies of several metrics of one kind as values: sums and durations added, means weighted by time or count, one a period. */
export function pooledValues(
  tallies: readonly Tallies[],
  summary: Summary,
  kind: MetricKind,
  spans: Spans,
  size: number,
): Summarised[] {
  const elapsed = elapsedOfAll(spans, size, tallies.length);
  const total = tallies.length === 1 ? tallies[0] : emptyTallies(size);
  if (tallies.length > 1) for (const each of tallies) joinAll(total, each);
  return Array.from({ length: size }, (_, i) => valueOfTally(total, i, summary, kind, elapsed[i]));
}

/** Percentiles over all samples of several metrics together, one a period. */
export function pooledPercentiles(
  metrics: readonly { readonly series: Series; readonly reading: MetricReading }[],
  summary: Summary,
  spans: Spans,
  size: number,
): Summarised[] {
  const { kind } = metrics[0].reading;
  const elapsed = elapsedOfAll(spans, size, metrics.length);
  const values: number[][] = Array.from({ length: size }, () => []);
  const tallies = emptyTallies(size);
  for (const { series, reading } of metrics) {
    const { t, v } = series;
    for (let i = 0; i < spans.start.length; i++) {
      const to = firstAtOrAfter(t, spans.end[i]);
      for (let j = firstAtOrAfter(t, spans.start[i]); j < to; j++) values[spans.into[i]].push(v[j]);
    }
    joinAll(tallies, tallySpans(series, reading, spans, size));
  }
  return values.map((each, i) => {
    if (!(elapsed[i] > 0)) return NOTHING;
    const counted = valueOfTally(tallies, i, 'count', kind, elapsed[i]);
    return { ...counted, value: each.length === 0 ? null : quantile(each, QUANTILE[summary]!) };
  });
}

/** Sums over plants whose periods lie at different times: the first day of one is put beside the first day of another. */
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

function elapsedOfAll(spans: Spans, size: number, metrics: number): Float64Array {
  return lengthOfSpans(spans, size).map((ms) => ms * metrics);
}
