import { BeaconError, nextAlarmState } from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { notify } from '../live/notify';
import { addEvent, endRule, lockRule, lockStandingAlarm, saveAlarmProcess } from './sql';

/**
 * Takes a rule out of force, in the caller's transaction. No sample will ever return its alarm, so the alarm that
 * stands ends here; one that nobody has acknowledged waits for that only.
 *
 * @throws {BeaconError} NOT_FOUND when it is not in force.
 */
export async function retireRule(db: Queryable, ruleId: string, personId: string, at: number): Promise<void> {
  const rule = await lockRule(db, ruleId);
  if (!rule || !(await endRule(db, ruleId))) {
    throw new BeaconError('NOT_FOUND', 'This alarm rule does not exist or is out of force already.');
  }
  const standing = await lockStandingAlarm(db, ruleId);
  if (standing) {
    const ended = standing.returnedAt ?? Math.max(at, standing.raisedAt);
    await saveAlarmProcess(db, standing.id, nextAlarmState(standing.state, 'retire'), ended);
    await addEvent(db, { alarmId: standing.id, at, kind: 'ruleRetired', personId });
  }
  await notify(db, 'alarms', standing ? [standing.id] : []);
}
