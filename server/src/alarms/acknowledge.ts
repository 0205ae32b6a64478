import { BeaconError, needsAcknowledgement, nextAlarmState } from '@vivid-beacon/core';
import { withTransaction, type Pool } from '../db/database';
import { notify } from '../live/notify';
import { addEvent, lockAlarm, lockCautionOf, saveAcknowledgement } from './sql';

/**
 * Acknowledges an alarm once. If two people do so at the same time, the second gets an error. Who acknowledges a
 * Breach has seen the Caution of the same rule on the same metric too.
 */
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
    const milder = await lockCautionOf(db, alarm);
    const seen = milder !== undefined && needsAcknowledgement(milder.state);
    if (seen) {
      await saveAcknowledgement(db, milder.id, nextAlarmState(milder.state, 'acknowledge'), personId, at);
      await addEvent(db, {
        alarmId: milder.id,
        at,
        kind: 'acknowledged',
        personId,
        remark: 'Acknowledged with the Breach of the same rule.',
      });
    }
    await notify(db, 'alarms', seen ? [alarmId, milder.id] : [alarmId]);
  });
}
