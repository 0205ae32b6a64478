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
  type Summary,
} from '@vivid-beacon/core';
import {
  addedUp,
  byPlace,
  formulaWords,
  groupMembers,
  needsAttributes,
  needsCalendar,
  NOTHING,
  placesOf,
  ratioOf,
  refuseMixture,
  togetherAs,
  type BucketSpans,
  type Members,
  type Summarised,
} from '@vivid-beacon/core/src/aggregation';
import { attributesOf } from '../assets/sql';
import { spend } from '../db/readBudget';
import { metricsNamed, type MetricRow } from '../metrics/sql';
import { poolMetrics, summariseMetric } from './planner';
import { newestOfAll, provenancePart } from './provenance';
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
  for (const { name, assetId, measures } of groupMembers(found, query.groupBy, attributes)) {
    const values = measures.map((members, i) =>
      valuesOf(context, query, query.measures[i], members, places, placesBefore),
    );
    groups.push({ name, assetId, measures: await Promise.all(values) });
  }
  const { window, zone, start, end, names } = places.get(found[0].numerator[0].plantId)!;
  const units = found.map((rows, i) => unitOfFound(query.measures[i], rows));
  return { window, zone, now, units, start, end, names, groups };
}

/** The metrics of every measure that lie in the scope, and the attributes of their assets where those are asked about. */
async function findMetrics(
  context: ReadContext,
  { measures, scope, groupBy }: Query,
): Promise<{ found: Found[]; attributes: Attributes }> {
  const selected = await Promise.all(
    measures.map(async ({ select, per }) => ({
      numerator: await selectMetrics(context, select, scope.assetIds),
      denominator: per ? await selectMetrics(context, per.select, scope.assetIds) : [],
    })),
  );
  const assetIds = selected.flatMap(({ numerator, denominator }) =>
    [...numerator, ...denominator].map(({ assetId }) => assetId),
  );
  const attributes: Attributes = needsAttributes({ scope, groupBy })
    ? await attributesOf(context.db, [...new Set(assetIds)])
    : new Map();
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

function unitOfFound({ summary, per }: QueryMeasure, { numerator, denominator }: Found): string {
  return unitOfMeasure(
    { summary, unit: numerator[0].unit },
    per && { summary: per.summary, unit: denominator[0].unit },
    null,
  );
}

/** One measure of one group, with what it is compared with and how it was made. */
async function valuesOf(
  context: ReadContext,
  query: Query,
  measure: QueryMeasure,
  members: Members<MetricRow>,
  places: Places,
  placesBefore: Places | null,
): Promise<MeasureValues> {
  const { numerator, denominator, within } = members;
  const [values, before] = await Promise.all([
    summariseGroup(context, measure, members, places),
    placesBefore && summariseGroup(context, measure, members, placesBefore),
  ]);
  const { band } = measure;
  const own = numerator.length > 0 ? places.get(numerator[0].plantId)! : null;
  const explained = query.bucket === null && own !== null;
  return {
    metricIds: numerator.map(({ id }) => id),
    perMetricIds: denominator.map(({ id }) => id),
    withinIds: within.map(({ id }) => id),
    values: values.map(({ value }) => value),
    coverage: values.map(({ coverage }) => coverage),
    samples: values.map(({ samples }) => samples),
    levels: band ? values.map(({ value, coverage }) => levelOf(band, value, coverage)) : null,
    partial: own !== null && own.window.end > context.now,
    asOf: explained ? await newestOfAll(context, [...numerator, ...denominator], own.window) : null,
    previous: before ? coveredValue(before[0]) : null,
    provenance:
      explained && query.provenance ? await provenanceOf(context, measure, members, places, own) : null,
  };
}

/** One value a period: of a ratio sums first, the division after. */
async function summariseGroup(
  context: ReadContext,
  { summary, per }: QueryMeasure,
  { numerator, denominator }: Members<MetricRow>,
  places: Places,
): Promise<readonly Summarised[]> {
  if (numerator.length === 0 || (per && denominator.length === 0)) {
    const { size } = places.get((numerator[0] ?? denominator[0])?.plantId) ?? [...places.values()][0];
    return new Array<Summarised>(size).fill(NOTHING);
  }
  const top = await poolGroup(context, numerator, summary, places);
  if (!per) return top;
  const bottom = await poolGroup(context, denominator, per.summary, places);
  return bottom.map((each, i) => ratioOf(top[i], each, per.factor));
}

async function poolGroup(
  context: ReadContext,
  rows: readonly MetricRow[],
  summary: Summary,
  places: Places,
): Promise<readonly Summarised[]> {
  if (rows.length === 1) {
    return (await summariseMetric(context, rows[0], summary, places.get(rows[0].plantId)!)).values;
  }
  refuseMixture(rows, summary);
  const parts = await Promise.all(
    [...byPlace(rows, summary, places)].map(
      async ([place, members]) => (await poolMetrics(context, members, summary, place)).values,
    ),
  );
  return parts.length === 1 ? parts[0] : addedUp(parts);
}

/** Looking up where the samples of one metric came from takes about as long as reading so many. */
const OF_PART = 3000;

/** How the value of a group was made: each of its metrics with its own value and sources. */
async function provenanceOf(
  context: ReadContext,
  { summary, per }: QueryMeasure,
  { numerator, denominator }: Members<MetricRow>,
  places: Places,
  { window, zone }: BucketSpans,
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
      parts.push(await provenancePart(context.db, row, own, answer, place.window));
    }
  }
  const bottom = per && denominator.length > 0 ? togetherAs(per.summary, denominator) : null;
  return {
    formula: formulaWords(togetherAs(summary, numerator), bottom, per?.factor ?? 1),
    window,
    zone,
    minimumCoverage: MINIMUM_COVERAGE,
    parts,
  };
}
