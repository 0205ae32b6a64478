import type { Asset, AssetForm } from '@vivid-beacon/core';
import { all, one, type Queryable } from '../db/database';
import type { Reader } from '../db/reader';

const ASSET = `asset.id, asset.parent_id as "parentId", asset.name, asset.kind, place.zone,
               place.plant_id as "plantId", asset.zone as "ownZone", asset.attributes, place.path, place.title`;

/** Only what the asker may see: $1 are their plants, null = all. */
export const ASSETS = `select ${ASSET} from asset join asset_place place on place.asset_id = asset.id
                where ($1::bigint[] is null or place.plant_id = any($1::bigint[]))`;

/** The whole tree, plants first, then by name. */
export function listAssets(db: Reader): Promise<Asset[]> {
  return all(db, `${ASSETS} order by place.depth, asset.name`, [db.asker.sites]);
}

export function findAsset(db: Reader, id: string): Promise<Asset | undefined> {
  return one(db, `${ASSETS} and asset.id = $2`, [db.asker.sites, id]);
}

/** Attributes of assets, by their ids. */
export async function attributesOf(
  db: Reader,
  ids: readonly string[],
): Promise<Map<string, Asset['attributes']>> {
  const rows = await all<Pick<Asset, 'id' | 'attributes'>>(
    db,
    'select id, attributes from asset where id = any($1::bigint[])',
    [ids],
  );
  return new Map(rows.map(({ id, attributes }) => [id, attributes]));
}

/** An asset with everything below it. */
export async function idsBelow(db: Reader, id: string): Promise<string[]> {
  const rows = await all<{ id: string }>(
    db,
    `select asset_id as id from asset_place where path @> array[$2::bigint]
       and ($1::bigint[] is null or plant_id = any($1::bigint[])) order by depth, asset_id`,
    [db.asker.sites, id],
  );
  return rows.map((row) => row.id);
}

/** Ids from an asset up to its plant, itself first; empty when there is no such asset. */
export async function idsUpwards(db: Queryable, id: string): Promise<string[]> {
  const row = await one<{ path: string[] }>(db, 'select path from asset_place where asset_id = $1', [id]);
  return row ? row.path.reverse() : [];
}

export type AssetParts = Omit<AssetForm, 'attributes'> & Partial<Pick<AssetForm, 'attributes'>>;

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
