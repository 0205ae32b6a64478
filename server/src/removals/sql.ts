import type { PageOf, RemovedThing, Restorable } from '@vivid-beacon/core';
import { ms } from '../db/columns';
import { Conditions, SEEN_PLANT } from '../db/conditions';
import { all, one, type Queryable } from '../db/database';
import type { PageRange } from '../db/pages';
import type { Reader } from '../db/reader';

/** Kind by kind: what was removed, where it was, and why it cannot be restored. */
const REMOVED = `(
  select 'asset' as kind, asset.id, asset.name, place.title as place, place.plant_id, null::text[] as changed_by, asset.removed_at,
         case when exists (select 1 from asset other where coalesce(other.parent_id, 0) = coalesce(asset.parent_id, 0)
                             and lower(other.name) = lower(asset.name) and other.removed_at is null)
              then 'Another asset bears its name now. Rename that one first.'
              when above.removed_at is not null then 'The asset above it was removed. Restore that first.' end as taken
  from asset join asset_place place on place.asset_id = asset.id left join asset above on above.id = asset.parent_id
  where asset.removed_at is not null
  union all
  select 'board', board.id, board.title, person.name, null, board.changed_by, board.removed_at, null
  from board join person on person.id = board.owner_id where board.removed_at is not null
  union all
  select 'indicator', indicator.id, indicator.name, place.title, place.plant_id, null, indicator.removed_at,
         case when exists (select 1 from indicator other where other.asset_id = indicator.asset_id
                             and lower(other.name) = lower(indicator.name) and other.removed_at is null)
              then 'Another indicator bears its name now. Rename that one first.'
              when asset.removed_at is not null then 'Its asset was removed. Restore that first.' end
  from indicator join asset on asset.id = indicator.asset_id join asset_place place on place.asset_id = asset.id
  where indicator.removed_at is not null
) place`;
const COLUMNS = `place.kind, place.id, place.name, place.place, ${ms('place.removed_at', 'removedAt')}, place.taken`;
/** What is at a plant the asker reaches ($1), and boards they may change. */
const SEEN = (keys: string): string =>
  `case when place.kind = 'board' then ${keys}::text[] is null or place.changed_by && ${keys}::text[] else ${SEEN_PLANT} end`;

/** What was removed, the newest first. @param words each must stand somewhere in name or place. */
export async function pageOfRemovals(
  db: Reader,
  words: readonly string[],
  { offset, limit }: PageRange,
): Promise<PageOf<RemovedThing>> {
  const conditions = new Conditions(null);
  conditions.value(db.asker.sites);
  conditions.and(db.asker.keys, SEEN).words(words, ['place.name', 'place.place']);
  const from = `from ${REMOVED} ${conditions.where}`;
  const { values } = conditions;
  const total = (await one<{ n: number }>(db, `select count(*)::int as n ${from}`, values))!.n;
  const items = await all<RemovedThing>(
    db,
    `select ${COLUMNS} ${from} order by place.removed_at desc, place.kind, place.id desc
     offset $${values.length + 1}::int limit $${values.length + 2}::int`,
    [...values, offset, limit],
  );
  return { items, total };
}

export function findRemoval(db: Reader, kind: Restorable, id: string): Promise<RemovedThing | undefined> {
  return one(
    db,
    `select ${COLUMNS} from ${REMOVED} where ${SEEN('$4')} and place.kind = $2 and place.id = $3`,
    [db.asker.sites, kind, id, db.asker.keys],
  );
}

/** Puts it back on its lists. In the caller's transaction. */
export async function restore(db: Queryable, kind: Restorable, id: string): Promise<void> {
  // The name of a kind is that of its table.
  await db.query(`update ${kind} set removed_at = null where id = $1`, [id]);
}
