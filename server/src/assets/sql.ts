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

/** @returns undefined when the parent already has an asset of this name. */
export async function addAsset(
  db: Queryable,
  asset: { parentId: string | null; name: string; kind: string; zone: string | null },
): Promise<string | undefined> {
  const row = await one<{ id: string }>(
    db,
    `insert into asset (parent_id, name, kind, zone) values ($1, $2, $3, $4)
     on conflict do nothing returning id`,
    [asset.parentId, asset.name, asset.kind, asset.zone],
  );
  return row?.id;
}
