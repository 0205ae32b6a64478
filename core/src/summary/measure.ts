import type { MetricReading, Summary } from '../domain/metric';
import { sharedParts, spansOfParts } from '../plan/sharedTime';
import type { Series } from '../series/series';
import type { Interval } from '../time/interval';
import { spansOfEdges, type Spans } from './aggregate';
import { elapsedSpans, lengthOfSpans, summariseBuckets, summariseSpans } from './summarise';
import { NOTHING, type Summarised } from './valueOf';

/** A metric with its samples, ready to be summarised. */
export interface MeasuredMetric {
  readonly series: Series;
  readonly reading: MetricReading;
  readonly summary: Summary;
}

/**
 * Summarises one metric, or a ratio of two. Of a ratio both sides are summed over the time in which both have
 * data, and divided afterwards; its coverage is the share of that time. Never a mean of ratios.
 *
 * @param factor multiplier of the ratio, e.g. 100 for percent.
 * @returns value null if either part is missing or the denominator is 0.
 * @example
 * // Gas is missing in the second of two minutes; the weight of that minute does not count.
 * measure(
 *   { series: seriesOf([0], [6]), summary: 'sum', reading: { kind: 'amount', intervalMs: 60_000 } },
 *   { series: seriesOf([0, 60_000], [4, 8]), summary: 'sum', reading: { kind: 'amount', intervalMs: 60_000 } },
 *   1,
 *   { start: 0, end: 120_000 },
 *   120_000,
 * ) // => { value: 1.5, samples: 2, coverage: 0.5 }
 */
export function measure(
  numerator: MeasuredMetric,
  denominator: MeasuredMetric | null,
  factor: number,
  window: Interval,
  now: number,
): Summarised {
  return measureBuckets(numerator, denominator, factor, [window.start, window.end], now)[0];
}

/** The measure of every bucket [edges[i], edges[i + 1]). */
export function measureBuckets(
  numerator: MeasuredMetric,
  denominator: MeasuredMetric | null,
  factor: number,
  edges: readonly number[],
  now: number,
): Summarised[] {
  const size = edges.length - 1;
  if (denominator === null)
    return summariseBuckets(numerator.series, numerator.summary, numerator.reading, edges, now);
  const elapsed = elapsedSpans(spansOfEdges(edges), now);
  const shared = spansOfParts(sharedParts(elapsed, [numerator, denominator]), elapsed);
  const [top, bottom] = [numerator, denominator].map(({ series, summary, reading }) =>
    summariseSpans(series, summary, reading, shared, size),
  );
  const share = sharesOf(shared, lengthOfSpans(elapsed, size));
  return top.map((each, i) => ratioOf(each, bottom[i], factor, share[i]));
}

/** Share of each period that spans take, 0 to 1; 0 for a period that has not begun. */
export function sharesOf(spans: Spans, elapsed: Float64Array): Float64Array {
  return lengthOfSpans(spans, elapsed.length).map((ms, i) => (elapsed[i] > 0 ? ms / elapsed[i] : 0));
}

/**
 * The ratio of two numbers over the same time: no value if either is missing or the denominator is 0.
 *
 * @param coverage share of the time in which both sides have data.
 */
export function ratioOf(top: Summarised, bottom: Summarised, factor: number, coverage: number): Summarised {
  if (coverage <= 0) return NOTHING;
  const defined = top.value !== null && bottom.value !== null && bottom.value !== 0;
  return {
    value: defined ? (factor * top.value!) / bottom.value! : null,
    samples: top.samples + bottom.samples,
    coverage,
  };
}
