import { keyFrom } from '@vivid-beacon/server';
import type { ScenarioMetric } from './scenario';

/** The key that pushes name a metric of the scenario by. */
export function metricKey(metric: Pick<ScenarioMetric, 'plant' | 'asset' | 'name'>): string {
  return keyFrom(metric.plant, metric.asset, metric.name);
}
