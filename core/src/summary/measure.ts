import type { MetricReading, Summary } from '../domain/metric';
import type { Series } from '../series/series';
import type { Interval } from '../time/interval';
import { summarise, summariseBuckets } from './summarise';
import type { Summarised } from './valueOf';

/** A metric with its samples, ready to be summarised. */
export interface MeasuredMetric {
  readonly series: Series;
  readonly reading: MetricReading;
  readonly summary: Summary;
}

/**
 * Summarises one metric, or one per another: then the two sums are formed first and divided after,
 * never a mean of ratios. The coverage of a ratio is the lower of the two.
 *
 * @param factor what the ratio is multiplied by, e.g. 100 for percent.
 * @returns value null when a part is missing or the lower part is 0.
 */
export function measure(
  upper: MeasuredMetric,
  lower: MeasuredMetric | null,
  factor: number,
  window: Interval,
  now: number,
): Summarised {
  const top = summarise(upper.series, upper.summary, upper.reading, window, now);
  if (lower === null) return top;
  const bottom = summarise(lower.series, lower.summary, lower.reading, window, now);
  return ratioOf(top, bottom, factor);
}

/** One summarised number per another: no value when a part is missing or the lower part is 0. */
export function ratioOf(top: Summarised, bottom: Summarised, factor: number): Summarised {
  const defined = top.value !== null && bottom.value !== null && bottom.value !== 0;
  return {
    value: defined ? (factor * top.value!) / bottom.value! : null,
    samples: top.samples + bottom.samples,
    coverage: Math.min(top.coverage, bottom.coverage),
  };
}

/** The measure of every bucket [edges[i], edges[i + 1]). */
export function measureBuckets(
  upper: MeasuredMetric,
  lower: MeasuredMetric | null,
  factor: number,
  edges: readonly number[],
  now: number,
): Summarised[] {
  const top = summariseBuckets(upper.series, upper.summary, upper.reading, edges, now);
  if (lower === null) return top;
  const bottom = summariseBuckets(lower.series, lower.summary, lower.reading, edges, now);
  return top.map((each, i) => ratioOf(each, bottom[i], factor));
}
