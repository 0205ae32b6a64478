import type { Flag, FlagOutcome, Person } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

const FLAGS = `
  select flag.id, flag.title, flag.note, flag.alarm_id as "alarmId", asset.name as "assetName",
         place.plant_id as "plantId", place.zone,
         jsonb_build_object('id', giver.id::text, 'name', giver.name, 'role', giver.role) as "from",
         jsonb_build_object('id', taker.id::text, 'name', taker.name, 'role', taker.role) as "to",
         ${ms('flag.due_at', 'dueAt')}, ${ms('flag.created_at', 'createdAt')}, ${ms('flag.closed_at', 'closedAt')},
         flag.outcome, flag.outcome_note as "outcomeNote"
  from flag
  join asset on asset.id = flag.asset_id
  join asset_place place on place.asset_id = asset.id
  join person giver on giver.id = flag.from_person
  join person taker on taker.id = flag.to_person`;

/** Open flags of everybody, those due first in front. */
export function listOpenFlags(db: Queryable): Promise<Flag[]> {
  return all(db, `${FLAGS} where flag.closed_at is null order by flag.due_at`);
}

export function flagsOfAlarm(db: Queryable, alarmId: string): Promise<Flag[]> {
  return all(db, `${FLAGS} where flag.alarm_id = $1 order by flag.created_at`, [alarmId]);
}

export function findFlag(db: Queryable, id: string): Promise<Flag | undefined> {
  return one(db, `${FLAGS} where flag.id = $1`, [id]);
}

export async function addFlag(
  db: Queryable,
  flag: {
    title: string;
    note: string;
    assetId: string;
    alarmId: string | null;
    fromPersonId: string;
    toPersonId: string;
    at: number;
    dueAt: number;
  },
): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    `insert into flag (title, note, asset_id, alarm_id, from_person, to_person, created_at, due_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8) returning id`,
    [
      flag.title,
      flag.note,
      flag.assetId,
      flag.alarmId,
      flag.fromPersonId,
      flag.toPersonId,
      moment(flag.at),
      moment(flag.dueAt),
    ],
  );
  return row!.id;
}

/** @returns false when it was closed already. */
export async function closeFlag(
  db: Queryable,
  id: string,
  person: Person,
  outcome: FlagOutcome,
  note: string,
  at: number,
): Promise<boolean> {
  const row = await one(
    db,
    `update flag set closed_at = $2, closed_by = $3, outcome = $4, outcome_note = $5
     where id = $1 and closed_at is null returning id`,
    [id, moment(at), person.id, outcome, note],
  );
  return row !== undefined;
}
