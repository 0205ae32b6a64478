import type { HandoverNote, SetAsideLine } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { SEEN_PLANT } from '../db/conditions';
import { all, one, type Queryable } from '../db/database';
import type { Reader } from '../db/reader';

/** What of a plant is shelved or out of service now. */
export function setAsideIn(db: Reader, plantId: string): Promise<SetAsideLine[]> {
  return all(
    db,
    `select rule.id as "ruleId", rule.name as "ruleName", asset.name as "assetName", jsonb_build_object(
       'kind', watch.aside, 'at', extract(epoch from watch.aside_at) * 1000,
       'until', extract(epoch from watch.aside_until) * 1000, 'by', person.name, 'reason', watch.aside_reason) as aside
     from alarm_watch watch
     join alarm_rule rule on rule.id = watch.rule_id and rule.stage_of is null
     join metric on metric.id = watch.metric_id
     join asset on asset.id = metric.asset_id
     join asset_place place on place.asset_id = asset.id
     join person on person.id = watch.aside_by
     where ${SEEN_PLANT} and watch.aside is not null and place.plant_id = $2 order by watch.aside_at, rule.id, metric.id`,
    [db.asker.sites, plantId],
  );
}

export function listNotes(db: Queryable, plantId: string, shiftStart: number): Promise<HandoverNote[]> {
  return all(
    db,
    `select note.id, note.text, person.name as author, ${ms('note.written_at', 'at')}
     from handover_note note join person on person.id = note.author_id
     where note.plant_id = $1 and note.shift_start = $2 order by note.id`,
    [plantId, moment(shiftStart)],
  );
}

export async function addNote(
  db: Queryable,
  note: { plantId: string; shiftStart: number; text: string; authorId: string; at: number },
): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    `insert into handover_note (plant_id, shift_start, text, author_id, written_at) values ($1, $2, $3, $4, $5) returning id`,
    [note.plantId, moment(note.shiftStart), note.text, note.authorId, moment(note.at)],
  );
  return row!.id;
}
