import type { FirstSteps } from '@vivid-beacon/core';
import { SEEN_PLANT } from '../db/conditions';
import { one, type Queryable } from '../db/database';
import type { Reader } from '../db/reader';

/** What there is of each that the asker may see. */
export async function readFirstSteps(db: Reader, personId: string): Promise<FirstSteps> {
  return (await one<FirstSteps>(
    db,
    `select exists (select 1 from asset join asset_place place on place.asset_id = asset.id
                    where asset.parent_id is null and asset.removed_at is null and ${SEEN_PLANT}) as plant,
            exists (select 1 from metric_latest latest join metric on metric.id = latest.metric_id
                    join asset_place place on place.asset_id = metric.asset_id
                    where metric.removed_at is null and ${SEEN_PLANT}) as data,
            exists (select 1 from board where removed_at is null
                    and jsonb_array_length(document -> 'readouts') > 0) as board,
            exists (select 1 from indicator where removed_at is null)
              or exists (select 1 from board where removed_at is null
                         and jsonb_path_exists(document, '$.readouts[*].band ? (@ != null)')) as band,
            exists (select 1 from alarm_rule where in_force) as rule,
            (select count(*) > 1 from person) as people,
            (select first_steps_away from person where id = $2) as away`,
    [db.asker.sites, personId],
  ))!;
}

export async function putStepsAway(db: Queryable, personId: string, away: boolean): Promise<void> {
  await db.query('update person set first_steps_away = $2 where id = $1', [personId, away]);
}
