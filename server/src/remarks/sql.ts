import type { StretchRemark, RemarkInput } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { SEEN_PLANT } from '../db/conditions';
import { all, one, type Queryable } from '../db/database';
import type { Reader } from '../db/reader';

/** Remarks on given assets that touch a stretch of time, in order of time. */
export function listRemarks(
  db: Reader,
  assetIds: readonly string[],
  from: number,
  to: number,
): Promise<StretchRemark[]> {
  return all(
    db,
    `select remark.id, remark.asset_id as "assetId", asset.name as "assetName", ${ms('remark.start_at', 'start')}, ${ms('remark.end_at', 'end')},
            remark.kind, remark.text, person.name as author, ${ms('remark.written_at', 'writtenAt')}
     from remark join person on person.id = remark.author_id join asset on asset.id = remark.asset_id
     join asset_place place on place.asset_id = asset.id
     where ${SEEN_PLANT} and remark.asset_id = any($2::bigint[])
       and remark.start_at < $4::timestamptz and remark.end_at > $3::timestamptz
     order by remark.start_at limit 2000`,
    [db.asker.sites, assetIds, moment(from), moment(to)],
  );
}

export async function addRemark(
  db: Queryable,
  remark: RemarkInput & { readonly authorId: string; readonly at: number },
): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    `insert into remark (asset_id, start_at, end_at, kind, text, author_id, written_at)
     values ($1, $2, $3, $4, $5, $6, $7) returning id`,
    [
      remark.assetId,
      moment(remark.start),
      moment(remark.end),
      remark.kind,
      remark.text,
      remark.authorId,
      moment(remark.at),
    ],
  );
  return row!.id;
}

/** Takes away a remark on an asset that the asker may see. @returns false when there is none. */
export async function removeRemark(db: Reader, id: string): Promise<boolean> {
  const row = await one(
    db,
    `delete from remark using asset_place place
     where place.asset_id = remark.asset_id and ${SEEN_PLANT} and remark.id = $2 returning remark.id`,
    [db.asker.sites, id],
  );
  return row !== undefined;
}
