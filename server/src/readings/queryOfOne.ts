import {
  askedOf,
  WHOLE_SCOPE,
  type Measure,
  type Query,
  type Selection,
  type TargetBand,
} from '@vivid-beacon/core';

/** What a query about one measure of given metrics asks, but for its window: a group of one. */
export function queryOfOne(
  measure: Measure,
  band: TargetBand | null = null,
): Pick<Query, 'measures' | 'fold' | 'within' | 'groupBy' | 'scope'> {
  const only = (metricId: string): Selection => ({ metricIds: [metricId] });
  const { metricId, per } = measure;
  return {
    measures: [askedOf(measure, only(metricId), only(per?.metricId ?? metricId), band)],
    fold: null,
    within: [],
    groupBy: { kind: 'all' },
    scope: WHOLE_SCOPE,
  };
}
