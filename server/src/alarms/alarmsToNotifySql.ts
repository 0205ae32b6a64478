import type { AlarmState } from '@vivid-beacon/core';
import type { Unanswered } from '@vivid-beacon/core/src/alarming';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

/** Recipients and message of an alarm, and the number of notices about its raise. */
export function noticeDraftOf(
  db: Queryable,
  alarmId: string,
): Promise<{ told: string[]; message: string; breachesReported: number } | undefined> {
  return one(
    db,
    `select array(select unnest(rule.told)::text) as told, rule.message,
            (select count(*)::int from notice where notice.alarm_id = alarm.id and notice.kind = 'breach') as "breachesReported"
     from alarm join alarm_rule rule on rule.id = alarm.rule_id where alarm.id = $1`,
    [alarmId],
  );
}

/** Alarms in one of these states whose rule has an escalation. */
export function unanswered(
  db: Queryable,
  states: readonly AlarmState[],
): Promise<(Unanswered & { alarmId: string; to: string[] })[]> {
  return all(
    db,
    `select alarm.id as "alarmId", ${ms('called.at', 'calledAt')}, ${ms('told.at', 'reportedAt')},
            rule.escalate_after_ms::float8 as "afterMs", array(select unnest(rule.escalate_to)::text) as "to"
     from alarm
     join alarm_rule rule on rule.id = alarm.rule_id and rule.escalate_after_ms is not null
     join lateral (
       select max(at) as at from alarm_event event
       where event.alarm_id = alarm.id and event.kind in ('raised', 'putBack') and not event.unheard
     ) called on called.at is not null
     left join lateral (
       select max(at) as at from alarm_event event where event.alarm_id = alarm.id and event.kind = 'told'
     ) told on true
     where alarm.state = any($1::text[]) order by alarm.id`,
    [states],
  );
}

/**
 * Locks those of these alarms that are still in one of the states, skipping rows that another server has
 * locked.
 */
export async function lockStillIn(
  db: Queryable,
  ids: readonly string[],
  states: readonly AlarmState[],
): Promise<Set<string>> {
  const rows = await all<{ id: string }>(
    db,
    `select id from alarm where id = any($1::bigint[]) and state = any($2::text[]) order by id for update skip locked`,
    [ids, states],
  );
  return new Set(rows.map(({ id }) => id));
}

/** Whether an alarm was escalated since people were last notified. */
export async function isNotified(db: Queryable, alarmId: string, since: number): Promise<boolean> {
  const row = await one<{ told: boolean }>(
    db,
    `select exists (select 1 from alarm_event where alarm_id = $1 and kind = 'told' and at >= $2) as told`,
    [alarmId, moment(since)],
  );
  return row!.told;
}
