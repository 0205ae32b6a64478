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
 * Summarises one metric, or a ratio of two: both sums first, then the division, never a mean of ratios. The
 * coverage of a ratio is the lower of the two.
 *
 * @param factor multiplier of the ratio, e.g. 100 for percent.
 * @returns value null if either part is missing or the denominator is 0.
 */
export function measure(
  numerator: MeasuredMetric,
  denominator: MeasuredMetric | null,
  factor: number,
  window: Interval,
  now: number,
): Summarised {
  const top = summarise(numerator.series, numerator.summary, numerator.reading, window, now);
  if (denominator === null) return top;
  const bottom = summarise(denominator.series, denominator.summary, denominator.reading, window, now);
  return ratioOf(top, bottom, factor);
}

/** The ratio of two summarised numbers: no value if either is missing or the denominator is 0. */
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
  numerator: MeasuredMetric,
  denominator: MeasuredMetric | null,
  factor: number,
  edges: readonly number[],
  now: number,
): Summarised[] {
  const top = summariseBuckets(numerator.series, numerator.summary, numerator.reading, edges, now);
  if (denominator === null) return top;
  const bottom = summariseBuckets(denominator.series, denominator.summary, denominator.reading, edges, now);
  return top.map((each, i) => ratioOf(each, bottom[i], factor));
}
