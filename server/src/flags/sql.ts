import {
  FLAG_PRIORITIES,
  type Flag,
  type FlagCause,
  type FlagEvent,
  type FlagEvidence,
  type FlagKind,
  type FlagOutcome,
  type FlagPriority,
  type FlagStatus,
  type Interval,
  type PageOf,
} from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { Conditions, findPage, SEEN_PLANT } from '../db/conditions';
import { all, one, type Queryable } from '../db/database';
import type { PageRange } from '../db/pages';
import type { Reader } from '../db/reader';

const FLAGS = `
  select flag.id, flag.title, flag.note, flag.kind, flag.priority, flag.status, flag.alarm_id as "alarmId",
         flag.metric_id as "metricId", asset.name as "assetName", place.title as place,
         place.plant_id as "plantId", place.zone,
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

/** Filter of flags. */
export interface FlagFilter {
  readonly state: 'open' | 'closed';
  /** Of everybody, those that wait for the asker, or those the asker handed out. */
  readonly list: 'mine' | 'given' | 'all';
  /**
   * Words that must all occur in the title, the name of the taker or the names of the asset from the plant
   * down.
   */
  readonly words?: readonly string[];
  readonly plantId?: string;
  /** Due before this moment (ms), or not. */
  readonly due?: { readonly late: boolean; readonly now: number };
}

const LISTS = { mine: 'flag.to_person', given: 'flag.from_person', all: null } as const;

/** The same order as core's byUrgency. */
const URGENCY = (now: string, priorities: string): string => `
  flag.due_at < ${now}::timestamptz desc, case when flag.due_at < ${now}::timestamptz then flag.due_at end,
  array_position(${priorities}::text[], flag.priority), flag.due_at, flag.id`;

/** A page of flags: the open ones, the most urgent in front, or those closed last. @param ownFirst those of the asker before others. */
export function pageOfFlags(
  db: Reader,
  { state, list, words = [], plantId, due }: FlagFilter,
  page: PageRange,
  { now, ownFirst = false }: { readonly now: number; readonly ownFirst?: boolean },
): Promise<PageOf<Flag>> {
  const person = LISTS[list];
  const conditions = new Conditions(db)
    .plain(state === 'open' ? 'flag.closed_at is null' : 'flag.closed_at is not null')
    .and(person === null ? undefined : db.asker.personId, (at) => `${person} = ${at}::bigint`)
    .and(plantId, (at) => `place.plant_id = ${at}::bigint`)
    .and(due && moment(due.now), (at) => `flag.due_at ${due!.late ? '<' : '>='} ${at}::timestamptz`)
    .words(words, ['flag.title', 'taker.name', 'place.title']);
  const order = (value: (each: unknown) => string): string => {
    if (state === 'closed') return 'flag.closed_at desc, flag.id';
    const urgency = URGENCY(value(moment(now)), value(FLAG_PRIORITIES));
    return ownFirst ? `flag.to_person = ${value(db.asker.personId)}::bigint desc, ${urgency}` : urgency;
  };
  return findPage(
    db,
    {
      from: `flag join asset_place place on place.asset_id = flag.asset_id join person taker on taker.id = flag.to_person`,
      id: 'flag.id',
      select: FLAGS,
      conditions,
      order,
    },
    page,
  );
}

/** How many flags are open, late and not yet, by plant. */
export async function countOpenFlags(
  db: Reader,
  now: number,
): Promise<Record<string, { late: number; later: number }>> {
  const rows = await all<{ plantId: string; late: number; later: number }>(
    db,
    `select place.plant_id as "plantId", count(*) filter (where flag.due_at < $2)::int as late,
            count(*) filter (where flag.due_at >= $2)::int as later
     from flag join asset_place place on place.asset_id = flag.asset_id
     where ${SEEN_PLANT} and flag.closed_at is null group by 1`,
    [db.asker.sites, moment(now)],
  );
  return Object.fromEntries(rows.map(({ plantId, ...counts }) => [plantId, counts]));
}

/** Flags of a plant closed in a stretch of time (ms), newest first. */
export function flagsClosedIn(db: Reader, plantId: string, { start, end }: Interval): Promise<Flag[]> {
  return all(
    db,
    `${FLAGS} where ${SEEN_PLANT} and place.plant_id = $2 and flag.closed_at >= $3 and flag.closed_at < $4
     order by flag.closed_at desc, flag.id`,
    [db.asker.sites, plantId, moment(start), moment(end)],
  );
}

/** Flags on given metrics whose evidence, or else whose moment, touches a stretch of time (ms). */
export function flagsOnTime(
  db: Reader,
  metricIds: readonly string[],
  { start, end }: Interval,
): Promise<Flag[]> {
  return all(
    db,
    `${FLAGS} where ${SEEN_PLANT} and flag.metric_id = any($2::bigint[])
       and coalesce((flag.evidence #>> '{window,start}')::float8, extract(epoch from flag.created_at) * 1000) < $4
       and coalesce((flag.evidence #>> '{window,end}')::float8, extract(epoch from flag.created_at) * 1000) >= $3
     order by flag.created_at limit 500`,
    [db.asker.sites, metricIds, start, end],
  );
}

export function findFlag(db: Reader, id: string): Promise<Flag | undefined> {
  return one(db, `${FLAGS} where ${SEEN_PLANT} and flag.id = $2`, [db.asker.sites, id]);
}

/** Overdue open flags without a notice for this due time; locked and marked as notified. */
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

export interface ClosedFlag {
  readonly personId: string;
  readonly status: FlagStatus;
  readonly outcome: FlagOutcome;
  readonly note: string;
  readonly causeId: string | null;
  readonly minutesSpent: number | null;
  readonly at: number;
}

/** @returns false when it was closed already. */
export async function closeFlag(db: Queryable, id: string, closing: ClosedFlag): Promise<boolean> {
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
    `insert into flag_cause (name)
     select $1 where not exists (select 1 from flag_cause where lower(name) = lower($1) and removed_at is null)
     on conflict (name) do update set removed_at = null where flag_cause.removed_at is not null
     returning id, name`,
    [name],
  );
}

/** Removes a cause from the list; flags that name it keep it. @returns false when there is none. */
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
