import type { Annunciation, Interval } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

/** The rule that raised alarms, with its name as it is now. */
export interface RaisingRule {
  readonly id: string;
  readonly name: string;
  readonly inForce: boolean;
}

/** Since when there have been alarm rules, ms; null = there was never one. */
export async function alarmsSince(db: Queryable): Promise<number | null> {
  const row = await one<{ at: number | null }>(
    db,
    `select ${ms('min(in_force_from)', 'at')} from alarm_rule`,
  );
  return row!.at;
}

/**
 * Every time an alarm called somebody in a stretch of time (ms), also when one that waited for its acknowledgement
 * was raised again; with when it next returned and was acknowledged. Those that were set aside or suppressed then are left out.
 */
export async function annunciations(
  db: Queryable,
  { start, end }: Interval,
): Promise<{ alarms: Annunciation[]; names: RaisingRule[] }> {
  const alarms = await all<Annunciation>(
    db,
    `select alarm.rule_id as "ruleId", rule.priority, ${ms('raised.at', 'raisedAt')},
            ${ms('returned.at', 'returnedAt')}, ${ms('acknowledged.at', 'acknowledgedAt')}
     from alarm_event raised
     join alarm on alarm.id = raised.alarm_id
     join alarm_rule rule on rule.id = alarm.rule_id
     left join lateral (
       select min(at) as at from alarm_event later
       where later.alarm_id = raised.alarm_id and later.kind = 'returned' and later.at >= raised.at
     ) returned on true
     left join lateral (
       select min(at) as at from alarm_event later
       where later.alarm_id = raised.alarm_id and later.kind = 'acknowledged' and later.at >= raised.at
     ) acknowledged on true
     where raised.kind = 'raised' and raised.at >= $1 and raised.at < $2 and not raised.unheard
     order by raised.at, raised.id`,
    [moment(start), moment(end)],
  );
  const names = await all<RaisingRule>(
    db,
    `select id, name, in_force as "inForce" from alarm_rule where id = any($1::bigint[]) order by id`,
    [[...new Set(alarms.map(({ ruleId }) => ruleId))]],
  );
  return { alarms, names };
}
