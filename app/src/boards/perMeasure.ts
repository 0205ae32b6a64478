import { SUMMARIES_OF_KIND, type Measure, type Metric } from '@vivid-beacon/core';

/** A measure divided by another metric, or on its own (null); how the ratio is shown stays. */
export function withPer(measure: Measure, metric: Metric | null): Measure {
  return {
    ...measure,
    per: metric && {
      metricId: metric.id,
      summary: SUMMARIES_OF_KIND[metric.kind][0],
      factor: measure.per?.factor ?? 1,
      unit: measure.per?.unit ?? null,
    },
  };
}

/** The same ratio times another factor, in another unit. */
export function withRatio(measure: Measure, factor: number, unit: string | null): Measure {
  return measure.per ? { ...measure, per: { ...measure.per, factor, unit } } : measure;
}
