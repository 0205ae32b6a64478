import type { Metric, MetricKind } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { SEEN_PLANT } from '../db/conditions';
import { all, allPrepared, one, type Queryable } from '../db/database';
import type { Reader } from '../db/reader';
import { ROLLUP_VERSION } from '../samples/rollupSql';

/** A metric as it stands in the database, with the place of its asset and its newest sample. */
export interface MetricRow extends Omit<Metric, 'last' | 'health'> {
  readonly assetKind: string;
  /** Ids of assets from the plant down to its own. */
  readonly path: readonly string[];
  readonly lastT: number | null;
  readonly lastV: number | null;
  readonly lastQ: number;
  readonly receivedAt: number | null;
  readonly flatSince: number | null;
  readonly aheadMs: number;
  readonly aheadAt: number | null;
}

export const METRICS = `
  select metric.id, metric.key, metric.name, metric.unit, metric.ucum, metric.kind, metric.origin, metric.period,
         metric.interval_ms::float8 as "intervalMs", metric.max_gap_ms::float8 as "maxGapMs",
         metric.rollover, metric.decimals::int as decimals,
         metric.plausible_low as "plausibleLow", metric.plausible_high as "plausibleHigh",
         metric.retention_days as "retentionDays", metric.stamped, metric.cut,
         asset.id as "assetId", asset.name as "assetName", asset.kind as "assetKind", place.path,
         place.plant_id as "plantId", place.plant_name as "plantName", place.zone,
         ${ms('latest.t', 'lastT')}, latest.v as "lastV", coalesce(latest.q, 0)::int as "lastQ", ${ms('latest.received_at', 'receivedAt')},
         ${ms('latest.flat_since', 'flatSince')}, coalesce(latest.ahead_ms, 0)::float8 as "aheadMs",
         ${ms('latest.ahead_at', 'aheadAt')}
  from metric
  join asset on asset.id = metric.asset_id
  join asset_place place on place.asset_id = asset.id
  left join metric_latest latest on latest.metric_id = metric.id`;

/** Only what the asker may see: $1 are their plants, null = all. */
export const SEEN = `metric.removed_at is null and ${SEEN_PLANT}`;

export function listMetrics(db: Reader): Promise<MetricRow[]> {
  return all(db, `${METRICS} where ${SEEN} order by place.plant_name, asset.name, metric.name`, [
    db.asker.sites,
  ]);
}

/** Those that are there and that the asker may see, by id. */
export async function metricsById(db: Reader, ids: readonly string[]): Promise<Map<string, MetricRow>> {
  const rows = await allPrepared<MetricRow>(
    db,
    'metrics_by_id',
    `${METRICS} where ${SEEN} and metric.id = any($2::bigint[])`,
    [db.asker.sites, ids],
  );
  return new Map(rows.map((row) => [row.id, row]));
}

export function metricsOfAsset(db: Reader, assetId: string): Promise<MetricRow[]> {
  return all(db, `${METRICS} where ${SEEN} and metric.asset_id = $2::bigint order by metric.name`, [
    db.asker.sites,
    assetId,
  ]);
}

/** Metrics of one name, whatever its letter case, on given assets and everything below them; null = anywhere. */
export function metricsNamed(
  db: Reader,
  name: string,
  under: readonly string[] | null,
): Promise<MetricRow[]> {
  return all(
    db,
    `${METRICS} where ${SEEN} and lower(metric.name) = lower($2::text) and ($3::bigint[] is null or place.path && $3::bigint[])
     order by place.plant_name, asset.name, metric.name`,
    [db.asker.sites, name, under],
  );
}

/** The same right below one asset. */
export function metricsOfChildren(db: Reader, parentId: string, name: string): Promise<MetricRow[]> {
  return all(
    db,
    `${METRICS} where ${SEEN} and asset.parent_id = $2 and lower(metric.name) = lower($3::text)
     order by place.plant_name, asset.name`,
    [db.asker.sites, parentId, name],
  );
}

/** What a push needs to know of a metric, by key. */
export interface MetricKeyRow {
  readonly id: string;
  readonly key: string;
  readonly unit: string;
  readonly retentionDays: number | null;
  readonly kind: MetricKind;
  readonly intervalMs: number;
  readonly stamped: Metric['stamped'];
}

/** The columns of {@link MetricKeyRow}. */
export const KEY_COLUMNS = `metric.id, metric.key, metric.unit, metric.retention_days as "retentionDays", metric.kind,
  metric.interval_ms::float8 as "intervalMs", metric.stamped`;

/** Only metrics that take samples: derived and reference ones do not. */
export async function metricsByKey(
  db: Queryable,
  keys: readonly string[],
): Promise<Map<string, MetricKeyRow>> {
  const rows = await allPrepared<MetricKeyRow>(
    db,
    'metrics_by_key',
    `select ${KEY_COLUMNS} from metric
     where key = any($1::text[]) and origin = 'samples' and removed_at is null`,
    [keys],
  );
  return new Map(rows.map((row) => [row.key, row]));
}

export interface NewMetric {
  readonly assetId: string;
  readonly key: string;
  readonly name: string;
  readonly unit: string;
  readonly ucum?: string | null;
  readonly kind: string;
  readonly origin?: Metric['origin'];
  readonly period?: string | null;
  readonly intervalMs: number;
  readonly maxGapMs: number;
  readonly rollover: number | null;
  readonly decimals: number;
  readonly plausibleLow?: number | null;
  readonly plausibleHigh?: number | null;
  readonly retentionDays?: number | null;
  readonly stamped?: Metric['stamped'];
  readonly cut?: Metric['cut'];
  readonly at: number;
}

/** @returns undefined when the asset already has a metric of this name or the key is taken. */
export async function addMetric(db: Queryable, metric: NewMetric): Promise<string | undefined> {
  const row = await one<{ id: string }>(
    db,
    `insert into metric (asset_id, key, name, unit, ucum, kind, origin, period, interval_ms, max_gap_ms, rollover,
                         decimals, plausible_low, plausible_high, retention_days, created_at, rollup_version,
                         stamped, cut)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19)
     on conflict do nothing returning id`,
    [
      metric.assetId,
      metric.key,
      metric.name,
      metric.unit,
      metric.ucum ?? null,
      metric.kind,
      metric.origin ?? 'samples',
      metric.period ?? null,
      metric.intervalMs,
      metric.maxGapMs,
      metric.rollover,
      metric.decimals,
      metric.plausibleLow ?? null,
      metric.plausibleHigh ?? null,
      metric.retentionDays ?? null,
      moment(metric.at),
      ROLLUP_VERSION,
      metric.stamped ?? 'start',
      metric.cut ?? 'start',
    ],
  );
  return row?.id;
}

export interface MetricChange {
  readonly name: string;
  readonly unit: string;
  readonly ucum: string | null;
  readonly kind: MetricKind;
  readonly intervalMs: number;
  readonly maxGapMs: number;
  readonly rollover: number | null;
  readonly decimals: number;
  readonly plausibleLow: number | null;
  readonly plausibleHigh: number | null;
  readonly retentionDays: number | null;
  readonly stamped: Metric['stamped'];
  readonly cut: Metric['cut'];
}

/** @returns false when the asset already has another metric of this name. */
export async function changeMetric(db: Queryable, id: string, change: MetricChange): Promise<boolean> {
  const row = await one(
    db,
    `update metric set name = $2, unit = $3, ucum = $4, kind = $5, interval_ms = $6, max_gap_ms = $7, rollover = $8,
                       decimals = $9, plausible_low = $10, plausible_high = $11, retention_days = $12, stamped = $13, cut = $14
     where id = $1 and not exists (
       select 1 from metric other where other.asset_id = metric.asset_id and other.id <> metric.id
          and lower(other.name) = lower($2))
     returning id`,
    [
      id,
      change.name,
      change.unit,
      change.ucum,
      change.kind,
      change.intervalMs,
      change.maxGapMs,
      change.rollover,
      change.decimals,
      change.plausibleLow,
      change.plausibleHigh,
      change.retentionDays,
      change.stamped,
      change.cut,
    ],
  );
  return row !== undefined;
}

/** Takes a metric off every list; its data stay until it is restored, or an administrator erases it. */
export async function removeMetric(db: Queryable, id: string, at: number): Promise<void> {
  await db.query(
    `update metric set removed_at = $2, name = name || ' (removed ' || id || ')', key = key || '.removed-' || id
     where id = $1 and removed_at is null`,
    [id, moment(at)],
  );
  await db.query('delete from metric_latest where metric_id = $1', [id]);
}

/** The same by the key with everything but letters and digits written as _; several keys may look alike then. */
export async function metricsByPlainName(
  db: Queryable,
  names: readonly string[],
): Promise<Map<string, readonly MetricKeyRow[]>> {
  const rows = await all<MetricKeyRow & { plain: string }>(
    db,
    `select ${KEY_COLUMNS}, regexp_replace(key, '[^a-z0-9]+', '_', 'g') as plain from metric
     where regexp_replace(key, '[^a-z0-9]+', '_', 'g') = any($1::text[])
       and origin = 'samples' and removed_at is null`,
    [names],
  );
  const found = new Map<string, MetricKeyRow[]>();
  for (const { plain, ...row } of rows) found.set(plain, [...(found.get(plain) ?? []), row]);
  return found;
}

/** Metrics by the names of asset and metric, under an asset or anywhere; letter case does not matter. */
export function metricsByNames(
  db: Queryable,
  wanted: readonly { readonly asset: string; readonly metric: string }[],
  parentId: string | null,
): Promise<(MetricKeyRow & { asset: string; metric: string })[]> {
  return all(
    db,
    `select ${KEY_COLUMNS}, wanted.asset, wanted.metric
     from unnest($1::text[], $2::text[]) as wanted(asset, metric)
     join asset on lower(asset.name) = lower(wanted.asset) and asset.removed_at is null and ($3::bigint is null or asset.parent_id = $3)
     join metric on metric.asset_id = asset.id and lower(metric.name) = lower(wanted.metric)
     where metric.origin = 'samples' and metric.removed_at is null`,
    [wanted.map(({ asset }) => asset), wanted.map(({ metric }) => metric), parentId],
  );
}

/** What a push token is limited to. */
export interface TokenReach {
  readonly plantId: string | null;
  readonly metricIds: readonly string[] | null;
}

const REACHED = `($1::bigint is null or exists (select 1 from asset_place place
    where place.asset_id = metric.asset_id and place.plant_id = $1::bigint))
  and ($2::bigint[] is null or metric.id = any($2::bigint[]))`;

/** Those of these metrics that a token may write. */
export async function reachedMetrics(
  db: Queryable,
  { plantId, metricIds }: TokenReach,
  ids: readonly string[],
): Promise<Set<string>> {
  const rows = await all<{ id: string }>(
    db,
    `select metric.id from metric where ${REACHED} and metric.id = any($3::bigint[])`,
    [plantId, metricIds, ids],
  );
  return new Set(rows.map(({ id }) => id));
}

/** Keys that take samples and that a token may write, to say which was meant where a wrong one came. */
export async function someKeys(
  db: Queryable,
  { plantId, metricIds }: TokenReach,
  most: number,
): Promise<string[]> {
  const rows = await all<{ key: string }>(
    db,
    `select key from metric where ${REACHED} and origin = 'samples' and removed_at is null order by key limit $3`,
    [plantId, metricIds, most],
  );
  return rows.map(({ key }) => key);
}

/** Newest samples as the text of a JSON answer, made by the database in one go. */
export async function latestAsJson(db: Reader): Promise<string> {
  const row = await one<{ text: string }>(
    db,
    `select json_build_object(
        'id', coalesce(json_agg(latest.metric_id::text), '[]'),
        't', coalesce(json_agg((extract(epoch from latest.t) * 1000)::bigint), '[]'),
        'v', coalesce(json_agg(case when latest.v = 'NaN' then null else latest.v end), '[]'),
        'q', coalesce(json_agg(latest.q), '[]'))::text as text
     from metric_latest latest join metric on metric.id = latest.metric_id
     join asset_place place on place.asset_id = metric.asset_id where ${SEEN}`,
    [db.asker.sites],
  );
  return row!.text;
}
