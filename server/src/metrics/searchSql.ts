import type { FeedState, Metric } from '@vivid-beacon/core';
import { moment } from '../db/columns';
import { all, one } from '../db/database';
import type { Reader } from '../db/reader';
import { METRICS, SEEN, type MetricRow } from './sql';

/** Which metrics are meant; what is left out does not matter. */
export interface MetricFilter {
  readonly ids?: readonly string[];
  /** On this asset. */
  readonly assetId?: string;
  /** On this asset or below it. */
  readonly under?: string;
  /** Words of which each must stand somewhere in the names from the plant down, or in the key. */
  readonly words?: readonly string[];
  /** Exactly this name, whatever its letter case. */
  readonly name?: string;
  readonly unit?: string;
  readonly kinds?: readonly Metric['kind'][];
  readonly origins?: readonly Metric['origin'][];
  readonly state?: FeedState;
}

export interface Page {
  readonly offset: number;
  readonly limit: number;
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

/** Only what is asked for stands in the statement, so that the database can use the index behind it. */
function conditionsOf(db: Reader, filter: MetricFilter, now: number): { where: string; values: unknown[] } {
  const values: unknown[] = [db.asker.sites, moment(now)];
  const conditions = [SEEN, '$2::timestamptz is not null'];
  const add = (value: unknown, condition: (place: string) => string): void => {
    values.push(value);
    conditions.push(condition(`$${values.length}`));
  };
  const { ids, assetId, under, words = [], name, unit, kinds, origins, state } = filter;
  if (ids) add(ids, (at) => `metric.id = any(${at}::bigint[])`);
  if (assetId !== undefined) add(assetId, (at) => `metric.asset_id = ${at}::bigint`);
  if (under !== undefined) add([under], (at) => `place.path @> ${at}::bigint[]`);
  for (const word of words) add(`%${escaped(word)}%`, (at) => `title.search ilike ${at}::text`);
  if (name !== undefined) add(name, (at) => `lower(metric.name) = lower(${at}::text)`);
  if (unit !== undefined) add(unit, (at) => `metric.unit = ${at}::text`);
  if (kinds) add(kinds, (at) => `metric.kind = any(${at}::text[])`);
  if (origins) add(origins, (at) => `metric.origin = any(${at}::text[])`);
  if (state !== undefined) {
    conditions.push(`metric.origin = 'samples'`, IS[state]);
  }
  return { where: conditions.join(' and '), values };
}

/** Signs that mean something in a pattern stand for themselves. */
function escaped(word: string): string {
  return word.replace(/[\\%_]/g, '\\$&');
}

/** A page of metrics in the order of their full names, "Line 2" before "Line 10". */
export function pageOfMetrics(
  db: Reader,
  filter: MetricFilter,
  { offset, limit }: Page,
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
  const row = await one<{ n: number }>(
    db,
    `select count(*)::int as n from metric
     join asset_place place on place.asset_id = metric.asset_id
     join metric_title title on title.metric_id = metric.id
     left join metric_latest latest on latest.metric_id = metric.id
     where ${where}`,
    values,
  );
  return row!.n;
}

/** How many feeds there are in each state. */
export async function countFeeds(db: Reader, now: number): Promise<Partial<Record<FeedState, number>>> {
  const rows = await all<{ state: FeedState; n: number }>(
    db,
    db.asker.sites === null
      ? // Every kept row is of a metric that is there.
        `with kept as (select ${STATE} as state, count(*)::int as n from metric_latest latest
                       where $1::bigint[] is null group by 1)
         select state, n from kept
         union all
         select 'never', (select count(*) from metric where origin = 'samples' and removed_at is null)::int -
                         coalesce((select sum(n) from kept), 0)::int`
      : `select ${STATE} as state, count(*)::int as n
         from metric join asset_place place on place.asset_id = metric.asset_id
         left join metric_latest latest on latest.metric_id = metric.id
         where ${SEEN} and metric.origin = 'samples' group by 1`,
    [db.asker.sites, moment(now)],
  );
  return Object.fromEntries(rows.filter(({ n }) => n > 0).map(({ state, n }) => [state, n]));
}

/** The same among those that are meant, counted one by one. */
export async function countFeedsAmong(
  db: Reader,
  filter: MetricFilter,
  now: number,
): Promise<Partial<Record<FeedState, number>>> {
  const { where, values } = conditionsOf(db, { ...filter, origins: ['samples'] }, now);
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

/** Feeds that went quiet: those that an alarm rule looks at first, then the latest. */
export function silentMetrics(
  db: Reader,
  plantId: string | null,
  most: number,
  now: number,
): Promise<MetricRow[]> {
  return all(
    db,
    `${METRICS} where ${SILENT}
     order by exists (select 1 from alarm_watch watch join alarm_rule rule on rule.id = watch.rule_id
                      where watch.metric_id = metric.id and rule.in_force and rule.test ->> 'kind' <> 'silence') desc,
              latest.silent_at desc, metric.id limit $4`,
    [db.asker.sites, moment(now), plantId, most],
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
