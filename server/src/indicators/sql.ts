import type { Measure, TargetBand, WindowSpec } from '@vivid-beacon/core';
import { all, type Queryable } from '../db/database';

export interface IndicatorRow {
  readonly id: string;
  readonly name: string;
  readonly assetId: string;
  readonly assetName: string;
  readonly plantId: string;
  readonly measure: Measure;
  readonly span: WindowSpec;
  readonly band: TargetBand;
  readonly decimals: number;
}

export function listIndicators(db: Queryable): Promise<IndicatorRow[]> {
  return all(
    db,
    `select indicator.id, indicator.name, asset.id as "assetId", asset.name as "assetName",
            place.plant_id as "plantId", indicator.measure, indicator.span, indicator.band,
            indicator.decimals::int as decimals
     from indicator
     join asset on asset.id = indicator.asset_id
     join asset_place place on place.asset_id = asset.id
     order by indicator.name, asset.name`,
  );
}

export async function addIndicator(
  db: Queryable,
  indicator: {
    name: string;
    assetId: string;
    measure: Measure;
    span: WindowSpec;
    band: TargetBand;
    decimals: number;
  },
): Promise<void> {
  await db.query(
    `insert into indicator (name, asset_id, measure, span, band, decimals)
     values ($1, $2, $3::jsonb, $4::jsonb, $5::jsonb, $6) on conflict do nothing`,
    [
      indicator.name,
      indicator.assetId,
      JSON.stringify(indicator.measure),
      JSON.stringify(indicator.span),
      JSON.stringify(indicator.band),
      indicator.decimals,
    ],
  );
}
