import { BeaconError, SUMMARIES_OF_KIND, testsOfRule, type RuleOver } from '@vivid-beacon/core';
import type { Reader } from '../db/reader';
import { needIndicator } from '../indicators/history';
import type { ReadContext } from '../readings/readContext';
import { needMetrics } from '../metrics/metrics';
import { metricsById, type MetricRow } from '../metrics/sql';
import { metricsInScope, type RuleParts } from './rulesSql';

/** Most metrics of one rule. */
const MAX_WATCHED = 500;

/**
 * Every metric that a rule watches, or would watch.
 *
 * @throws {BeaconError} NOT_FOUND for a missing metric, BAD_INPUT when the test does not fit its kind, when it has
 *         no samples of its own, or when there are too many.
 */
export async function watchedMetrics(
  context: ReadContext,
  rule: Pick<RuleParts, 'metricId' | 'under' | 'attributes' | 'over' | 'hours' | 'test' | 'suppress'>,
): Promise<MetricRow[]> {
  const { db } = context;
  const metric = (await needMetrics(db, [rule.metricId])).get(rule.metricId)!;
  if (rule.over === null && metric.origin !== 'samples') {
    throw new BeaconError(
      'BAD_INPUT',
      `${metric.name} has no samples of its own. Choose the periods whose values the rule judges.`,
      'over',
    );
  }
  if (!testsOfRule(metric.kind, rule.over).includes(rule.test.kind)) {
    const what = rule.over === null ? `a ${metric.kind}` : `the values of ${rule.over.period}s`;
    throw new BeaconError('BAD_INPUT', `This cannot be looked for in ${what}.`, 'test.kind');
  }
  if (rule.over) await checkOver(context, metric, rule, rule.over);
  if (rule.suppress) await needState(db, rule.suppress.metricId);
  if (rule.under === null) return [metric];
  const ids = await metricsInScope(db, { ...rule, under: rule.under });
  if (ids.length > MAX_WATCHED) {
    throw new BeaconError(
      'BAD_INPUT',
      `${ids.length} metrics are meant; a rule watches ${MAX_WATCHED} at most. Choose an asset further down.`,
      'under',
    );
  }
  if (ids.length === 0) {
    throw new BeaconError('BAD_INPUT', 'No asset here has such a metric and these attributes.', 'under');
  }
  const rows = await metricsById(db, ids);
  return ids.map((id) => rows.get(id)!);
}

/** Whether periods can be judged so. */
async function checkOver(
  context: ReadContext,
  { name, kind, id }: MetricRow,
  { hours, test, under }: Pick<RuleParts, 'hours' | 'test' | 'under'>,
  over: RuleOver,
): Promise<void> {
  const { summary, indicatorId } = over;
  if (indicatorId === null) {
    if (SUMMARIES_OF_KIND[kind].includes(summary)) return;
    throw new BeaconError(
      'BAD_INPUT',
      `${name} is of kind ${kind}, which has no ${summary}.`,
      'over.summary',
    );
  }
  const { definition } = await needIndicator(context.db, indicatorId);
  if (definition.measure.metricId !== id) {
    throw new BeaconError('BAD_INPUT', `${definition.name} measures another metric.`, 'metricId');
  }
  if (hours !== null) {
    throw new BeaconError('BAD_INPUT', 'An indicator counts its own hours. Give the rule none.', 'hours');
  }
  if (test.kind === 'level' && under !== null) {
    const words = 'The target band of an indicator is that of its own asset. Set a limit for several assets.';
    throw new BeaconError('BAD_INPUT', words, 'test.kind');
  }
}

async function needState(db: Reader, metricId: string): Promise<void> {
  const state = (await needMetrics(db, [metricId])).get(metricId)!;
  if (state.kind === 'state') return;
  throw new BeaconError(
    'BAD_INPUT',
    `${state.name} is a ${state.kind}. Only a state can suppress a rule.`,
    'suppress.metricId',
  );
}
