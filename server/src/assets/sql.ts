import type { Asset } from '@vivid-beacon/core';
import { all, one, type Queryable } from '../db/database';

const ASSET = `asset.id, asset.parent_id as "parentId", asset.name, asset.kind, place.zone,
               place.plant_id as "plantId", asset.zone as "ownZone", asset.attributes`;

/** The whole tree, plants first, then by name. */
export function listAssets(db: Queryable): Promise<Asset[]> {
  return all(
    db,
    `select ${ASSET} from asset join asset_place place on place.asset_id = asset.id
     order by place.depth, asset.name`,
  );
}

export function findAsset(db: Queryable, id: string): Promise<Asset | undefined> {
  return one(
    db,
    `select ${ASSET} from asset join asset_place place on place.asset_id = asset.id where asset.id = $1`,
    [id],
  );
}

/** Ids from an asset up to its plant, itself first; empty when there is no such asset. */
export async function idsUpwards(db: Queryable, id: string): Promise<string[]> {
  const rows = await all<{ id: string }>(
    db,
    `with recursive up as (
       select id, parent_id, 0 as step from asset where id = $1
       union all select above.id, above.parent_id, step + 1 from asset above join up on above.id = up.parent_id
     )
     select id from up order by step`,
    [id],
  );
  return rows.map((row) => row.id);
}

export interface AssetParts {
  readonly parentId: string | null;
  readonly name: string;
  readonly kind: string;
  readonly zone: string | null;
  readonly attributes?: Readonly<Record<string, string | number>>;
}

/** @returns undefined when the parent already has an asset of this name. */
export async function addAsset(db: Queryable, asset: AssetParts): Promise<string | undefined> {
  const row = await one<{ id: string }>(
    db,
    `insert into asset (parent_id, name, kind, zone, attributes) values ($1, $2, $3, $4, $5::jsonb)
     on conflict do nothing returning id`,
    [asset.parentId, asset.name, asset.kind, asset.zone, JSON.stringify(asset.attributes ?? {})],
  );
  return row?.id;
}

/** The asset of this name right under another. */
export async function findChildAsset(
  db: Queryable,
  parentId: string,
  name: string,
): Promise<string | undefined> {
  const row = await one<{ id: string }>(
    db,
    'select id from asset where parent_id = $1 and lower(name) = lower($2)',
    [parentId, name],
  );
  return row?.id;
}

/** @returns false when the parent already has another asset of this name. */
export async function changeAsset(db: Queryable, id: string, asset: AssetParts): Promise<boolean> {
  const row = await one(
    db,
    `update asset set parent_id = $2, name = $3, kind = $4, zone = $5, attributes = $6::jsonb
     where id = $1 and not exists (
       select 1 from asset other where coalesce(other.parent_id, 0) = coalesce($2::bigint, 0)
         and lower(other.name) = lower($3) and other.id <> $1)
     returning id`,
    [id, asset.parentId, asset.name, asset.kind, asset.zone, JSON.stringify(asset.attributes ?? {})],
  );
  return row !== undefined;
}

/** What still hangs on an asset and keeps it from being taken away. */
export async function whatHangsOn(
  db: Queryable,
  id: string,
): Promise<{ children: number; metrics: number; indicators: number; flags: number }> {
  return (await one(
    db,
    `select (select count(*) from asset where parent_id = $1)::int as children,
            (select count(*) from metric where asset_id = $1)::int as metrics,
            (select count(*) from indicator where asset_id = $1)::int as indicators,
            (select count(*) from flag where asset_id = $1)::int as flags`,
    [id],
  ))!;
}

export async function removeAsset(db: Queryable, id: string): Promise<void> {
  await db.query('delete from asset where id = $1', [id]);
}
