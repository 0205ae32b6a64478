import { BeaconError, nextAlarmState } from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { notify } from '../live/notify';
import { endRule, lockRule } from './rulesSql';
import { addEvent, lockStandingAlarm, saveAlarmProcess, type WatchKey } from './sql';
import { lockWatchesOfStages, removeWatch } from './watchSql';

/**
 * Withdraws a rule of all its stages, in the caller's transaction. No sample can return its alarms any more, so active ones end
 * here; an unacknowledged one still waits for its acknowledgement.
 *
 * @param personId null = nobody: its metric is gone.
 * @throws {BeaconError} NOT_FOUND when it is not in force.
 */
export async function retireRule(
  db: Queryable,
  ruleId: string,
  personId: string | null,
  at: number,
): Promise<void> {
  const rule = await lockRule(db, ruleId);
  if (!rule || !(await endRule(db, ruleId))) {
    throw new BeaconError('NOT_FOUND', 'This alarm rule does not exist or was withdrawn already.');
  }
  for (const watch of await lockWatchesOfStages(db, ruleId)) await endWatch(db, watch, personId, at);
  await notify(db, 'alarms', []);
}

/** Stops watching one metric and ends its active alarm, if any. */
export async function endWatch(
  db: Queryable,
  watch: WatchKey,
  personId: string | null,
  at: number,
): Promise<void> {
  const standing = await lockStandingAlarm(db, watch);
  if (standing) {
    const ended = standing.returnedAt ?? Math.max(at, standing.raisedAt);
    await saveAlarmProcess(db, standing.id, nextAlarmState(standing.state, 'retire'), ended);
    await addEvent(db, {
      alarmId: standing.id,
      at,
      kind: 'ruleRetired',
      ...(personId ? { personId } : { remark: 'Its metric is no longer watched.' }),
    });
    await notify(db, 'alarms', [standing.id]);
  }
  await removeWatch(db, watch);
}
