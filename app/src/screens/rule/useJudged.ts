import {
  SUMMARIES_OF_KIND,
  unitOfMeasure,
  type IndicatorReading,
  type Measure,
  type Metric,
  type RuleInput,
  type RulePeriod,
} from '@vivid-beacon/core';
import { useIndicatorsById } from '../../api/indicators';

/** What a rule judges: the samples of its metric, or the values of whole periods. */
export interface JudgedByRule {
  /** As its sentence says it: "bed temperature". */
  readonly name: string;
  readonly unit: string;
  readonly decimals: number;
  readonly measure: Measure;
  /** null = sample by sample. */
  readonly period: RulePeriod | null;
}

/** What a rule judges on a metric. @param indicator of a rule on one. */
export function judgedOf(
  { over }: Pick<RuleInput, 'over'>,
  metric: Metric,
  indicator: Pick<IndicatorReading, 'name' | 'definition' | 'reading'> | undefined,
): JudgedByRule {
  const name = metric.name.toLowerCase();
  const { unit, decimals, id: metricId, kind } = metric;
  if (over === null) {
    const summary = kind === 'amount' ? 'sum' : 'mean';
    return { name, unit, decimals, measure: { metricId, summary, per: null }, period: null };
  }
  const { period, summary } = over;
  if (indicator) {
    const { decimals: own, measure } = indicator.definition;
    return { name: indicator.name, unit: indicator.reading.unit, decimals: own, measure, period };
  }
  return {
    name,
    unit: unitOfMeasure({ summary, unit }, null, null),
    decimals,
    measure: { metricId, summary, per: null },
    period,
  };
}

/** What a rule judges; null while its metric is not known. */
export function useJudged(
  rule: Pick<RuleInput, 'over'> | null,
  metric: Metric | undefined,
): JudgedByRule | null {
  const { byId } = useIndicatorsById([rule?.over?.indicatorId]);
  return rule && metric ? judgedOf(rule, metric, byId.get(rule.over?.indicatorId ?? '')) : null;
}

/** The first choice of periods for a metric: full hours. */
export const firstPeriods = ({ kind }: Pick<Metric, 'kind'>): NonNullable<RuleInput['over']> => ({
  period: 'hour',
  summary: SUMMARIES_OF_KIND[kind][0],
  indicatorId: null,
});
