import { SUMMARIES_OF_KIND, type Measure, type Metric } from '@vivid-beacon/core';

/** A measure divided by another metric, or on its own (null); how the ratio is shown stays. */
export function withPer(measure: Measure, metric: Metric | null): Measure {
  return {
    ...measure,
    perAttribute: null,
    per: metric && {
      metricId: metric.id,
      summary: SUMMARIES_OF_KIND[metric.kind][0],
      factor: measure.per?.factor ?? 1,
      unit: measure.per?.unit ?? null,
    },
  };
}

/** A measure divided by an attribute of its assets. */
export function withPerAttribute(measure: Measure, name: string): Measure {
  return { ...measure, per: null, perAttribute: name };
}

/** The same ratio times another factor, in another unit. */
export function withRatio(measure: Measure, factor: number, unit: string | null): Measure {
  return measure.per ? { ...measure, per: { ...measure.per, factor, unit } } : measure;
}
