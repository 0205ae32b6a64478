import type { AlarmTestKind, FeedState, Metric } from '@vivid-beacon/core';
import { moment } from '../db/columns';
import { all, one } from '../db/database';
import { containing, type PageRange } from '../db/pages';
import type { Reader } from '../db/reader';
import { METRICS, SEEN, type MetricRow } from './sql';

/** Filter of metrics; absent fields match everything. */
export interface MetricFilter {
  readonly ids?: readonly string[];
  /** On this asset. */
  readonly assetId?: string;
  /** On this asset or below it. */
  readonly under?: string;
  /** Words that must all occur in the names from the plant down, or in the key. */
  readonly words?: readonly string[];
  /** Exactly this name, whatever its letter case. */
  readonly name?: string;
  readonly unit?: string;
  readonly kinds?: readonly Metric['kind'][];
  readonly origin?: Metric['origin'];
  readonly state?: FeedState;
}

/** Feeds as they are at $2: what is kept, unless time has gone by. */
const STATE = `case when latest.metric_id is null then 'never' when latest.silent_at < $2::timestamptz then 'silent'
                    when latest.ahead_until > $2::timestamptz then 'clockAhead' else latest.state end`;

const NOT_SILENT = `latest.silent_at >= $2::timestamptz`;
const IN_TIME = `(latest.ahead_until is null or latest.ahead_until <= $2::timestamptz)`;

/** The same as {@link STATE}, said so that the database can use the index behind it. */
const IS: Readonly<Record<FeedState, string>> = {
  never: 'latest.metric_id is null',
  silent: 'latest.silent_at < $2::timestamptz',
  clockAhead: `${NOT_SILENT} and latest.ahead_until > $2::timestamptz`,
  flat: `latest.state = 'flat' and ${NOT_SILENT} and ${IN_TIME}`,
  outOfRange: `latest.state = 'outOfRange' and ${NOT_SILENT} and ${IN_TIME}`,
  reporting: `latest.state = 'reporting' and ${NOT_SILENT} and ${IN_TIME}`,
};

/** Written out so that the database can use the partial index of metrics with samples. */
const OF_ORIGIN: Readonly<Record<Metric['origin'], string>> = {
  samples: `metric.origin = 'samples'`,
  derived: `metric.origin = 'derived'`,
  reference: `metric.origin = 'reference'`,
};

/** Only what is asked for stands in the statement, so that the database can use the index behind it. */
function conditionsOf(db: Reader, filter: MetricFilter, now: number): { where: string; values: unknown[] } {
  const { sites } = db.asker;
  const values: unknown[] = [sites, moment(now)];
  const conditions = [
    sites === null ? 'metric.removed_at is null and $1::bigint[] is null' : SEEN,
    '$2::timestamptz is not null',
  ];
  const add = (value: unknown, condition: (place: string) => string): void => {
    values.push(value);
    conditions.push(condition(`$${values.length}`));
  };
  const { ids, assetId, under, words = [], name, unit, kinds, origin, state } = filter;
  if (ids) add(ids, (at) => `metric.id = any(${at}::bigint[])`);
  if (assetId !== undefined) add(assetId, (at) => `metric.asset_id = ${at}::bigint`);
  if (under !== undefined) add([under], (at) => `place.path @> ${at}::bigint[]`);
  for (const word of words) add(containing(word), (at) => `title.search ilike ${at}::text`);
  if (name !== undefined) add(name, (at) => `lower(metric.name) = lower(${at}::text)`);
  if (unit !== undefined) add(unit, (at) => `metric.unit = ${at}::text`);
  if (kinds) add(kinds, (at) => `metric.kind = any(${at}::text[])`);
  if (origin) conditions.push(OF_ORIGIN[origin]);
  if (state !== undefined) {
    conditions.push(OF_ORIGIN.samples, IS[state]);
  }
  return { where: conditions.join(' and '), values };
}

/** A page of metrics sorted by full name, "Line 2" before "Line 10". */
export function pageOfMetrics(
  db: Reader,
  filter: MetricFilter,
  { offset, limit }: PageRange,
  now: number,
): Promise<MetricRow[]> {
  const { where, values } = conditionsOf(db, filter, now);
  return all(
    db,
    `${METRICS} join metric_title title on title.metric_id = metric.id
     where ${where}
     order by title.title collate natural_order, metric.id offset $${values.length + 1} limit $${values.length + 2}`,
    [...values, offset, limit],
  );
}

export async function countMetrics(db: Reader, filter: MetricFilter, now: number): Promise<number> {
  const { where, values } = conditionsOf(db, filter, now);
  // Only what the conditions speak of: all that is joined is read through once more.
  const joins = Object.entries(JOINS).flatMap(([name, join]) => (where.includes(`${name}.`) ? [join] : []));
  const row = await one<{ n: number }>(
    db,
    `select count(*)::int as n from metric ${joins.join(' ')} where ${where}`,
    values,
  );
  return row!.n;
}

const JOINS: Readonly<Record<string, string>> = {
  place: 'join asset_place place on place.asset_id = metric.asset_id',
  title: 'join metric_title title on title.metric_id = metric.id',
  latest: 'left join metric_latest latest on latest.metric_id = metric.id',
};

/** Number of feeds in each state. */
export async function countFeeds(db: Reader, now: number): Promise<Partial<Record<FeedState, number>>> {
  if (db.asker.sites !== null) return countFeedsAmong(db, {}, now);
  // Every kept row is of a metric that is there; nearly all report, so those that do not are counted.
  const odd = ['silent', 'clockAhead', 'flat', 'outOfRange'] as const;
  const row = await one<Record<(typeof odd)[number] | 'kept' | 'sampled', number>>(
    db,
    `select ${odd.map((state) => `(select count(*)::int from metric_latest latest where ${IS[state]}) as "${state}"`).join(', ')},
            (select count(*)::int from metric_latest) as kept,
            (select count(*)::int from metric where origin = 'samples' and removed_at is null) as sampled
     where $1::bigint[] is null`,
    [null, moment(now)],
  );
  const { kept, sampled, ...counts } = row!;
  const others = odd.reduce((sum, state) => sum + counts[state], 0);
  const all = { ...counts, reporting: kept - others, never: sampled - kept };
  return Object.fromEntries(Object.entries(all).filter(([, n]) => n > 0));
}

/** The same among those that are meant, counted one by one. */
export async function countFeedsAmong(
  db: Reader,
  filter: MetricFilter,
  now: number,
): Promise<Partial<Record<FeedState, number>>> {
  const { where, values } = conditionsOf(db, { ...filter, origin: 'samples' }, now);
  const rows = await all<{ state: FeedState; n: number }>(
    db,
    `select ${STATE} as state, count(*)::int as n from metric
     join asset_place place on place.asset_id = metric.asset_id
     join metric_title title on title.metric_id = metric.id
     left join metric_latest latest on latest.metric_id = metric.id
     where ${where} group by 1`,
    values,
  );
  return Object.fromEntries(rows.map(({ state, n }) => [state, n]));
}

/** Silent feeds that could go quiet at all, of one plant or of all. */
const SILENT = `${SEEN} and latest.live and latest.silent_at < $2::timestamptz and ($3::bigint is null or place.plant_id = $3)`;

/** Feeds that went quiet: first those in which an alarm rule looks for one of `firstWatchedFor`, then the latest. */
export function silentMetrics(
  db: Reader,
  {
    plantId,
    firstWatchedFor,
    most,
  }: {
    readonly plantId: string | null;
    readonly firstWatchedFor: readonly AlarmTestKind[];
    readonly most: number;
  },
  now: number,
): Promise<MetricRow[]> {
  return all(
    db,
    `${METRICS} where ${SILENT}
     order by exists (select 1 from alarm_watch watch join alarm_rule rule on rule.id = watch.rule_id
                      where watch.metric_id = metric.id and rule.in_force and rule.test ->> 'kind' = any($5::text[])) desc,
              latest.silent_at desc, metric.id limit $4`,
    [db.asker.sites, moment(now), plantId, most, firstWatchedFor],
  );
}

/** How many feeds went quiet, by plant. */
export async function countSilent(
  db: Reader,
  plantId: string | null,
  now: number,
): Promise<Record<string, number>> {
  const rows = await all<{ plantId: string; n: number }>(
    db,
    `select place.plant_id as "plantId", count(*)::int as n
     from metric_latest latest join metric on metric.id = latest.metric_id
     join asset_place place on place.asset_id = metric.asset_id where ${SILENT} group by place.plant_id`,
    [db.asker.sites, moment(now), plantId],
  );
  return Object.fromEntries(rows.map((row) => [row.plantId, row.n]));
}
