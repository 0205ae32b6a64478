import { moment, ms } from '../db/columns';
import { SEEN_PLANT } from '../db/conditions';
import { all } from '../db/database';
import type { Reader } from '../db/reader';

/** Ids of the assets from the plant down to the one that something is said of. */
interface Placed {
  readonly path: readonly string[];
}

/** Stops of assets and of everything below them that touch a stretch of time. */
export function stopsBelow(
  db: Reader,
  assetIds: readonly string[],
  from: number,
  to: number,
): Promise<(Placed & { assetId: string; reason: string; start: number; end: number | null })[]> {
  return all(
    db,
    `select stop.asset_id as "assetId", place.path, stop.reason, ${ms('stop.start_at', 'start')}, ${ms('stop.end_at', 'end')}
     from stop_entry stop join asset_place place on place.asset_id = stop.asset_id
     where ${SEEN_PLANT} and place.path && $2::bigint[]
       and stop.start_at < $4::timestamptz and coalesce(stop.end_at, 'infinity') > $3::timestamptz
     order by stop.start_at, stop.id`,
    [db.asker.sites, assetIds, moment(from), moment(to)],
  );
}

/** Remarks on assets and on everything below them that touch a stretch of time, in order of time. */
export function remarksBelow(
  db: Reader,
  assetIds: readonly string[],
  from: number,
  to: number,
): Promise<(Placed & { text: string; start: number; end: number })[]> {
  return all(
    db,
    `select place.path, remark.text, ${ms('remark.start_at', 'start')}, ${ms('remark.end_at', 'end')}
     from remark join asset_place place on place.asset_id = remark.asset_id
     where ${SEEN_PLANT} and place.path && $2::bigint[]
       and remark.start_at < $4::timestamptz and remark.end_at > $3::timestamptz
     order by remark.start_at, remark.id`,
    [db.asker.sites, assetIds, moment(from), moment(to)],
  );
}
