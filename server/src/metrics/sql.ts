import type { Metric } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

/** A metric as it stands in the database, with the place of its asset and its newest sample. */
export interface MetricRow extends Omit<Metric, 'last' | 'health'> {
  readonly lastT: number | null;
  readonly lastV: number | null;
}

const METRICS = `
  select metric.id, metric.key, metric.name, metric.unit, metric.kind,
         metric.interval_ms::float8 as "intervalMs", metric.max_gap_ms::float8 as "maxGapMs",
         metric.rollover, metric.decimals::int as decimals,
         asset.id as "assetId", asset.name as "assetName",
         place.plant_id as "plantId", place.plant_name as "plantName", place.zone,
         ${ms('latest.t', 'lastT')}, latest.v as "lastV"
  from metric
  join asset on asset.id = metric.asset_id
  join asset_place place on place.asset_id = asset.id
  left join metric_latest latest on latest.metric_id = metric.id`;

export function listMetrics(db: Queryable): Promise<MetricRow[]> {
  return all(db, `${METRICS} order by place.plant_name, asset.name, metric.name`);
}

export async function metricsById(db: Queryable, ids: readonly string[]): Promise<Map<string, MetricRow>> {
  const rows = await all<MetricRow>(db, `${METRICS} where metric.id = any($1::bigint[])`, [ids]);
  return new Map(rows.map((row) => [row.id, row]));
}

/** What a push needs to know of a metric, by key. */
export interface MetricKeyRow {
  readonly id: string;
  readonly key: string;
  readonly unit: string;
}

export async function metricsByKey(
  db: Queryable,
  keys: readonly string[],
): Promise<Map<string, MetricKeyRow>> {
  const rows = await all<MetricKeyRow>(db, 'select id, key, unit from metric where key = any($1::text[])', [
    keys,
  ]);
  return new Map(rows.map((row) => [row.key, row]));
}

/** @returns undefined when the asset already has a metric of this name or the key is taken. */
export async function addMetric(
  db: Queryable,
  metric: {
    assetId: string;
    key: string;
    name: string;
    unit: string;
    kind: string;
    intervalMs: number;
    maxGapMs: number;
    rollover: number | null;
    decimals: number;
    at: number;
  },
): Promise<string | undefined> {
  const row = await one<{ id: string }>(
    db,
    `insert into metric (asset_id, key, name, unit, kind, interval_ms, max_gap_ms, rollover, decimals, created_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10) on conflict do nothing returning id`,
    [
      metric.assetId,
      metric.key,
      metric.name,
      metric.unit,
      metric.kind,
      metric.intervalMs,
      metric.maxGapMs,
      metric.rollover,
      metric.decimals,
      moment(metric.at),
    ],
  );
  return row?.id;
}
