import type { Alarm, AlarmEvent, AlarmState, Interval, RaisedAlarm } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

/** The part of an alarm that its state machine works on. */
export interface AlarmRow {
  readonly id: string;
  readonly state: AlarmState;
  readonly raisedAt: number;
  readonly returnedAt: number | null;
  readonly ruleId: string;
  readonly metricId: string;
}

const ALARM_ROW = `id, state, rule_id as "ruleId", metric_id as "metricId", ${ms('raised_at', 'raisedAt')}, ${ms('returned_at', 'returnedAt')}`;

/** What a rule watches one metric with: one alarm of it stands at most. */
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

/** Writes a state that a person, or the end of a shelf, brought about. */
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
    /** Raised while it was set aside or suppressed: nobody was called. */
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

const ALARMS = `
  select alarm.id, alarm.rule_id as "ruleId", rule.name as "ruleName", alarm.state, rule.level, rule.priority, rule.test,
         rule.to_do as "toDo", ${ms('watch.aside_until', 'shelvedUntil')}, watch.aside_reason as "asideReason",
         metric.id as "metricId", metric.name as "metricName", metric.unit,
         metric.decimals::int as decimals, asset.id as "assetId", asset.name as "assetName",
         place.plant_id as "plantId", place.plant_name as "plantName", place.zone,
         ${ms('alarm.raised_at', 'raisedAt')}, alarm.raised_value as "raisedValue",
         ${ms('alarm.returned_at', 'returnedAt')}, latest.v as "latestValue",
         person.name as "acknowledgedBy", ${ms('alarm.acknowledged_at', 'acknowledgedAt')},
         (select ${ms('max(told.at)', 'at')} from alarm_event told
          where told.alarm_id = alarm.id and told.kind = 'told' and told.at >= alarm.raised_at
            and not exists (select 1 from alarm_event again
              where again.alarm_id = alarm.id and again.kind = 'raised' and again.at > told.at)) as "escalatedAt"
  from alarm
  join alarm_rule rule on rule.id = alarm.rule_id
  left join alarm_watch watch on watch.rule_id = alarm.rule_id and watch.metric_id = alarm.metric_id
  join metric on metric.id = alarm.metric_id
  join asset on asset.id = metric.asset_id
  join asset_place place on place.asset_id = asset.id
  left join metric_latest latest on latest.metric_id = metric.id
  left join person on person.id = alarm.acknowledged_by`;

/** Alarms that are not over, the most serious and newest first. */
export function listStandingAlarms(db: Queryable): Promise<Alarm[]> {
  return all(
    db,
    `${ALARMS} where alarm.state <> 'normal'
     order by alarm.state in ('shelved', 'suppressed', 'outOfService'), rule.level = 'breach' desc, alarm.raised_at desc`,
  );
}

/** Alarms that called somebody in a stretch of time (ms), also those that waited and called again; newest first. */
export function alarmsRaisedIn(db: Queryable, start: number, end: number): Promise<Alarm[]> {
  return all(
    db,
    `${ALARMS} where alarm.id in (
       select alarm_id from alarm_event where kind = 'raised' and not unheard and at >= $1 and at < $2)
     order by alarm.raised_at desc, alarm.id`,
    [moment(start), moment(end)],
  );
}

/** When alarms of given metrics were raised in a stretch of time (ms), in order; the newest where there are very many. */
export async function raisedOnTime(
  db: Queryable,
  metricIds: readonly string[],
  { start, end }: Interval,
): Promise<RaisedAlarm[]> {
  const rows = await all<RaisedAlarm>(
    db,
    `select alarm.id, alarm.metric_id as "metricId", ${ms('alarm.raised_at', 'raisedAt')} from alarm
     where alarm.metric_id = any($1::bigint[]) and alarm.raised_at >= $2 and alarm.raised_at < $3
     order by alarm.raised_at desc limit 1000`,
    [metricIds, moment(start), moment(end)],
  );
  return rows.reverse();
}

/** How many alarms are in each state, without those that are over. */
export function countStanding(db: Queryable): Promise<{ state: AlarmState; n: number }[]> {
  return all(db, `select state, count(*)::int as n from alarm where state <> 'normal' group by state`);
}

/** The newest alarms that are over. */
export function listPastAlarms(db: Queryable, limit: number): Promise<Alarm[]> {
  return all(db, `${ALARMS} where alarm.state = 'normal' order by alarm.raised_at desc limit $1`, [limit]);
}

export function findAlarm(db: Queryable, id: string): Promise<Alarm | undefined> {
  return one(db, `${ALARMS} where alarm.id = $1`, [id]);
}

/** Earlier alarms of the same rule on the same metric. */
export function earlierAlarms(db: Queryable, alarm: Alarm, limit: number): Promise<Alarm[]> {
  return all(
    db,
    `${ALARMS} where alarm.rule_id = $1 and alarm.metric_id = $2 and alarm.raised_at < $3
     order by alarm.raised_at desc limit $4`,
    [alarm.ruleId, alarm.metricId, moment(alarm.raisedAt), limit],
  );
}
