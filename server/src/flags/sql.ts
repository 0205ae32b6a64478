import type {
  Flag,
  FlagCause,
  FlagEvent,
  FlagEvidence,
  FlagKind,
  FlagOutcome,
  FlagPriority,
  FlagStatus,
  Interval,
} from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

const MOST_CLOSED = 200;

const FLAGS = `
  select flag.id, flag.title, flag.note, flag.kind, flag.priority, flag.status, flag.alarm_id as "alarmId",
         flag.metric_id as "metricId", asset.name as "assetName", place.plant_id as "plantId", place.zone,
         jsonb_build_object('id', giver.id::text, 'name', giver.name, 'role', giver.role) as "from",
         jsonb_build_object('id', taker.id::text, 'name', taker.name, 'role', taker.role) as "to",
         ${ms('flag.due_at', 'dueAt')}, ${ms('flag.created_at', 'createdAt')}, ${ms('flag.closed_at', 'closedAt')},
         flag.evidence, flag.outcome, flag.outcome_note as "outcomeNote", flag_cause.name as cause,
         flag.minutes_spent as "minutesSpent"
  from flag
  join asset on asset.id = flag.asset_id
  join asset_place place on place.asset_id = asset.id
  join person giver on giver.id = flag.from_person
  join person taker on taker.id = flag.to_person
  left join flag_cause on flag_cause.id = flag.cause_id`;

/** Open flags of everybody, those due first in front. */
export function listOpenFlags(db: Queryable): Promise<Flag[]> {
  return all(db, `${FLAGS} where flag.closed_at is null order by flag.due_at, flag.id`);
}

/** Flags closed last, newest in front. */
export function listClosedFlags(db: Queryable): Promise<Flag[]> {
  return all(
    db,
    `${FLAGS} where flag.closed_at is not null order by flag.closed_at desc, flag.id limit ${MOST_CLOSED}`,
  );
}

/** Flags closed in a stretch of time (ms), newest first. */
export function flagsClosedIn(db: Queryable, start: number, end: number): Promise<Flag[]> {
  return all(
    db,
    `${FLAGS} where flag.closed_at >= $1 and flag.closed_at < $2 order by flag.closed_at desc, flag.id`,
    [moment(start), moment(end)],
  );
}

export function flagsOfAlarm(db: Queryable, alarmId: string): Promise<Flag[]> {
  return all(db, `${FLAGS} where flag.alarm_id = $1 order by flag.created_at`, [alarmId]);
}

/** Flags on given metrics whose evidence, or else whose moment, touches a stretch of time (ms). */
export function flagsOnTime(
  db: Queryable,
  metricIds: readonly string[],
  { start, end }: Interval,
): Promise<Flag[]> {
  return all(
    db,
    `${FLAGS} where flag.metric_id = any($1::bigint[])
       and coalesce((flag.evidence #>> '{window,start}')::float8, extract(epoch from flag.created_at) * 1000) < $3
       and coalesce((flag.evidence #>> '{window,end}')::float8, extract(epoch from flag.created_at) * 1000) >= $2
     order by flag.created_at limit 500`,
    [metricIds, start, end],
  );
}

export function findFlag(db: Queryable, id: string): Promise<Flag | undefined> {
  return one(db, `${FLAGS} where flag.id = $1`, [id]);
}

/** Open flags that are late and of which that has not been told for this due time; marked as told, locked. */
export async function lockLateFlags(db: Queryable, now: number): Promise<Flag[]> {
  const late = await all<{ id: string }>(
    db,
    `update flag set late_told_for = due_at where id in (
       select id from flag where closed_at is null and due_at < $1 and late_told_for is distinct from due_at
       order by id for update skip locked)
     returning id`,
    [moment(now)],
  );
  return all(db, `${FLAGS} where flag.id = any($1::bigint[]) order by flag.id`, [late.map(({ id }) => id)]);
}

export interface NewFlag {
  readonly title: string;
  readonly note: string;
  readonly kind: FlagKind;
  readonly priority: FlagPriority;
  readonly assetId: string;
  readonly metricId: string | null;
  readonly alarmId: string | null;
  readonly evidence: FlagEvidence | null;
  readonly fromPersonId: string;
  readonly toPersonId: string;
  readonly at: number;
  readonly dueAt: number;
}

/** Adds a flag and the first line of its history. In the caller's transaction. */
export async function addFlag(db: Queryable, flag: NewFlag): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    `insert into flag (title, note, kind, priority, asset_id, metric_id, alarm_id, evidence, from_person, to_person,
                       created_at, due_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12) returning id`,
    [
      flag.title,
      flag.note,
      flag.kind,
      flag.priority,
      flag.assetId,
      flag.metricId,
      flag.alarmId,
      flag.evidence === null ? null : JSON.stringify(flag.evidence),
      flag.fromPersonId,
      flag.toPersonId,
      moment(flag.at),
      moment(flag.dueAt),
    ],
  );
  await addFlagEvent(db, {
    flagId: row!.id,
    at: flag.at,
    kind: 'handed',
    personId: flag.fromPersonId,
    remark: '',
  });
  return row!.id;
}

export async function addFlagEvent(
  db: Queryable,
  event: { flagId: string; at: number; kind: FlagEvent['kind']; personId: string; remark: string },
): Promise<void> {
  await db.query(
    'insert into flag_event (flag_id, at, kind, person_id, remark) values ($1, $2, $3, $4, $5)',
    [event.flagId, moment(event.at), event.kind, event.personId, event.remark],
  );
}

export function eventsOfFlag(db: Queryable, flagId: string): Promise<FlagEvent[]> {
  return all(
    db,
    `select flag_event.id, ${ms('flag_event.at', 'at')}, flag_event.kind, person.name as "personName", flag_event.remark
     from flag_event join person on person.id = flag_event.person_id
     where flag_event.flag_id = $1 order by flag_event.at, flag_event.id`,
    [flagId],
  );
}

/** Takes an open flag in hand. @returns false when it is in hand or closed already. */
export async function takeFlag(db: Queryable, id: string): Promise<boolean> {
  const row = await one(
    db,
    `update flag set status = 'inHand' where id = $1 and status = 'open' returning id`,
    [id],
  );
  return row !== undefined;
}

/** Gives a flag that is not closed to another person. @returns false when it is closed. */
export async function handFlagOn(db: Queryable, id: string, toPersonId: string): Promise<boolean> {
  const row = await one(
    db,
    `update flag set to_person = $2, status = 'open' where id = $1 and closed_at is null returning id`,
    [id, toPersonId],
  );
  return row !== undefined;
}

export interface FlagClosing {
  readonly personId: string;
  readonly status: FlagStatus;
  readonly outcome: FlagOutcome;
  readonly note: string;
  readonly causeId: string | null;
  readonly minutesSpent: number | null;
  readonly at: number;
}

/** @returns false when it was closed already. */
export async function closeFlag(db: Queryable, id: string, closing: FlagClosing): Promise<boolean> {
  const row = await one(
    db,
    `update flag set closed_at = $2, closed_by = $3, status = $4, outcome = $5, outcome_note = $6, cause_id = $7,
                     minutes_spent = $8
     where id = $1 and closed_at is null returning id`,
    [
      id,
      moment(closing.at),
      closing.personId,
      closing.status,
      closing.outcome,
      closing.note,
      closing.causeId,
      closing.minutesSpent,
    ],
  );
  return row !== undefined;
}

/** Opens a closed flag again; cause and time spent stay. @returns false when it is not closed. */
export async function reopenFlag(db: Queryable, id: string): Promise<boolean> {
  const row = await one(
    db,
    `update flag set closed_at = null, closed_by = null, status = 'open', outcome = null, outcome_note = null
     where id = $1 and closed_at is not null returning id`,
    [id],
  );
  return row !== undefined;
}

/** Causes to choose from, by name. */
export function listCauses(db: Queryable): Promise<FlagCause[]> {
  return all(db, 'select id, name from flag_cause where removed_at is null order by lower(name)');
}

/** Adds a cause; one that was taken away comes back. @returns undefined when it is on the list already. */
export async function addCause(db: Queryable, name: string): Promise<FlagCause | undefined> {
  return one(
    db,
    `insert into flag_cause (name) values ($1)
     on conflict (name) do update set removed_at = null where flag_cause.removed_at is not null
     returning id, name`,
    [name],
  );
}

/** Takes a cause off the list; flags that name it keep it. @returns false when there is none. */
export async function removeCause(db: Queryable, id: string, at: number): Promise<boolean> {
  const row = await one(
    db,
    'update flag_cause set removed_at = $2 where id = $1 and removed_at is null returning id',
    [id, moment(at)],
  );
  return row !== undefined;
}

export async function causeExists(db: Queryable, id: string): Promise<boolean> {
  return (await one(db, 'select 1 from flag_cause where id = $1 and removed_at is null', [id])) !== undefined;
}
