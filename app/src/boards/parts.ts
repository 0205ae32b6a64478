import {
  levelOf,
  type GroupBy,
  type Level,
  type Metric,
  type Query,
  type QueryAnswer,
  type Readout,
  type Reading,
} from '@vivid-beacon/core';
import type { ShownReadout } from './resolveReadout';

/** One value of a readout: a measure of its own, or a group. */
export interface Part {
  readonly key: string;
  readonly name: string;
  /** The asset it stands for, which a tap focuses; null where it is none or several. */
  readonly assetId: string | null;
  readonly metricIds: readonly string[];
  /** Of a group: those its metrics are divided by. */
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
  /** How it was made, where the server told it with the value. */
  readonly reading: Reading | null;
}

/** The question a grouped readout asks the planner: the first measure's metric, by name, in groups. */
export function groupQuery(
  { readout, window, scope, hours }: ShownReadout,
  metrics: ReadonlyMap<string, Metric>,
  bucket: Query['bucket'],
): Query | null {
  const [measure] = readout.measures;
  const metric = metrics.get(measure.metricId);
  const per = measure.per && metrics.get(measure.per.metricId);
  if (!metric || (measure.per && !per)) return null;
  return {
    select: { metricName: metric.name },
    summary: measure.summary,
    per: measure.per && {
      select: { metricName: per!.name },
      summary: measure.per.summary,
      factor: measure.per.factor,
    },
    window,
    bucket,
    groupBy: readout.groupBy!,
    scope,
    hours,
    compare: bucket === null ? readout.compare : 'none',
  };
}

/** The question how the value of a group was made; null where nothing is there to be explained. */
export function makingQuery({ readout, window, hours }: ShownReadout, part: Part): Query | null {
  const { summary, per } = readout.measures[0];
  if (part.metricIds.length === 0 || (per && part.perMetricIds.length === 0)) return null;
  return {
    select: { metricIds: part.metricIds },
    summary,
    per: per && { select: { metricIds: part.perMetricIds }, summary: per.summary, factor: per.factor },
    window,
    bucket: null,
    groupBy: { kind: 'all' },
    scope: { assetIds: null, attributes: [] },
    hours,
    provenance: true,
  };
}

/** Groups of an answer as parts, one value each. */
export function partsOfGroups(
  answer: QueryAnswer,
  readout: Readout,
  metrics: ReadonlyMap<string, Metric>,
): Part[] {
  const { unit: own } = readout.measures[0].per ?? { unit: null };
  const groups = answer.groups.filter(({ name }) => name !== '' || readout.keepBlanks);
  const names = shortNames(groups.map(({ name }) => name));
  return groups.map(
    ({ name, metricIds, perMetricIds, withinIds, values, coverage, samples, previous }, i) => ({
      key: name,
      name: names[i] || noneWords(readout.groupBy!),
      assetId: assetOf(readout.groupBy!, metricIds, metrics),
      metricIds,
      perMetricIds,
      within: withinIds.length,
      value: values[0] ?? null,
      unit: own ?? answer.unit,
      level: levelFor(readout, values[0] ?? null, coverage[0] ?? 0),
      coverage: coverage[0] ?? 0,
      samples: samples[0] ?? 0,
      previous,
      partial: answer.window.end > answer.now,
      reading: null,
    }),
  );
}

export function levelFor(readout: Readout, value: number | null, coverage: number): Level {
  if (readout.band) return levelOf(readout.band, value, coverage);
  return value === null ? 'nodata' : 'clear';
}

function assetOf(
  by: GroupBy,
  metricIds: readonly string[],
  metrics: ReadonlyMap<string, Metric>,
): string | null {
  const metric = metrics.get(metricIds[0]);
  if (!metric) return null;
  if (by.kind === 'plant') return metric.plantId;
  return by.kind === 'asset' || by.kind === 'metric' ? metric.assetId : null;
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
