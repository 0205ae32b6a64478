import { isCovered, levelOf, type Level, type TargetBand } from '../bands/targetBand';
import {
  askedOf,
  WHOLE_SCOPE,
  type GroupBy,
  type MeasureValues,
  type Query,
  type QueryAnswer,
  type Selection,
} from '../domain/query';
import type { Metric } from '../api/metrics';
import type { BaseReadout } from '../board/choices';
import type { WindowSpec } from '../time/windowSpec';
import type { NamedGroup } from '../scope/groupScope';
import { measureNames } from './measureNames';
import type { ShownReadout } from './shown';

/** One value of a readout: of a measure, or of a group. */
export interface ReadoutValue {
  readonly key: string;
  readonly name: string;
  /** The asset it represents, which a tap focuses; null if none or several. */
  readonly assetId: string | null;
  /** Its group as the answer has it; null of a measure. */
  readonly group: NamedGroup | null;
  readonly metricIds: readonly string[];
  /** Metrics in the denominator. */
  readonly perMetricIds: readonly string[];
  /** Number of metrics of the same name below them, which they already include. */
  readonly within: number;
  /** Number of metrics that do not count, because no asset of theirs has the attribute it is divided by. */
  readonly withoutAttribute: number;
  readonly value: number | null;
  readonly unit: string;
  readonly level: Level;
  readonly coverage: number;
  readonly samples: number;
  readonly previous: number | null;
  /** Whether its window is not over yet. */
  readonly partial: boolean;
  /** Newest sample that counted, ms; null without data. */
  readonly asOf: number | null;
  /** Index of its measure. */
  readonly measure: number;
  readonly now: number;
  readonly zone: string;
  /** Its stretch of time, if that is not the window of its readout. */
  readonly over?: WindowSpec | null;
}

/** How the query of a readout differs from one value of the whole window for its first measure. */
interface QueryWays {
  readonly bucket?: Query['bucket'];
  readonly fold?: Query['fold'];
  /** Whether groups show all measures. */
  readonly all?: boolean;
}

/**
 * The query of a readout: metrics by the name of the first measure's (or of all), in groups; or each measure by itself.
 *
 * @returns null while a metric is not known.
 */
export function readoutQuery(
  { readout, window, scope, hours }: ShownReadout,
  metrics: ReadonlyMap<string, Metric>,
  { bucket = null, fold = null, all = false }: QueryWays = {},
): Query | null {
  const { groupBy, measures } = readout;
  if (measures.length === 0) return null;
  const asked = (groupBy && !all ? measures.slice(0, 1) : measures).map((measure) => {
    const selected = (metricId: string): Selection | null =>
      groupBy ? selectionByName(metricId, metrics) : { metricIds: [metricId] };
    const select = selected(measure.metricId);
    const below = measure.per ? selected(measure.per.metricId) : select;
    return select && below && askedOf(measure, select, below);
  });
  const known = asked.filter((each) => each !== null);
  if (known.length < asked.length) return null;
  return {
    measures: known,
    window,
    bucket,
    fold,
    within: [],
    groupBy: groupBy ?? { kind: 'all' },
    // Metrics chosen one by one are shown regardless of the scope.
    scope: groupBy ? scope : WHOLE_SCOPE,
    hours,
    compare: bucket === null && fold === null ? readout.compare : 'none',
    provenance: false,
  };
}

function selectionByName(metricId: string, metrics: ReadonlyMap<string, Metric>): Selection | null {
  const metric = metrics.get(metricId);
  return metric ? { metricName: metric.name } : null;
}

/** The query for the provenance of a value; null if it has no metrics. */
export function makingQuery({ readout, window, hours }: ShownReadout, part: ReadoutValue): Query | null {
  const measure = readout.measures[part.measure];
  const { metricIds, perMetricIds } = part;
  if (metricIds.length === 0 || (measure.per && perMetricIds.length === 0)) return null;
  return {
    measures: [askedOf(measure, { metricIds }, { metricIds: perMetricIds })],
    window: part.over ?? window,
    bucket: null,
    fold: null,
    within: [],
    groupBy: { kind: 'all' },
    scope: WHOLE_SCOPE,
    hours,
    compare: 'none',
    provenance: true,
  };
}

/** The values of an answer: one per group, or one per measure of its only group. */
export function readoutValues(
  answer: QueryAnswer,
  readout: BaseReadout,
  metrics: ReadonlyMap<string, Metric>,
): ReadoutValue[] {
  return readout.groupBy ? partsOfGroups(answer, readout) : partsOfMeasures(answer, readout, metrics);
}

function partsOfGroups(answer: QueryAnswer, readout: BaseReadout): ReadoutValue[] {
  const groups = answer.groups.filter(({ name }) => name !== '' || readout.keepBlanks);
  const names = groupNames(groups, readout.groupBy!);
  return groups.map(({ name, assetId, measures }, i) => ({
    ...valueOfMeasure(answer, readout, measures[0], 0),
    key: name,
    name: names[i],
    assetId,
    group: { name, assetId },
  }));
}

/** Names of groups as they are shown: without the plant that all share, and words for the one without the attribute. */
export function groupNames(groups: readonly { readonly name: string }[], by: GroupBy): string[] {
  return shortNames(groups.map(({ name }) => name)).map((name) => name || noneWords(by));
}

function partsOfMeasures(
  answer: QueryAnswer,
  readout: BaseReadout,
  metrics: ReadonlyMap<string, Metric>,
): ReadoutValue[] {
  const names = measureNames(readout.measures, metrics);
  return answer.groups[0].measures.map((values, i) => {
    const { metricId } = readout.measures[i];
    const part = valueOfMeasure(answer, readout, values, i);
    return {
      ...part,
      key: `${i} ${metricId}`,
      name: names[i],
      assetId: metrics.get(metricId)?.assetId ?? null,
      group: null,
      previous: readout.reference && i === 0 ? readout.reference.value : part.previous,
    };
  });
}

/** A measure of one group as a value of a readout, judged by the band of the readout. */
export function valueOfMeasure(
  { units, now, zone }: QueryAnswer,
  readout: BaseReadout,
  {
    metricIds,
    perMetricIds,
    withinIds,
    withoutAttribute = 0,
    values,
    coverage,
    samples,
    previous,
    partial,
    asOf,
  }: MeasureValues,
  measure: number,
): Omit<ReadoutValue, 'key' | 'name' | 'assetId' | 'group'> {
  return {
    metricIds,
    perMetricIds,
    within: withinIds.length,
    withoutAttribute,
    value: values[0] ?? null,
    unit: readout.measures[measure].per?.unit ?? units[measure],
    level: levelFor(readout.band, values[0] ?? null, coverage[0] ?? 0),
    coverage: coverage[0] ?? 0,
    samples: samples[0] ?? 0,
    previous,
    partial,
    asOf,
    measure,
    now,
    zone,
  };
}

/** The level of a value; without a band only whether there is enough data. */
export function levelFor(band: TargetBand | null, value: number | null, coverage: number): Level {
  if (band) return levelOf(band, value, coverage);
  return value === null || !isCovered({ coverage }) ? 'nodata' : 'clear';
}

function noneWords(by: GroupBy): string {
  return by.kind === 'attribute' ? `no ${by.name}` : 'not named';
}

/** Names without the plant they all begin with: "Foundry Lane / Dryer 1" → "Dryer 1". */
export function shortNames(names: readonly string[]): string[] {
  const parts = names.map((name) => name.split(' / '));
  let shared = 0;
  while (
    parts.length > 1 &&
    parts.every((each) => each.length > shared + 1 && each[shared] === parts[0][shared])
  ) {
    shared++;
  }
  return parts.map((each) => each.slice(shared).join(' / '));
}

/** The least coverage of the values that the data of a form holds, 0 to 1; null where it holds none by themselves. */
export function leastCoverage(data: object): number | null {
  const { values, groups, copies, parts } = data as {
    readonly values?: readonly ReadoutValue[];
    readonly groups?: readonly { readonly values: readonly ReadoutValue[] }[];
    readonly copies?: readonly { readonly data: object }[];
    readonly parts?: readonly { readonly of: ReadoutValue | null }[];
  };
  const known = [
    ...(values ?? []),
    ...(groups ?? []).flatMap((group) => group.values),
    ...(parts ?? []).flatMap(({ of }) => of ?? []),
  ].map(({ coverage }) => coverage);
  const all = [...known, ...(copies ?? []).flatMap((copy) => leastCoverage(copy.data) ?? [])];
  return all.length === 0 ? null : all.reduce((least, each) => Math.min(least, each), 1);
}
