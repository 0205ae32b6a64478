import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

/** Who is told of an alarm, with what words, and how many were told that it was raised. */
export function tellingOf(
  db: Queryable,
  alarmId: string,
): Promise<{ told: string[]; message: string; breachesTold: number } | undefined> {
  return one(
    db,
    `select array(select unnest(rule.told)::text) as told, rule.message,
            (select count(*)::int from notice where notice.alarm_id = alarm.id and notice.kind = 'breach') as "breachesTold"
     from alarm join alarm_rule rule on rule.id = alarm.rule_id where alarm.id = $1`,
    [alarmId],
  );
}

/**
 * Alarms that wait for an acknowledgement longer than their rule allows since they last called, and of which nobody
 * else has been told since then, locked; those that another server works on are left to it.
 */
export function lockUnanswered(
  db: Queryable,
  now: number,
): Promise<{ alarmId: string; raisedAt: number; to: string[] }[]> {
  return all(
    db,
    `select alarm.id as "alarmId", ${ms('called.at', 'raisedAt')}, array(select unnest(rule.escalate_to)::text) as "to"
     from alarm
     join alarm_rule rule on rule.id = alarm.rule_id and rule.escalate_after_ms is not null
     join lateral (
       select max(at) as at from alarm_event event
       where event.alarm_id = alarm.id and event.kind in ('raised', 'putBack') and not event.unheard
     ) called on true
     where alarm.state in ('unacknowledged', 'returnedUnacknowledged', 'latchedUnacknowledged')
       and called.at + rule.escalate_after_ms * interval '1 millisecond' <= $1
       and not exists (
         select 1 from alarm_event event
         where event.alarm_id = alarm.id and event.kind = 'told' and event.at >= called.at)
     order by alarm.id for update of alarm skip locked`,
    [moment(now)],
  );
}

/** Has somebody else been told of an alarm since it last called? */
export async function isTold(db: Queryable, alarmId: string, since: number): Promise<boolean> {
  const row = await one<{ told: boolean }>(
    db,
    `select exists (select 1 from alarm_event where alarm_id = $1 and kind = 'told' and at >= $2) as told`,
    [alarmId, moment(since)],
  );
  return row!.told;
}
