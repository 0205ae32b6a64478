import { lowerFirst } from '../text/lowerFirst';
import type { Metric } from '../api/metrics';
import type { BaseReadout } from '../board/choices';
import type { Measure } from '../domain/measure';
import { perName, SUMMARY_WORDS } from '../domain/metric';
import type { GroupBy } from '../domain/query';

/** Names that distinguish the measures of a readout: asset, metric or both, with the plant where plants mix. */
export function measureNames(
  measures: BaseReadout['measures'],
  metrics: ReadonlyMap<string, Metric>,
): readonly string[] {
  const found = measures.map(({ metricId }) => metrics.get(metricId));
  const known = found.filter((metric) => metric !== undefined);
  const oneMetric = new Set(known.map(({ name }) => name)).size === 1;
  const oneAsset = new Set(known.map(({ assetId }) => assetId)).size === 1;
  const onePlant = new Set(known.map(({ plantName }) => plantName)).size < 2;
  const nameOf = (metric: Metric): string =>
    oneMetric ? metric.assetName : oneAsset ? metric.name : `${metric.assetName}, ${lowerFirst(metric.name)}`;
  return found.map((metric) => {
    if (!metric) return 'removed metric';
    const name = nameOf(metric);
    return onePlant || metric.assetName === metric.plantName ? name : `${name}, ${metric.plantName}`;
  });
}

/** Whether a summary is what one expects of a metric, so that it needs no words. */
export function isUsualSummary({ summary }: Pick<Measure, 'summary'>): boolean {
  return summary === 'mean' || summary === 'sum' || summary === 'last';
}

/**
 * The name of a measure over groups, without an asset: "Gas used per dried weight", "Bed temperature, highest".
 */
export function nameInGroups(
  measure: Measure,
  metricOf: (id: string) => { readonly name: string } | undefined,
): string {
  const metric = metricOf(measure.metricId);
  if (!metric) return 'Removed metric';
  const per = measure.per && metricOf(measure.per.metricId);
  if (per) return `${metric.name} per ${lowerFirst(per.name)}`;
  if (measure.perAttribute != null) return `${metric.name} per ${perName(measure.perAttribute)}`;
  return isUsualSummary(measure) ? metric.name : `${metric.name}, ${SUMMARY_WORDS[measure.summary]}`;
}

const GROUP_NOUNS: Readonly<Record<GroupBy['kind'], readonly [one: string, many: string]>> = {
  metric: ['metric', 'metrics'],
  asset: ['asset', 'assets'],
  plant: ['plant', 'plants'],
  part: ['part', 'parts'],
  assetKind: ['kind of asset', 'kinds of asset'],
  attribute: ['group', 'groups'],
  all: ['group', 'groups'],
};

/** How many groups there are: "One asset", "12 assets". */
export function groupCount(count: number, by: GroupBy | null): string {
  const [one, many] = GROUP_NOUNS[by?.kind ?? 'metric'];
  return count === 1 ? `One ${one}` : `${count} ${many}`;
}
