import type { StretchRemark, RemarkForm } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

/** Remarks on given assets that touch a stretch of time, in order of time. */
export function listRemarks(
  db: Queryable,
  assetIds: readonly string[],
  from: number,
  to: number,
): Promise<StretchRemark[]> {
  return all(
    db,
    `select remark.id, remark.asset_id as "assetId", asset.name as "assetName", ${ms('remark.start_at', 'start')}, ${ms('remark.end_at', 'end')},
            remark.kind, remark.text, person.name as author, ${ms('remark.written_at', 'writtenAt')}
     from remark join person on person.id = remark.author_id join asset on asset.id = remark.asset_id
     where remark.asset_id = any($1::bigint[]) and remark.start_at < $3::timestamptz and remark.end_at > $2::timestamptz
     order by remark.start_at limit 2000`,
    [assetIds, moment(from), moment(to)],
  );
}

export async function addRemark(
  db: Queryable,
  remark: RemarkForm & { readonly authorId: string; readonly at: number },
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

export async function removeRemark(db: Queryable, id: string): Promise<void> {
  await db.query('delete from remark where id = $1', [id]);
}
