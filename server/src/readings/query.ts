import {
  BeaconError,
  coveredValue,
  isUnder,
  hasAttributes,
  levelOf,
  MINIMUM_COVERAGE,
  previousWindow,
  resolveWindow,
  sameWindowLastYear,
  unitOfMeasure,
  type MeasureValues,
  type Provenance,
  type ProvenancePart,
  type Query,
  type QueryAnswer,
  type QueryGroup,
  type QueryMeasure,
  type Selection,
} from '@vivid-beacon/core';
import {
  COLUMNS_OF_FOLD,
  dividedBy,
  divisorOf,
  formulaWords,
  groupMembers,
  needsAttributes,
  needsCalendar,
  NOTHING,
  partOf,
  passedHours,
  placesOf,
  refuseSharedDivisor,
  togetherAs,
  type BucketSpans,
  type Divisor,
  type Members,
  type Summarised,
  workingShares,
} from '@vivid-beacon/core/src/aggregation';
import { attributesOf, namesOfAssets } from '../assets/sql';
import { spend } from '../db/readBudget';
import { metricsNamed, type MetricRow } from '../metrics/sql';
import { summariseMetric } from './planner';
import { newestOfAll, provenancePart } from './provenance';
import type { PlaceOf, SharedTime } from './metricReads';
import { poolSide, summariseRatio, type RatioAnswer } from './ratio';
import type { ReadContext } from './readContext';

/** Window and periods of each plant. */
type Places = ReadonlyMap<string, BucketSpans>;

/** The metrics of one measure before they are put into groups. */
interface Found {
  readonly numerator: readonly MetricRow[];
  readonly denominator: readonly MetricRow[];
}

type Attributes = Awaited<ReturnType<typeof attributesOf>>;

/**
 * Answers one question: measures over any number of metrics, each summarised over periods of a window, in groups, scope
 * and recurring hours. Days are those of each asset's own zone: the first day of one group is put beside the first day
 * of another, wherever they lie.
 *
 * @throws {BeaconError} NOT_FOUND for a removed metric; BAD_INPUT for an empty scope, mixed units, or a summary that
 * makes no sense.
 */
export async function answerQuery(context: ReadContext, query: Query): Promise<QueryAnswer> {
  const { db, now, reads } = context;
  const [calendars, { found, attributes }] = await Promise.all([
    needsCalendar(query) ? reads.calendars(db) : [],
    findMetrics(context, query),
  ]);
  const every = found.flatMap(({ numerator, denominator }) => [...numerator, ...denominator]);
  const places = placesOf(query, every, calendars, (zone, rules) =>
    resolveWindow(query.window, now, zone, rules),
  );
  const before = comparedWindow(query);
  const placesBefore =
    before && placesOf(query, every, calendars, (zone, rules) => before(query.window, now, zone, rules));
  const groups: QueryGroup[] = [];
  const { groupBy, within } = query;
  const parts = await partNames(context, [groupBy, ...within], every);
  const asked: Asked = { query, places, placesBefore, attributes };
  for (const { name, path, pathAssetIds, assetId, measures } of groupMembers(
    found,
    groupBy,
    attributes,
    parts,
    within,
  )) {
    const values = measures.map((members, i) => valuesOf(context, asked, query.measures[i], members));
    groups.push({
      name,
      ...(within.length > 0 && { path, pathAssetIds }),
      assetId,
      measures: await Promise.all(values),
    });
  }
  const first = places.get(found[0].numerator[0].plantId)!;
  const { window, zone, start, end, names } = first;
  const units = found.map((rows, i) => unitOfFound(query.measures[i], rows));
  const cells = query.fold && {
    columns: COLUMNS_OF_FOLD[query.fold],
    hours: passedHours(first, now),
    working: workingShares(first),
  };
  return { window, zone, now, units, start, end, names, cells, groups };
}

/** Names of the assets that are parts, where groups are by part. */
async function partNames(
  { db }: ReadContext,
  groupings: readonly Query['groupBy'][],
  rows: readonly MetricRow[],
): Promise<ReadonlyMap<string, string>> {
  const ids = new Set(
    groupings.flatMap((by) =>
      by.kind === 'part' ? rows.map((row) => partOf(row, by.assetId)).filter((id) => id !== null) : [],
    ),
  );
  if (ids.size === 0) return new Map();
  return namesOfAssets(db, [...ids]);
}

/** The metrics of every measure that lie in the scope, and the attributes of their assets where those are asked about. */
async function findMetrics(
  context: ReadContext,
  { measures, scope, groupBy, within }: Query,
): Promise<{ found: Found[]; attributes: Attributes }> {
  const selected = await Promise.all(
    measures.map(async ({ select, per }) => ({
      numerator: await selectMetrics(context, select, scope.assetIds),
      denominator: per ? await selectMetrics(context, per.select, scope.assetIds) : [],
    })),
  );
  const own = needsAttributes({ scope, groupBy, within });
  const assetIds = selected.flatMap(({ numerator, denominator }, i) => [
    ...(own ? [...numerator, ...denominator].map(({ assetId }) => assetId) : []),
    ...(measures[i].perAttribute == null ? [] : numerator.flatMap(({ path }) => path)),
  ]);
  const attributes: Attributes =
    assetIds.length > 0 ? await attributesOf(context.db, [...new Set(assetIds)]) : new Map();
  const meant = ({ assetId }: MetricRow): boolean =>
    scope.attributes.length === 0 ||
    hasAttributes({ attributes: attributes.get(assetId) ?? {} }, scope.attributes);
  const found = selected.map(({ numerator, denominator }, i) => {
    const { select, per } = measures[i];
    return {
      numerator: refuseNone(numerator.filter(meant), select),
      denominator: per ? refuseNone(denominator.filter(meant), per.select) : [],
    };
  });
  return { found, attributes };
}

async function selectMetrics(
  { db, reads }: ReadContext,
  select: Selection,
  under: readonly string[] | null,
): Promise<MetricRow[]> {
  if (!('metricIds' in select && select.metricIds)) {
    return metricsNamed(db, (select as { metricName: string }).metricName, under);
  }
  return (await reads.metrics(db, select.metricIds)).filter(({ path }) => isUnder(path, under));
}

function refuseNone(rows: readonly MetricRow[], select: Selection): readonly MetricRow[] {
  if (rows.length > 0) return rows;
  const what = 'metricName' in select ? `No metric named "${select.metricName}"` : 'None of the metrics';
  throw new BeaconError('BAD_INPUT', `${what} lies in this scope. Widen the scope.`, 'scope');
}

/** The window that values are compared with, where they are. */
function comparedWindow({ compare = 'none' }: Query): typeof previousWindow | null {
  if (compare === 'none') return null;
  return compare === 'lastYear' ? sameWindowLastYear : previousWindow;
}

function unitOfFound(
  { summary, per, perAttribute }: QueryMeasure,
  { numerator, denominator }: Found,
): string {
  return unitOfMeasure(
    { summary, unit: numerator[0].unit },
    per && { summary: per.summary, unit: denominator[0].unit },
    null,
    perAttribute,
  );
}

/** A query with what was looked up for all of its values. */
interface Asked {
  readonly query: Query;
  readonly places: Places;
  readonly placesBefore: Places | null;
  readonly attributes: Attributes;
}

/** One measure of one group, with what it is compared with and how it was made. */
async function valuesOf(
  context: ReadContext,
  { query, places, placesBefore, attributes }: Asked,
  measure: QueryMeasure,
  all: Members<MetricRow>,
): Promise<MeasureValues> {
  const { summary, perAttribute = null } = measure;
  const divisor = perAttribute === null ? null : divisorOf(all.numerator, perAttribute, attributes);
  if (divisor) refuseSharedDivisor(divisor.counted, summary, perAttribute!);
  const members = divisor ? { ...all, numerator: divisor.counted } : all;
  const { numerator, denominator, within } = members;
  const summarised = async (where: Places): Promise<Pick<RatioAnswer, 'values' | 'shared'>> => {
    const made = await summariseGroup(context, measure, members, where);
    return divisor ? { ...made, values: dividedBy(made.values, divisor.total) } : made;
  };
  const [{ values, shared }, before] = await Promise.all([
    summarised(places),
    placesBefore && summarised(placesBefore),
  ]);
  const { band } = measure;
  const own = numerator.length > 0 ? places.get(numerator[0].plantId)! : null;
  const explained = query.bucket === null && query.fold === null && own !== null;
  return {
    metricIds: numerator.map(({ id }) => id),
    perMetricIds: denominator.map(({ id }) => id),
    withinIds: within.map(({ id }) => id),
    ...(divisor && { withoutAttribute: divisor.leftOut.length }),
    values: values.map(({ value }) => value),
    coverage: values.map(({ coverage }) => coverage),
    samples: values.map(({ samples }) => samples),
    levels: band ? values.map(({ value, coverage }) => levelOf(band, value, coverage)) : null,
    partial: own !== null && own.window.end > context.now,
    asOf: explained ? await newestOfAll(context, [...numerator, ...denominator], own.window) : null,
    previous: before && query.bucket === null ? coveredValue(before.values[0]) : null,
    ...(before && query.bucket !== null && { before: values.map((_, i) => besideValue(before.values, i)) }),
    provenance:
      explained && query.provenance
        ? {
            ...(await provenanceOf(context, measure, members, places, own, shared)),
            ...(divisor && { dividedBy: await divisorTold(context, perAttribute!, divisor) }),
          }
        : null,
  };
}

/** The value of the period of the same number; null without one, or with too little data. */
const besideValue = (before: readonly Summarised[], i: number): number | null =>
  i < before.length ? coveredValue(before[i]) : null;

/** By what a value was divided, for its provenance. */
async function divisorTold(
  { db }: ReadContext,
  name: string,
  { total, holders, leftOut }: Divisor<MetricRow>,
): Promise<NonNullable<Provenance['dividedBy']>> {
  const names = await namesOfAssets(
    db,
    holders.map(({ assetId }) => assetId),
  );
  return {
    name,
    total: total!,
    holders: holders.map((each) => ({ ...each, assetName: names.get(each.assetId) ?? '' })),
    leftOut: leftOut.map((row) => `${row.name}, ${row.assetName}`),
  };
}

/** One value a period. */
async function summariseGroup(
  context: ReadContext,
  { summary, per }: QueryMeasure,
  { numerator, denominator }: Members<MetricRow>,
  places: Places,
): Promise<Pick<RatioAnswer, 'values' | 'shared'>> {
  if (numerator.length === 0 || (per && denominator.length === 0)) {
    const { size } = places.get((numerator[0] ?? denominator[0])?.plantId) ?? [...places.values()][0];
    return { values: new Array<Summarised>(size).fill(NOTHING), shared: null };
  }
  const placeOf: PlaceOf = ({ plantId }) => places.get(plantId)!;
  const top = { rows: numerator, summary };
  if (!per) return { values: await poolSide(context, top, placeOf), shared: null };
  return summariseRatio(context, top, { rows: denominator, summary: per.summary }, per.factor, placeOf);
}

/** Looking up where the samples of one metric came from takes about as long as reading so many. */
const OF_PART = 3000;

/** How the value of a group was made: each of its metrics with its own value and sources. */
async function provenanceOf(
  context: ReadContext,
  { summary, per, perAttribute }: QueryMeasure,
  { numerator, denominator }: Members<MetricRow>,
  places: Places,
  { window, zone }: BucketSpans,
  shared: SharedTime | null,
): Promise<Provenance> {
  spend(context.db, (numerator.length + denominator.length) * OF_PART);
  const parts: ProvenancePart[] = [];
  for (const [rows, own] of [
    [numerator, summary],
    [denominator, per?.summary ?? summary],
  ] as const) {
    for (const row of rows) {
      const place = places.get(row.plantId)!;
      const answer = await summariseMetric(context, row, own, place);
      const counted = shared && (await poolSide(context, { rows: [row], summary: own }, () => place, shared));
      parts.push(await provenancePart(context.db, row, own, answer, counted?.[0] ?? null, place.window));
    }
  }
  const bottom = per && denominator.length > 0 ? togetherAs(per.summary, denominator) : null;
  return {
    formula: formulaWords(togetherAs(summary, numerator), bottom, per?.factor ?? 1, perAttribute),
    window,
    zone,
    minimumCoverage: MINIMUM_COVERAGE,
    shared: shared && shared.shares[0],
    parts,
  };
}
