import type { Asset, AssetInput } from '@vivid-beacon/core';
import { SEEN_PLANT } from '../db/conditions';
import { moment } from '../db/columns';
import { all, one, type Queryable } from '../db/database';
import type { Reader } from '../db/reader';

const ASSET = `asset.id, asset.parent_id as "parentId", asset.name, asset.kind, place.zone,
               place.plant_id as "plantId", asset.zone as "ownZone", asset.attributes, place.path, place.title`;

export const ASSET_ROWS = `select ${ASSET} from asset join asset_place place on place.asset_id = asset.id`;
const ASSET_NAMES = `select asset.id, asset.name from asset join asset_place place on place.asset_id = asset.id`;
/** Neither removed nor at a plant the asker may not see. */
const ASSETS = `${ASSET_ROWS} where ${SEEN_PLANT} and asset.removed_at is null`;

/** The whole tree, plants first, then by name. */
export function listAssets(db: Reader): Promise<Asset[]> {
  return all(db, `${ASSETS} order by place.depth, asset.name`, [db.asker.sites]);
}

export function findAsset(db: Reader, id: string): Promise<Asset | undefined> {
  return one(db, `${ASSETS} and asset.id = $2`, [db.asker.sites, id]);
}

export function assetsById(db: Reader, ids: readonly string[]): Promise<Asset[]> {
  return all(db, `${ASSETS} and asset.id = any($2::bigint[])`, [db.asker.sites, ids]);
}

/** Assets with one of these names of their own, whatever the letter case. */
export function assetsNamed(db: Reader, names: readonly string[]): Promise<Asset[]> {
  return all(
    db,
    `${ASSETS} and lower(asset.name) = any($2::text[]) order by place.title collate natural_order, asset.id`,
    [db.asker.sites, names.map((name) => name.toLowerCase())],
  );
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

/** Names of assets, by their ids. */
export async function namesOfAssets(db: Reader, ids: readonly string[]): Promise<Map<string, string>> {
  const rows = await all<{ id: string; name: string }>(
    db,
    `${ASSET_NAMES} where ${SEEN_PLANT} and asset.id = any($2::bigint[])`,
    [db.asker.sites, ids],
  );
  return new Map(rows.map(({ id, name }) => [id, name]));
}

/** An asset with everything below it. */
export async function idsBelow(db: Reader, id: string): Promise<string[]> {
  const rows = await all<{ id: string }>(
    db,
    `select place.asset_id as id from asset_place place where ${SEEN_PLANT} and place.path @> array[$2::bigint]
     order by place.depth, place.asset_id`,
    [db.asker.sites, id],
  );
  return rows.map((row) => row.id);
}

/** Ids from an asset up to its plant, itself first; empty when there is no such asset any more. */
export async function idsUpwards(db: Queryable, id: string): Promise<string[]> {
  const row = await one<{ path: string[] }>(
    db,
    `select path from asset_place join asset on asset.id = asset_id where asset_id = $1 and removed_at is null`,
    [id],
  );
  return row ? row.path.reverse() : [];
}

export type AssetParts = Omit<AssetInput, 'attributes'> & Partial<Pick<AssetInput, 'attributes'>>;

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
    'select id from asset where parent_id = $1 and lower(name) = lower($2) and removed_at is null',
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
         and lower(other.name) = lower($3) and other.id <> $1 and other.removed_at is null)
     returning id`,
    [id, asset.parentId, asset.name, asset.kind, asset.zone, JSON.stringify(asset.attributes ?? {})],
  );
  return row !== undefined;
}

/** The dependents that keep an asset from being removed: not those that were removed themselves, or flags that are closed. */
export async function dependentsOf(
  db: Queryable,
  id: string,
): Promise<{ children: number; metrics: number; indicators: number; flags: number }> {
  return (await one(
    db,
    `select (select count(*) from asset where parent_id = $1 and removed_at is null)::int as children,
            (select count(*) from metric where asset_id = $1 and removed_at is null)::int as metrics,
            (select count(*) from indicator where asset_id = $1 and removed_at is null)::int as indicators,
            (select count(*) from flag where asset_id = $1 and closed_at is null)::int as flags`,
    [id],
  ))!;
}

/** Takes an asset off every list; what hung on it keeps its name. */
export async function removeAsset(db: Queryable, id: string, at: number): Promise<void> {
  await db.query('update asset set removed_at = $2 where id = $1 and removed_at is null', [id, moment(at)]);
}
