import type { Annunciation, Interval } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { SEEN_PLANT } from '../db/conditions';
import { all, one } from '../db/database';
import type { Reader } from '../db/reader';

/** The rule that raised alarms, with its name as it is now. */
export interface RaisingRuleRow {
  readonly id: string;
  readonly name: string;
  readonly inForce: boolean;
}

/** When the first alarm rule came into force, ms; null = never. */
export async function alarmsSince(db: Reader): Promise<number | null> {
  const row = await one<{ at: number | null }>(
    db,
    `select ${ms('min(rule.in_force_from)', 'at')} from alarm_rule rule join metric on metric.id = rule.metric_id
     join asset_place place on place.asset_id = metric.asset_id where ${SEEN_PLANT}`,
    [db.asker.sites],
  );
  return row!.at;
}

/**
 * Every time an alarm notified somebody in a stretch of time (ms), including new raises of unacknowledged
 * alarms, with its next return and acknowledgement. Those set aside or suppressed at that time are left out.
 */
export async function annunciations(
  db: Reader,
  { start, end }: Interval,
): Promise<{ alarms: Annunciation[]; names: RaisingRuleRow[] }> {
  const alarms = await all<Annunciation>(
    db,
    `select coalesce(rule.stage_of, rule.id) as "ruleId", rule.priority, ${ms('raised.at', 'raisedAt')},
            ${ms('returned.at', 'returnedAt')}, ${ms('acknowledged.at', 'acknowledgedAt')}
     from alarm_event raised
     join alarm on alarm.id = raised.alarm_id
     join alarm_rule rule on rule.id = alarm.rule_id
     join metric on metric.id = alarm.metric_id
     join asset_place place on place.asset_id = metric.asset_id
     left join lateral (
       select min(at) as at from alarm_event later
       where later.alarm_id = raised.alarm_id and later.kind = 'returned' and later.at >= raised.at
     ) returned on true
     left join lateral (
       select min(at) as at from alarm_event later
       where later.alarm_id = raised.alarm_id and later.kind = 'acknowledged' and later.at >= raised.at
     ) acknowledged on true
     where ${SEEN_PLANT} and raised.kind = 'raised' and raised.at >= $2 and raised.at < $3 and not raised.unheard
     order by raised.at, raised.id`,
    [db.asker.sites, moment(start), moment(end)],
  );
  const names = await all<RaisingRuleRow>(
    db,
    `select id, name, in_force as "inForce" from alarm_rule where id = any($1::bigint[]) order by id`,
    [[...new Set(alarms.map(({ ruleId }) => ruleId))]],
  );
  return { alarms, names };
}
