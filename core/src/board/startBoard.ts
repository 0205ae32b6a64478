import { SUMMARIES_OF_KIND } from '../domain/metric';
import type { Metric, MetricsAlike } from '../api/metrics';
import { periodOfKind } from '../time/automaticPeriod';
import {
  BOARD_FORMAT_VERSION,
  makeReadout,
  type BoardDocument,
  type Readout,
  type ReadoutParts,
} from './board';

const MAX_READOUTS = 40;

/**
 * A first board for an asset: a gauge or figure and a trend for each of its own metrics, then one readout by
 * asset for every metric name below it, level by level.
 *
 * @param alike the metrics on the asset and below it, level by level, down to the chosen depth.
 */
export function startBoard(alike: readonly MetricsAlike[]): BoardDocument {
  const readouts: Readout[] = [];
  const add = ({ form, ...parts }: ReadoutParts & Pick<Readout, 'form' | 'measures'>): void => {
    if (readouts.length >= MAX_READOUTS) return;
    readouts.push(makeReadout(`r${readouts.length + 1}`, form, parts));
  };
  const measureOf = (metric: Metric): Readout['measures'] => [
    { metricId: metric.id, summary: SUMMARIES_OF_KIND[metric.kind][0], per: null },
  ];
  const own = alike.filter(({ level }) => level === 0).map(({ metric }) => metric);
  for (const metric of own)
    add({ form: metric.kind === 'level' ? 'gauge' : 'figure', measures: measureOf(metric) });
  for (const metric of own) add({ form: 'trend', measures: measureOf(metric), bucket: periodOfKind(metric) });
  for (const { level, metric, assetIds } of alike) {
    if (level === 0 || metric.origin === 'derived') continue;
    if (assetIds.length === 1) add({ form: 'figure', measures: measureOf(metric) });
    else {
      const scope = { assetIds: [...assetIds], attributes: [] };
      add({ form: 'straight', measures: measureOf(metric), groupBy: { kind: 'asset' }, scope });
    }
  }
  return {
    version: BOARD_FORMAT_VERSION,
    window: { kind: 'periods', count: 7, unit: 'day', current: true },
    scope: { assetIds: null, attributes: [] },
    hours: null,
    readouts,
  };
}
