import { MAX_ALIKE } from '@vivid-beacon/core';
import { all } from '../db/database';
import type { Reader } from '../db/reader';
import { METRICS, SEEN, type MetricRow } from './sql';

/** What a file says of a metric. */
export interface NamedMetric {
  readonly key: string;
  readonly name: string;
  /** "Plant / Asset", or the plant itself. */
  readonly asset: string;
  readonly unit: string;
}

/** Metrics with one of these keys, or with the name, unit and asset beside it. */
export function metricsAsNamed(db: Reader, named: readonly NamedMetric[]): Promise<MetricRow[]> {
  return all(
    db,
    `${METRICS} where ${SEEN} and metric.id in (
       select metric.id from metric join jsonb_to_recordset($2::jsonb) as wanted (key text) using (key)
       union
       select metric.id from jsonb_to_recordset($2::jsonb) as wanted (name text, asset text, unit text)
       join metric using (name, unit) join asset on asset.id = metric.asset_id
       join asset_place place on place.asset_id = asset.id
       where wanted.asset in (place.plant_name, place.plant_name || ' / ' || asset.name))
     order by metric.id`,
    [db.asker.sites, JSON.stringify(named)],
  );
}

/** The metrics of one level below an asset that are alike in name, unit, kind and origin. */
export interface AlikeRow {
  readonly level: number;
  readonly metricId: string;
  readonly assetIds: readonly string[];
}

/** Metrics on an asset and down to `depth` levels below it, those alike on one level as one, by level and name; of very many different ones the first. */
export function metricsAlike(db: Reader, assetId: string, depth: number): Promise<AlikeRow[]> {
  return all(
    db,
    `select place.depth - top.depth as level,
            (array_agg(metric.id::text order by place.title collate natural_order, metric.id))[1] as "metricId",
            array_agg(metric.asset_id::text order by place.title collate natural_order, metric.id) as "assetIds"
     from asset_place top join asset_place place on place.path @> array[top.asset_id] join metric on metric.asset_id = place.asset_id
     where ${SEEN} and top.asset_id = $2 and place.depth <= top.depth + $3::int
     group by 1, metric.name, metric.unit, metric.kind, metric.origin
     order by 1, metric.name collate natural_order, metric.unit, metric.kind, metric.origin limit $4::int`,
    [db.asker.sites, assetId, depth, MAX_ALIKE],
  );
}
