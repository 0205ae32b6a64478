import { BeaconError, testsOfMetric } from '@vivid-beacon/core';
import type { Reader } from '../db/reader';
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
  db: Reader,
  rule: Pick<RuleParts, 'metricId' | 'under' | 'attributes' | 'test' | 'suppress'>,
): Promise<MetricRow[]> {
  const metric = (await needMetrics(db, [rule.metricId])).get(rule.metricId)!;
  if (metric.origin !== 'samples') {
    throw new BeaconError(
      'BAD_INPUT',
      `${metric.name} has no samples of its own. An alarm rule watches metrics that do.`,
      'metricId',
    );
  }
  if (!testsOfMetric(metric.kind).includes(rule.test.kind)) {
    throw new BeaconError('BAD_INPUT', `This cannot be looked for in a ${metric.kind}.`, 'test.kind');
  }
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

async function needState(db: Reader, metricId: string): Promise<void> {
  const state = (await needMetrics(db, [metricId])).get(metricId)!;
  if (state.kind === 'state') return;
  throw new BeaconError(
    'BAD_INPUT',
    `${state.name} is a ${state.kind}. Only a state can suppress a rule.`,
    'suppress.metricId',
  );
}
