import {
  ADDS_UP,
  assetsInScope,
  BeaconError,
  PLAIN_CALENDAR,
  coveredValue,
  MINIMUM_COVERAGE,
  previousWindow,
  resolveWindow,
  sameWindowLastYear,
  topmost,
  unitOfMeasure,
  type Asset,
  type GroupBy,
  type Interval,
  type Making,
  type ProvenancePart,
  type Query,
  type QueryAnswer,
  type QueryGroup,
  type Selection,
  type Summary,
  type WorkingCalendar,
} from '@vivid-beacon/core';
import {
  bucketSpans,
  checkSummary,
  formulaWords,
  ratioOf,
  togetherAs,
  type BucketSpans,
  type Summarised,
} from '@vivid-beacon/core/src/engine';
import { listAssets } from '../assets/sql';
import { listCalendars } from '../calendars/sql';
import type { Queryable } from '../db/database';
import { spend } from '../db/readBudget';
import { needMetrics } from '../metrics/metrics';
import { metricsOfAssets, type MetricRow } from '../metrics/sql';
import { poolMetrics, summariseMetric, type PlanContext } from './planner';
import { newestOfAll, provenancePart } from './provenance';

/**
 * Answers one question about one or many metrics: summary, window, periods, groups, scope and recurring
 * hours. Days are those of each asset's own zone: the first day of one group is put beside the first day of
 * another, wherever they lie.
 */
export async function answerQuery(db: Queryable, query: Query, now: number): Promise<QueryAnswer> {
  const context: PlanContext = { db, now };
  const needsTree = treeNeeded(query);
  const [assets, calendars, known] = await Promise.all([
    needsTree ? listAssets(db) : [],
    calendarMatters(query) ? listCalendars(db) : [],
    needsTree || !('metricIds' in query.select) ? null : needMetrics(db, query.select.metricIds),
  ]);
  const inScope = new Set(assetsInScope(assets, query.scope));
  const rows = known ? [...known.values()] : await selected(db, query.select, inScope);
  const perRows = query.per ? await selected(db, query.per.select, needsTree ? inScope : null) : [];
  const every = [...rows, ...perRows];
  const places = placesOf(query, every, calendars, (zone, rules) =>
    resolveWindow(query.window, now, zone, rules),
  );
  const before = compared(query);
  const placesBefore =
    before && placesOf(query, every, calendars, (zone, rules) => before(query.window, now, zone, rules));
  const groups = groupRows(rows, query.groupBy, assets);
  const perGroups = groupRows(perRows, query.groupBy, assets);
  const parents = new Map(assets.map(({ id, parentId }) => [id, parentId]));
  const answered: QueryGroup[] = [];
  for (const [name, all] of groups) {
    const members = { upper: topmost(all, parents), lower: topmost(perGroups.get(name) ?? [], parents) };
    const values = await valuesOfGroup(context, query, members, places);
    const previous = placesBefore && (await valuesOfGroup(context, query, members, placesBefore));
    answered.push({
      name,
      metricIds: members.upper.map(({ id }) => id),
      perMetricIds: members.lower.map(({ id }) => id),
      withinIds: all.filter((row) => !members.upper.includes(row)).map(({ id }) => id),
      values: values.map(({ value }) => value),
      coverage: values.map(({ coverage }) => coverage),
      samples: values.map(({ samples }) => samples),
      previous: previous && coveredValue(previous[0]),
      making: query.provenance ? await makingOf(context, query, members, places) : null,
    });
  }
  const first = places.get(rows[0].plantId)!;
  return {
    window: first.window,
    zone: first.zone,
    now,
    unit: unitOfMeasure(
      { summary: query.summary, unit: rows[0].unit },
      query.per && perRows[0] ? { summary: query.per.summary, unit: perRows[0].unit } : null,
      null,
    ),
    start: first.start,
    end: first.end,
    names: first.names,
    groups: answered,
  };
}

/** Shifts, working hours, weeks and financial years differ from site to site; hours, days and months do not. */
function calendarMatters({ window, bucket, hours }: Query): boolean {
  const unit = window.kind === 'absolute' ? null : window.unit;
  return hours !== null || OF_CALENDAR.has(bucket) || OF_CALENDAR.has(unit);
}

const OF_CALENDAR: ReadonlySet<string | null> = new Set(['shift', 'week', 'financialYear']);

/** Metrics given by id need no asset tree where each stands alone, or is grouped by what it knows itself. */
function treeNeeded({ select, per, scope, groupBy }: Query): boolean {
  const selections = per ? [select, per.select] : [select];
  const byName = selections.some((each) => !('metricIds' in each && each.metricIds));
  const scoped = scope.assetIds !== null || scope.attributes.length > 0;
  const alone =
    groupBy.kind === 'all' && selections.every((each) => 'metricIds' in each && each.metricIds.length === 1);
  return byName || scoped || !(alone || groupBy.kind === 'metric' || groupBy.kind === 'asset');
}

async function selected(
  db: Queryable,
  select: Selection,
  /** null = all assets. */
  inScope: ReadonlySet<string> | null,
): Promise<MetricRow[]> {
  const rows =
    'metricIds' in select && select.metricIds
      ? [...(await needMetrics(db, select.metricIds)).values()].filter(
          ({ assetId }) => !inScope || inScope.has(assetId),
        )
      : await metricsOfAssets(db, [...(inScope ?? [])], (select as { metricName: string }).metricName);
  if (rows.length === 0) {
    const what = 'metricName' in select ? `No metric named "${select.metricName}"` : 'None of the metrics';
    throw new BeaconError('BAD_INPUT', `${what} lies in this scope. Widen the scope.`, 'scope');
  }
  return rows;
}

/** The window that values are compared with, where they are. */
function compared({ compare = 'none' }: Query): typeof previousWindow | null {
  if (compare === 'none') return null;
  return compare === 'lastYear' ? sameWindowLastYear : previousWindow;
}

/** The metrics of a group: those that count, and those they are divided by. */
interface Members {
  readonly upper: readonly MetricRow[];
  readonly lower: readonly MetricRow[];
}

/** One value a period: of a ratio sums first, the division after. */
async function valuesOfGroup(
  context: PlanContext,
  { summary, per }: Query,
  { upper, lower }: Members,
  places: ReadonlyMap<string, BucketSpans>,
): Promise<readonly Summarised[]> {
  const top = await poolGroup(context, upper, summary, places);
  if (!per) return top;
  if (lower.length === 0) return top.map(() => ({ value: null, samples: 0, coverage: 0 }));
  const bottom = await poolGroup(context, lower, per.summary, places);
  return bottom.map((each, i) => ratioOf(top[i], each, per.factor));
}

/** Looking up where the samples of one metric came from takes about as long as reading so many. */
const OF_PART = 3000;

/** How the value of a group was made: each of its metrics with its own value and sources. */
async function makingOf(
  context: PlanContext,
  { summary, per }: Query,
  { upper, lower }: Members,
  places: ReadonlyMap<string, BucketSpans>,
): Promise<Making> {
  const { db, now } = context;
  spend(db, (upper.length + lower.length) * OF_PART);
  const { window, zone } = places.get(upper[0].plantId)!;
  const parts: ProvenancePart[] = [];
  for (const [rows, own] of [
    [upper, summary],
    [lower, per?.summary ?? summary],
  ] as const) {
    for (const row of rows) {
      const place = places.get(row.plantId)!;
      const answer = await summariseMetric(context, row, own, place);
      parts.push(await provenancePart(db, row, own, answer, place.window));
    }
  }
  return {
    asOf: await newestOfAll(db, [...upper, ...lower], window, now),
    provenance: {
      formula: formulaWords(
        togetherAs(summary, upper),
        per && lower.length > 0 ? togetherAs(per.summary, lower) : null,
        per?.factor ?? 1,
      ),
      window,
      zone,
      minimumCoverage: MINIMUM_COVERAGE,
      parts,
    },
  };
}

/** Window and periods of each plant, by its zone and calendar. */
function placesOf(
  { bucket, hours }: Query,
  rows: readonly MetricRow[],
  calendars: readonly { plantId: string; calendar: WorkingCalendar }[],
  windowOf: (zone: string, calendar: WorkingCalendar) => Interval,
): Map<string, BucketSpans> {
  const byPlant = new Map(calendars.map(({ plantId, calendar }) => [plantId, calendar]));
  const places = new Map<string, BucketSpans>();
  const byRule = new Map<string, BucketSpans>();
  for (const { plantId, zone } of rows) {
    if (places.has(plantId)) continue;
    const calendar = byPlant.get(plantId) ?? PLAIN_CALENDAR;
    const rule = JSON.stringify([zone, calendar]);
    const known = byRule.get(rule);
    const made = known ?? bucketSpans(windowOf(zone, calendar), bucket, hours, zone, calendar);
    byRule.set(rule, made);
    places.set(plantId, made);
  }
  return places;
}

function groupRows(
  rows: readonly MetricRow[],
  by: GroupBy,
  assets: readonly Asset[],
): Map<string, MetricRow[]> {
  const byId = new Map(assets.map((asset) => [asset.id, asset]));
  const nameOf = (row: MetricRow): string => {
    switch (by.kind) {
      case 'metric':
        return `${row.plantName} / ${row.assetName} / ${row.name}`;
      case 'asset':
        return row.assetId === row.plantId ? row.plantName : `${row.plantName} / ${row.assetName}`;
      case 'plant':
        return row.plantName;
      case 'assetKind':
        return byId.get(row.assetId)?.kind ?? '';
      case 'attribute':
        return String(byId.get(row.assetId)?.attributes[by.name] ?? '');
      case 'all':
        return 'All';
    }
  };
  const groups = new Map<string, MetricRow[]>();
  for (const row of rows) {
    const name = nameOf(row);
    const group = groups.get(name);
    if (group) group.push(row);
    else groups.set(name, [row]);
  }
  return groups;
}

async function poolGroup(
  context: PlanContext,
  rows: readonly MetricRow[],
  summary: Summary,
  places: ReadonlyMap<string, BucketSpans>,
): Promise<readonly Summarised[]> {
  if (rows.length === 1) {
    return (await summariseMetric(context, rows[0], summary, places.get(rows[0].plantId)!)).values;
  }
  refuseMixture(rows, summary);
  const byPlace = new Map<BucketSpans, MetricRow[]>();
  for (const row of rows) {
    const place = places.get(row.plantId)!;
    byPlace.set(place, [...(byPlace.get(place) ?? []), row]);
  }
  if (byPlace.size > 1 && !ADDS_UP.has(summary)) {
    throw new BeaconError(
      'BAD_INPUT',
      `Over plants with different zones or calendars only sums can be put together, not the ${summary}. Group by plant.`,
      'groupBy',
    );
  }
  const parts: (readonly Summarised[])[] = [];
  for (const [place, members] of byPlace)
    parts.push((await poolMetrics(context, members, summary, place)).values);
  return parts.length === 1 ? parts[0] : addedUp(parts);
}

function addedUp(parts: readonly (readonly Summarised[])[]): Summarised[] {
  const size = Math.max(...parts.map((part) => part.length));
  return Array.from({ length: size }, (_, i) => {
    const given = parts.flatMap((part) => (part[i] ? [part[i]] : []));
    const values = given.flatMap(({ value }) => (value === null ? [] : [value]));
    return {
      value: values.length === 0 ? null : values.reduce((a, b) => a + b, 0),
      samples: given.reduce((n, { samples }) => n + samples, 0),
      coverage: given.reduce((n, { coverage }) => n + coverage, 0) / parts.length,
    };
  });
}

/** Metrics can be put together when kind and unit are the same, and the summary means something for several. */
function refuseMixture(rows: readonly MetricRow[], summary: Summary): void {
  const [first] = rows;
  const odd = rows.find(({ unit, kind }) => unit !== first.unit || kind !== first.kind);
  if (odd) {
    throw new BeaconError(
      'BAD_INPUT',
      `${first.name} of ${first.assetName} (${first.unit || 'no unit'}, ${first.kind}) and ${odd.name} of ${odd.assetName} ` +
        `(${odd.unit || 'no unit'}, ${odd.kind}) cannot be put together. Group by metric.`,
      'groupBy',
    );
  }
  if (summary === 'last' || summary === 'first') {
    throw new BeaconError(
      'BAD_INPUT',
      `The ${summary} of several metrics together means nothing. Choose a sum or a mean, or group by metric.`,
      'summary',
    );
  }
  if (rows.some(({ origin }) => origin === 'derived')) {
    throw new BeaconError('BAD_INPUT', 'Derived metrics are not put together. Group by metric.', 'groupBy');
  }
  checkSummary(summary, first.kind, 'summary', first.name);
}
