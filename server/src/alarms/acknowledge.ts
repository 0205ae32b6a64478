import { BeaconError, nextAlarmState } from '@vivid-beacon/core';
import { withTransaction, type Pool } from '../db/database';
import { notify } from '../live/notify';
import { addEvent, lockAlarm, saveAcknowledgement } from './sql';

/** Acknowledges an alarm once. If two people do so at the same time, the second gets an error. */
export async function acknowledgeAlarm(
  pool: Pool,
  alarmId: string,
  personId: string,
  remark: string,
  at: number,
): Promise<void> {
  await withTransaction(pool, async (db) => {
    const alarm = await lockAlarm(db, alarmId);
    if (!alarm) throw new BeaconError('NOT_FOUND', 'This alarm does not exist.');
    const state = nextAlarmState(alarm.state, 'acknowledge');
    await saveAcknowledgement(db, alarmId, state, personId, at);
    await addEvent(db, { alarmId, at, kind: 'acknowledged', personId, remark });
    await notify(db, 'alarms', [alarmId]);
  });
}
