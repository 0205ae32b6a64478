import { startOfAttribute, type Asset, type Metric, type Readout } from '@vivid-beacon/core';

/** When the start event of each measure was, ms; null where its asset has no such date. null = not aligned. */
export function alignedStarts(
  { align, groupBy, measures }: Readout,
  metrics: ReadonlyMap<string, Metric>,
  assets: ReadonlyMap<string, Asset>,
): readonly (number | null)[] | null {
  if (align === null || groupBy !== null) return null;
  return measures.map(({ metricId }) => {
    const metric = metrics.get(metricId);
    const attributes = assets.get(metric?.assetId ?? '')?.attributes;
    return attributes && metric ? startOfAttribute(attributes[align.attribute], metric.zone) : null;
  });
}
