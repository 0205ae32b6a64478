import { WHOLE_SCOPE, type Measure, type Query, type TargetBand } from '@vivid-beacon/core';

/** What a query about one measure of given metrics asks, but for its window: a group of one. */
export function queryOfOne(
  { metricId, summary, per }: Measure,
  band: TargetBand | null = null,
): Pick<Query, 'measures' | 'fold' | 'within' | 'groupBy' | 'scope'> {
  const denominator = per && {
    select: { metricIds: [per.metricId] },
    summary: per.summary,
    factor: per.factor,
  };
  return {
    measures: [{ select: { metricIds: [metricId] }, summary, per: denominator, band }],
    fold: null,
    within: [],
    groupBy: { kind: 'all' },
    scope: WHOLE_SCOPE,
  };
}
