import { attributeOf } from '../text/sameName';
import { startOfAttribute } from '../compare/sinceStart';
import type { Asset } from '../api/assets';
import type { Metric } from '../api/metrics';
import type { BaseReadout } from '../board/choices';
import type { TrendChoices } from './trendChoices';

/** Start event of each measure, ms; null if its asset has no such date. null = not aligned. */
export function alignedStarts(
  { align, groupBy, measures }: Pick<BaseReadout & TrendChoices, 'align' | 'groupBy' | 'measures'>,
  metrics: ReadonlyMap<string, Metric>,
  assets: ReadonlyMap<string, Asset>,
): readonly (number | null)[] | null {
  if (align === null || groupBy !== null) return null;
  return measures.map(({ metricId }) => {
    const metric = metrics.get(metricId);
    const attributes = assets.get(metric?.assetId ?? '')?.attributes;
    return attributes && metric
      ? startOfAttribute(attributeOf(attributes, align.attribute), metric.zone)
      : null;
  });
}
