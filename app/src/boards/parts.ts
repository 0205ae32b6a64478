import {
  levelOf,
  WHOLE_SCOPE,
  type GroupBy,
  type Level,
  type MeasureValues,
  type Metric,
  type Query,
  type QueryAnswer,
  type Readout,
  type Selection,
} from '@vivid-beacon/core';
import { measureNames } from './measureNames';
import type { ShownReadout } from './resolveReadout';

/** One value of a readout: a measure of its own, or a group. */
export interface Part {
  readonly key: string;
  readonly name: string;
  /** The asset it stands for, which a tap focuses; null where it is none or several. */
  readonly assetId: string | null;
  readonly metricIds: readonly string[];
  /** Those its metrics are divided by. */
  readonly perMetricIds: readonly string[];
  /** How many of the same name lie below those and are part of them. */
  readonly within: number;
  readonly value: number | null;
  readonly unit: string;
  readonly level: Level;
  readonly coverage: number;
  readonly samples: number;
  readonly previous: number | null;
  /** Whether the end of its window still lies ahead. */
  readonly partial: boolean;
  /** Newest sample that counted, ms; null without data. */
  readonly asOf: number | null;
  /** The measure of the readout it is one of. */
  readonly measure: number;
  readonly now: number;
  readonly zone: string;
}

/**
 * The question of a readout to the planner: the first measure's metric, by name, in groups; or each measure by itself.
 *
 * @param bucket periods; null = one value of the whole window. @returns null while a metric is not known.
 */
export function readoutQuery(
  { readout, window, scope, hours }: ShownReadout,
  metrics: ReadonlyMap<string, Metric>,
  bucket: Query['bucket'],
): Query | null {
  const { groupBy, measures } = readout;
  if (measures.length === 0) return null;
  const asked = (groupBy ? measures.slice(0, 1) : measures).map((measure) => {
    const select = groupBy ? selectionByName(measure.metricId, metrics) : { metricIds: [measure.metricId] };
    if (!measure.per) return select && { select, summary: measure.summary, per: null, band: null };
    const below = groupBy
      ? selectionByName(measure.per.metricId, metrics)
      : { metricIds: [measure.per.metricId] };
    const { summary, factor } = measure.per;
    const per = below && { select: below, summary, factor };
    return select && per && { select, summary: measure.summary, per, band: null };
  });
  const known = asked.filter((each) => each !== null);
  if (known.length < asked.length) return null;
  return {
    measures: known,
    window,
    bucket,
    groupBy: groupBy ?? { kind: 'all' },
    // Metrics that were chosen one by one are shown wherever they lie.
    scope: groupBy ? scope : WHOLE_SCOPE,
    hours,
    compare: bucket === null ? readout.compare : 'none',
    provenance: false,
  };
}

function selectionByName(metricId: string, metrics: ReadonlyMap<string, Metric>): Selection | null {
  const metric = metrics.get(metricId);
  return metric ? { metricName: metric.name } : null;
}

/** The question how a value was made; null where nothing is there to be explained. */
export function makingQuery({ readout, window, hours }: ShownReadout, part: Part): Query | null {
  const { summary, per } = readout.measures[part.measure];
  if (part.metricIds.length === 0 || (per && part.perMetricIds.length === 0)) return null;
  return {
    measures: [
      {
        select: { metricIds: part.metricIds },
        summary,
        per: per && { select: { metricIds: part.perMetricIds }, summary: per.summary, factor: per.factor },
        band: null,
      },
    ],
    window,
    bucket: null,
    groupBy: { kind: 'all' },
    scope: WHOLE_SCOPE,
    hours,
    compare: 'none',
    provenance: true,
  };
}

/** An answer as parts, one value each: of groups, or of the measures of its only group. */
export function partsOf(answer: QueryAnswer, readout: Readout, metrics: ReadonlyMap<string, Metric>): Part[] {
  return readout.groupBy ? partsOfGroups(answer, readout) : partsOfMeasures(answer, readout, metrics);
}

function partsOfGroups(answer: QueryAnswer, readout: Readout): Part[] {
  const groups = answer.groups.filter(({ name }) => name !== '' || readout.keepBlanks);
  const names = shortNames(groups.map(({ name }) => name));
  return groups.map(({ name, assetId, measures }, i) => ({
    ...partOf(answer, readout, measures[0], 0),
    key: name,
    name: names[i] || noneWords(readout.groupBy!),
    assetId,
  }));
}

function partsOfMeasures(
  answer: QueryAnswer,
  readout: Readout,
  metrics: ReadonlyMap<string, Metric>,
): Part[] {
  const names = measureNames(readout.measures, metrics);
  return answer.groups[0].measures.map((values, i) => {
    const { metricId } = readout.measures[i];
    const part = partOf(answer, readout, values, i);
    return {
      ...part,
      key: `${i} ${metricId}`,
      name: names[i],
      assetId: metrics.get(metricId)?.assetId ?? null,
      previous: readout.reference && i === 0 ? readout.reference.value : part.previous,
    };
  });
}

function partOf(
  { units, now, zone }: QueryAnswer,
  readout: Readout,
  { metricIds, perMetricIds, withinIds, values, coverage, samples, previous, partial, asOf }: MeasureValues,
  measure: number,
): Omit<Part, 'key' | 'name' | 'assetId'> {
  return {
    metricIds,
    perMetricIds,
    within: withinIds.length,
    value: values[0] ?? null,
    unit: readout.measures[measure].per?.unit ?? units[measure],
    level: levelFor(readout, values[0] ?? null, coverage[0] ?? 0),
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

export function levelFor(readout: Readout, value: number | null, coverage: number): Level {
  if (readout.band) return levelOf(readout.band, value, coverage);
  return value === null ? 'nodata' : 'clear';
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
