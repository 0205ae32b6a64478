import { keyFrom } from '@vivid-beacon/server';
import type { ScenarioMetric } from './scenario';

/** The key under which a metric of the scenario is pushed. */
export function metricKey(metric: Pick<ScenarioMetric, 'plant' | 'asset' | 'name'>): string {
  return keyFrom(metric.plant, metric.asset, metric.name);
}
