import { SEVERITY, type Level } from '@vivid-beacon/core';
import { moment } from '../db/columns';
import { SEEN_PLANT } from '../db/conditions';
import { all, type Queryable } from '../db/database';
import type { Reader } from '../db/reader';

/** How many indicators of each plant are on each level, as kept; level null = not judged yet. */
export function countStoredLevels(
  db: Reader,
): Promise<{ plantId: string; level: Level | null; n: number }[]> {
  return all(
    db,
    `select place.plant_id as "plantId", kept.level, count(*)::int as n
     from indicator join asset_place place on place.asset_id = indicator.asset_id
     left join indicator_level kept on kept.indicator_id = indicator.id
     where ${SEEN_PLANT} and indicator.removed_at is null group by 1, 2`,
    [db.asker.sites],
  );
}

/** Indicators whose kept level is older than `before` (ms) or that have none, those first and then the oldest. */
export async function staleLevels(db: Reader, before: number, most: number): Promise<string[]> {
  const rows = await all<{ id: string }>(
    db,
    `select indicator.id from indicator join asset_place place on place.asset_id = indicator.asset_id
     left join indicator_level kept on kept.indicator_id = indicator.id
     where ${SEEN_PLANT} and indicator.removed_at is null and (kept.at is null or kept.at < $2)
     order by kept.at nulls first, indicator.id limit $3`,
    [db.asker.sites, moment(before), most],
  );
  return rows.map(({ id }) => id);
}

/** Keeps the level of indicators as found at `at` (ms). */
export async function storeLevels(
  db: Queryable,
  levels: readonly { readonly id: string; readonly version: number; readonly level: Level }[],
  at: number,
): Promise<void> {
  await db.query(
    `insert into indicator_level (indicator_id, level, severity, at)
     select id, found.level, found.severity, $1
     from jsonb_to_recordset($2::jsonb) as found (id bigint, version int, level text, severity smallint)
     join indicator using (id, version) where indicator.removed_at is null
     on conflict (indicator_id) do update set level = excluded.level, severity = excluded.severity, at = excluded.at`,
    [moment(at), JSON.stringify(levels.map((each) => ({ ...each, severity: SEVERITY[each.level] })))],
  );
}
