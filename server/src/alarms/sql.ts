import type { AlarmEvent, AlarmState } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

/** The fields of an alarm used by its state machine. */
export interface AlarmRow {
  readonly id: string;
  readonly state: AlarmState;
  readonly raisedAt: number;
  readonly returnedAt: number | null;
  readonly ruleId: string;
  readonly metricId: string;
}

const ALARM_ROW = `id, state, rule_id as "ruleId", metric_id as "metricId", ${ms('raised_at', 'raisedAt')}, ${ms('returned_at', 'returnedAt')}`;

/** The watch of a rule on one metric; it has at most one active alarm. */
export interface WatchKey {
  readonly ruleId: string;
  readonly metricId: string;
}

/** The alarm of a rule on a metric that is not over yet, locked. */
export function lockStandingAlarm(
  db: Queryable,
  { ruleId, metricId }: WatchKey,
): Promise<AlarmRow | undefined> {
  return one(
    db,
    `select ${ALARM_ROW} from alarm where rule_id = $1 and metric_id = $2 and state <> 'normal' for update`,
    [ruleId, metricId],
  );
}

export function lockAlarm(db: Queryable, id: string): Promise<AlarmRow | undefined> {
  return one(db, `select ${ALARM_ROW} from alarm where id = $1 for update`, [id]);
}

/** The alarm of a rule's Caution on the same metric that is not over yet, locked. */
export function lockCautionOf(db: Queryable, { ruleId, metricId }: WatchKey): Promise<AlarmRow | undefined> {
  return one(
    db,
    `select ${ALARM_ROW} from alarm
     where rule_id = (select id from alarm_rule where stage_of = $1) and metric_id = $2 and state <> 'normal' for update`,
    [ruleId, metricId],
  );
}

/** Alarms of a rule on a metric that had not returned before `from`, oldest first. */
export function alarmsOfWatch(
  db: Queryable,
  { ruleId, metricId }: WatchKey,
  from: number,
): Promise<AlarmRow[]> {
  return all(
    db,
    `select ${ALARM_ROW} from alarm
     where rule_id = $1 and metric_id = $2 and (returned_at is null or returned_at >= $3) order by raised_at`,
    [ruleId, metricId, moment(from)],
  );
}

export async function addAlarm(
  db: Queryable,
  alarm: {
    ruleId: string;
    metricId: string;
    state: AlarmState;
    raisedAt: number;
    raisedValue: number | null;
    returnedAt: number | null;
  },
): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    `insert into alarm (rule_id, metric_id, state, raised_at, raised_value, returned_at)
     values ($1, $2, $3, $4, $5, $6) returning id`,
    [
      alarm.ruleId,
      alarm.metricId,
      alarm.state,
      moment(alarm.raisedAt),
      alarm.raisedValue,
      alarm.returnedAt === null ? null : moment(alarm.returnedAt),
    ],
  );
  return row!.id;
}

/** Saves a state changed by a person or by the end of shelving. */
export async function saveAlarmState(db: Queryable, id: string, state: AlarmState): Promise<void> {
  await db.query('update alarm set state = $2 where id = $1', [id, state]);
}

/** Writes the state after a return (`returnedAt` set) or a new raise (null). */
export async function saveAlarmProcess(
  db: Queryable,
  id: string,
  state: AlarmState,
  returnedAt: number | null,
): Promise<void> {
  await db.query('update alarm set state = $2, returned_at = $3 where id = $1', [
    id,
    state,
    returnedAt === null ? null : moment(returnedAt),
  ]);
}

export async function saveAcknowledgement(
  db: Queryable,
  id: string,
  state: AlarmState,
  personId: string,
  at: number,
): Promise<void> {
  await db.query('update alarm set state = $2, acknowledged_by = $3, acknowledged_at = $4 where id = $1', [
    id,
    state,
    personId,
    moment(at),
  ]);
}

export async function addEvent(
  db: Queryable,
  event: {
    alarmId: string;
    at: number;
    kind: AlarmEvent['kind'];
    personId?: string;
    value?: number | null;
    remark?: string;
    /** Raised while it was set aside or suppressed: nobody was notified. */
    unheard?: boolean;
  },
): Promise<void> {
  await db.query(
    'insert into alarm_event (alarm_id, at, kind, person_id, value, remark, unheard) values ($1, $2, $3, $4, $5, $6, $7)',
    [
      event.alarmId,
      moment(event.at),
      event.kind,
      event.personId ?? null,
      event.value ?? null,
      event.remark || null,
      event.unheard ?? false,
    ],
  );
}

export function listEvents(db: Queryable, alarmId: string): Promise<AlarmEvent[]> {
  return all(
    db,
    `select event.id, ${ms('event.at', 'at')}, event.kind, person.name as "personName", event.value, event.remark
     from alarm_event event left join person on person.id = event.person_id
     where event.alarm_id = $1 order by event.at, event.id`,
    [alarmId],
  );
}
