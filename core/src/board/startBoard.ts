import { SUMMARIES_OF_KIND } from '../domain/metric';
import type { Asset } from '../api/assets';
import type { Metric } from '../api/metrics';
import { periodOfKind } from '../time/automaticPeriod';
import { BOARD_FORMAT_VERSION, emptyReadout, type BoardDocument, type Readout } from './board';

const MOST_READOUTS = 40;

/**
 * A board to begin with, for an asset: a gauge or figure and a trend for each of its own metrics, then for
 * every metric name below it, level by level, one readout by asset.
 *
 * @param depth how many levels below the asset are taken in; 0 = only itself.
 */
export function startBoard(
  asset: Asset,
  assets: readonly Asset[],
  metrics: readonly Metric[],
  depth: number,
): BoardDocument {
  const readouts: Readout[] = [];
  const add = (part: Partial<Readout> & Pick<Readout, 'form' | 'measures'>): void => {
    if (readouts.length >= MOST_READOUTS) return;
    readouts.push({ ...emptyReadout(`r${readouts.length + 1}`, part.form), ...part });
  };
  const measureOf = (metric: Metric): Readout['measures'] => [
    { metricId: metric.id, summary: SUMMARIES_OF_KIND[metric.kind][0], per: null },
  ];
  const own = metrics.filter(({ assetId }) => assetId === asset.id);
  for (const metric of own)
    add({ form: metric.kind === 'level' ? 'gauge' : 'figure', measures: measureOf(metric) });
  for (const metric of own) add({ form: 'trend', measures: measureOf(metric), bucket: periodOfKind(metric) });
  let level = [asset.id];
  for (let down = 1; down <= depth && level.length > 0; down++) {
    const above = new Set(level);
    const here = assets.filter(({ parentId }) => parentId !== null && above.has(parentId));
    level = here.map(({ id }) => id);
    const ids = new Set(level);
    const byName = new Map<string, Metric[]>();
    for (const metric of metrics) {
      if (!ids.has(metric.assetId) || metric.origin === 'derived') continue;
      const key = `${metric.name} ${metric.unit} ${metric.kind}`;
      byName.set(key, [...(byName.get(key) ?? []), metric]);
    }
    for (const same of byName.values()) {
      const [first] = same;
      if (same.length === 1) add({ form: 'figure', measures: measureOf(first) });
      else {
        const scope = { assetIds: same.map(({ assetId }) => assetId), attributes: [] };
        add({ form: 'straight', measures: measureOf(first), groupBy: { kind: 'asset' }, scope });
      }
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
