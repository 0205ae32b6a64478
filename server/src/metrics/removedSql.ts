import type { PageOf, RemovedMetric } from '@vivid-beacon/core';
import { ms } from '../db/columns';
import { Conditions, findPage, SEEN_PLANT } from '../db/conditions';
import { one, type Queryable } from '../db/database';
import type { PageRange } from '../db/pages';
import type { Reader } from '../db/reader';

/** What removal adds to a name: " (removed 12)", so that another metric may bear it. */
const ENDING = `' (removed ' || metric.id || ')'`;
const NAME = `left(metric.name, length(metric.name) - length(${ENDING}))`;
const KEY = `left(metric.key, length(metric.key) - length('.removed-' || metric.id))`;
const TAKEN = `exists (select 1 from metric other where other.id <> metric.id
  and (other.asset_id = metric.asset_id and lower(other.name) = lower(${NAME}) or other.key = ${KEY}))`;

const FROM = `metric join asset on asset.id = metric.asset_id join asset_place place on place.asset_id = asset.id`;
const REMOVED = `select metric.id, ${NAME} as name, asset.name as "assetName", place.plant_name as "plantName", place.zone,
    metric.unit, ${ms('metric.removed_at', 'removedAt')},
    (select coalesce(sum(n), 0)::float8 from sample_day where metric_id = metric.id) as samples,
    (select ${ms("min(day)::timestamp at time zone 'UTC'", 'at')} from sample_day where metric_id = metric.id and n > 0) as "firstDay",
    (select ${ms("max(day)::timestamp at time zone 'UTC'", 'at')} from sample_day where metric_id = metric.id and n > 0) as "lastDay",
    (select count(*)::int from alarm where metric_id = metric.id) as alarms,
    case when ${TAKEN} then 'Another metric bears its name now. Rename that one first.'
         when asset.removed_at is not null then 'Its asset was removed. Restore that first.' end as taken
  from ${FROM}`;

/** Removed metrics, the newest first. @param words each must stand somewhere in the names of metric, asset or plant. */
export function pageOfRemoved(
  db: Reader,
  words: readonly string[],
  page: PageRange,
): Promise<PageOf<RemovedMetric>> {
  return findPage(
    db,
    {
      from: FROM,
      id: 'metric.id',
      select: REMOVED,
      conditions: new Conditions(db)
        .plain('metric.removed_at is not null')
        .words(words, ['metric.name', 'asset.name', 'place.plant_name']),
      order: 'metric.removed_at desc, metric.id desc',
    },
    page,
  );
}

export function findRemoved(db: Reader, id: string): Promise<RemovedMetric | undefined> {
  return one(db, `${REMOVED} where ${SEEN_PLANT} and metric.removed_at is not null and metric.id = $2`, [
    db.asker.sites,
    id,
  ]);
}

/** Gives a removed metric its name and key back. @returns false when they are taken. */
export async function restoreMetric(db: Queryable, id: string): Promise<boolean> {
  const row = await one(
    db,
    `update metric set removed_at = null, name = ${NAME}, key = ${KEY}
     where id = $1 and removed_at is not null and not ${TAKEN}
       and exists (select 1 from asset where asset.id = metric.asset_id and asset.removed_at is null)
     returning id`,
    [id],
  );
  return row !== undefined;
}

/** Erases a removed metric with everything that hangs on it. */
export async function eraseMetric(db: Queryable, id: string): Promise<void> {
  await db.query('delete from metric where id = $1 and removed_at is not null', [id]);
}
