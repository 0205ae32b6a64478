import { unitOfSummary, type MetricReading, type Summary } from '../domain/metric';
import { firstAtOrAfter, type Series } from '../series/series';
import type { Interval } from '../time/interval';
import { summarise, type Summarised } from './summarise';

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
  return edges.slice(0, -1).map((start, i) => {
    const window = { start, end: edges[i + 1] };
    return measure(around(upper, window), lower && around(lower, window), factor, window, now);
  });
}

/** Only the samples that can matter to a window: those inside, one before and one after. */
function around(metric: MeasuredMetric, window: Interval): MeasuredMetric {
  const { t, v } = metric.series;
  const low = Math.max(0, firstAtOrAfter(t, window.start) - 1);
  const high = Math.min(t.length, firstAtOrAfter(t, window.end) + 1);
  return { ...metric, series: { t: t.subarray(low, high), v: v.subarray(low, high) } };
}

/** Unit of a measure as it is written: "kWh/kg" for a ratio without a unit of its own. */
export function unitOfMeasure(
  upper: { readonly summary: Summary; readonly unit: string },
  lower: { readonly summary: Summary; readonly unit: string } | null,
  ratioUnit: string | null,
): string {
  const top = unitOfSummary(upper.summary, upper.unit);
  if (lower === null) return top;
  if (ratioUnit !== null) return ratioUnit;
  const bottom = unitOfSummary(lower.summary, lower.unit);
  return bottom === '' ? top : `${top || '1'}/${bottom}`;
}
