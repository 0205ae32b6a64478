import type { Alarm, AlarmEvent, AlarmRule, AlarmState, ConditionState, RuleAside } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

/** A rule with what its condition remembers. */
export interface RuleRow extends AlarmRule {
  readonly condition: ConditionState;
}

const RULE = `rule.id, rule.name, rule.metric_id as "metricId", rule.side, rule.alarm_limit as "limit", rule.deadband,
  rule.on_delay_ms::float8 as "onDelayMs", rule.off_delay_ms::float8 as "offDelayMs", rule.level,
  rule.latching, rule.in_force as "inForce", ${ms('rule.in_force_from', 'inForceFrom')},
  case when rule.aside is not null then jsonb_build_object(
    'kind', rule.aside, 'at', extract(epoch from rule.aside_at) * 1000, 'until', extract(epoch from rule.aside_until) * 1000,
    'by', (select name from person where id = rule.aside_by), 'reason', rule.aside_reason) end as aside`;

export function listRules(db: Queryable): Promise<AlarmRule[]> {
  return all(db, `select ${RULE} from alarm_rule rule where rule.in_force order by rule.name`);
}

/** A rule, in force or not, locked. */
export function lockRule(db: Queryable, id: string): Promise<RuleRow | undefined> {
  return one(
    db,
    `select ${RULE}, rule.condition from alarm_rule rule where rule.id = $1 for update of rule`,
    [id],
  );
}

/** Shelved rules whose time is over, locked; those that another server has locked are left to it. */
export function lockEndedShelves(db: Queryable, now: number): Promise<RuleRow[]> {
  return all(
    db,
    `select ${RULE}, rule.condition from alarm_rule rule
     where rule.aside = 'shelved' and rule.aside_until <= $1 order by rule.id for update of rule skip locked`,
    [moment(now)],
  );
}

/** Sets a rule aside, or puts it back (`aside` = null), and adds that to its history. */
export async function saveAside(
  db: Queryable,
  ruleId: string,
  aside: Pick<RuleAside, 'kind' | 'until' | 'reason'> | null,
  personId: string | null,
  at: number,
): Promise<void> {
  const until = aside?.until == null ? null : moment(aside.until);
  await db.query(
    `update alarm_rule set aside = $2::text, aside_until = $3, aside_at = case when $2::text is null then null else $4::timestamptz end,
            aside_by = case when $2::text is null then null else $5::bigint end, aside_reason = $6 where id = $1`,
    [ruleId, aside?.kind ?? null, until, moment(at), personId, aside?.reason ?? null],
  );
  await db.query(
    `insert into alarm_rule_event (rule_id, at, kind, until, person_id, reason) values ($1, $2, $3, $4, $5, $6)`,
    [ruleId, moment(at), aside?.kind ?? 'putBack', until, personId, aside?.reason ?? null],
  );
}

/** Rules in force on these metrics, locked until the transaction ends. */
export function lockRulesOf(db: Queryable, metricIds: readonly string[]): Promise<RuleRow[]> {
  return all(
    db,
    `select ${RULE}, rule.condition from alarm_rule rule
     where rule.in_force and rule.metric_id = any($1::bigint[]) order by rule.id for update of rule`,
    [metricIds],
  );
}

export async function addRule(
  db: Queryable,
  rule: Omit<AlarmRule, 'id' | 'inForce' | 'aside'> & { createdBy: string; condition: ConditionState },
): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    `insert into alarm_rule (name, metric_id, side, alarm_limit, deadband, on_delay_ms, off_delay_ms, level,
                             in_force_from, created_by, condition, latching)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11::jsonb, $12) returning id`,
    [
      rule.name,
      rule.metricId,
      rule.side,
      rule.limit,
      rule.deadband,
      rule.onDelayMs,
      rule.offDelayMs,
      rule.level,
      moment(rule.inForceFrom),
      rule.createdBy,
      JSON.stringify(rule.condition),
      rule.latching,
    ],
  );
  return row!.id;
}

/** Takes a rule out of force. @returns false when there is none in force. */
export async function endRule(db: Queryable, id: string): Promise<boolean> {
  const row = await one(
    db,
    'update alarm_rule set in_force = false where id = $1 and in_force returning id',
    [id],
  );
  return row !== undefined;
}

export async function saveCondition(db: Queryable, ruleId: string, condition: ConditionState): Promise<void> {
  await db.query('update alarm_rule set condition = $2::jsonb where id = $1', [
    ruleId,
    JSON.stringify(condition),
  ]);
}

/** The part of an alarm that its state machine works on. */
export interface AlarmRow {
  readonly id: string;
  readonly state: AlarmState;
  readonly raisedAt: number;
  readonly returnedAt: number | null;
  readonly ruleId: string;
}

const ALARM_ROW = `id, state, rule_id as "ruleId", ${ms('raised_at', 'raisedAt')}, ${ms('returned_at', 'returnedAt')}`;

/** The rule's alarm that is not over yet, locked. */
export function lockStandingAlarm(db: Queryable, ruleId: string): Promise<AlarmRow | undefined> {
  return one(db, `select ${ALARM_ROW} from alarm where rule_id = $1 and state <> 'normal' for update`, [
    ruleId,
  ]);
}

export function lockAlarm(db: Queryable, id: string): Promise<AlarmRow | undefined> {
  return one(db, `select ${ALARM_ROW} from alarm where id = $1 for update`, [id]);
}

export function alarmsOfRule(db: Queryable, ruleId: string, from: number): Promise<AlarmRow[]> {
  return all(
    db,
    `select ${ALARM_ROW} from alarm where rule_id = $1 and (returned_at is null or returned_at >= $2) order by raised_at`,
    [ruleId, moment(from)],
  );
}

export async function addAlarm(
  db: Queryable,
  alarm: {
    ruleId: string;
    state: AlarmState;
    raisedAt: number;
    raisedValue: number;
    returnedAt: number | null;
  },
): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    `insert into alarm (rule_id, state, raised_at, raised_value, returned_at) values ($1, $2, $3, $4, $5) returning id`,
    [
      alarm.ruleId,
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
    value?: number;
    remark?: string;
  },
): Promise<void> {
  await db.query(
    'insert into alarm_event (alarm_id, at, kind, person_id, value, remark) values ($1, $2, $3, $4, $5, $6)',
    [
      event.alarmId,
      moment(event.at),
      event.kind,
      event.personId ?? null,
      event.value ?? null,
      event.remark || null,
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
  select alarm.id, alarm.rule_id as "ruleId", rule.name as "ruleName", alarm.state, rule.level, rule.side,
         ${ms('rule.aside_until', 'shelvedUntil')}, rule.aside_reason as "asideReason",
         rule.alarm_limit as "limit", metric.id as "metricId", metric.name as "metricName", metric.unit,
         metric.decimals::int as decimals, asset.id as "assetId", asset.name as "assetName",
         place.plant_id as "plantId", place.plant_name as "plantName", place.zone,
         ${ms('alarm.raised_at', 'raisedAt')}, alarm.raised_value as "raisedValue",
         ${ms('alarm.returned_at', 'returnedAt')}, latest.v as "latestValue",
         person.name as "acknowledgedBy", ${ms('alarm.acknowledged_at', 'acknowledgedAt')}
  from alarm
  join alarm_rule rule on rule.id = alarm.rule_id
  join metric on metric.id = rule.metric_id
  join asset on asset.id = metric.asset_id
  join asset_place place on place.asset_id = asset.id
  left join metric_latest latest on latest.metric_id = metric.id
  left join person on person.id = alarm.acknowledged_by`;

/** Alarms that are not over, the most serious and newest first. */
export function listStandingAlarms(db: Queryable): Promise<Alarm[]> {
  return all(
    db,
    `${ALARMS} where alarm.state <> 'normal'
     order by alarm.state in ('shelved', 'outOfService'), rule.level = 'breach' desc, alarm.raised_at desc`,
  );
}

/** The newest alarms that are over. */
export function listPastAlarms(db: Queryable, limit: number): Promise<Alarm[]> {
  return all(db, `${ALARMS} where alarm.state = 'normal' order by alarm.raised_at desc limit $1`, [limit]);
}

export function findAlarm(db: Queryable, id: string): Promise<Alarm | undefined> {
  return one(db, `${ALARMS} where alarm.id = $1`, [id]);
}

/** Earlier alarms of the same rule. */
export function earlierAlarms(db: Queryable, alarm: Alarm, limit: number): Promise<Alarm[]> {
  return all(
    db,
    `${ALARMS} where alarm.rule_id = $1 and alarm.raised_at < $2 order by alarm.raised_at desc limit $3`,
    [alarm.ruleId, moment(alarm.raisedAt), limit],
  );
}
