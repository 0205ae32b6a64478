import { DAY_MS, UNACKNOWLEDGED_STATES } from '@vivid-beacon/core';
import {
  breachNotice,
  escalationNotice,
  isEscalationDue,
  returnNotice,
} from '@vivid-beacon/core/src/alarming';
import { readAsServer } from '../db/reader';
import { findAlarm } from './listSql';
import { addEvent } from './sql';
import { withTransaction, type Pool, type Queryable } from '../db/database';
import { notify } from '../live/notify';
import { isNotified, lockStillIn, noticeDraftOf, unanswered } from './alarmsToNotifySql';
import { enqueueNotice } from '../notices/enqueueNotice';

/** Older alarms notify nobody; they only appear in the list. */
const TOO_OLD_MS = DAY_MS;

/** Enqueues notices to the recipients of a rule: its alarm was raised or returned to normal. */
export async function enqueueAlarmNotices(
  db: Queryable,
  alarmId: string,
  kind: 'breach' | 'return',
  at: number,
  now: number,
): Promise<void> {
  if (at < now - TOO_OLD_MS) return;
  const rule = await noticeDraftOf(db, alarmId);
  if (!rule || rule.told.length === 0) return;
  // Only those who were notified of the alarm are notified of its return.
  if (kind === 'return' && rule.breachesReported === 0) return;
  const alarm = (await findAlarm(readAsServer(db), alarmId))!;
  await enqueueNotice(
    db,
    rule.told,
    {
      about: `alarm ${alarmId} ${kind} at ${at}`,
      kind,
      urgent: alarm.priority === 'high',
      text: kind === 'breach' ? breachNotice(alarm, rule) : returnNotice(alarm),
      address: `/alarms/${alarmId}`,
      alarmId,
      plantId: alarm.plantId,
    },
    now,
  );
}

/** Escalates alarms that were not acknowledged in time, once per raise. @returns how many. */
export async function escalate(pool: Pool, now: number): Promise<number> {
  return withTransaction(pool, async (db) => {
    const due = (await unanswered(db, UNACKNOWLEDGED_STATES)).filter((each) => isEscalationDue(each, now));
    const locked = await lockStillIn(
      db,
      due.map(({ alarmId }) => alarmId),
      UNACKNOWLEDGED_STATES,
    );
    let count = 0;
    for (const { alarmId, calledAt: raisedAt, to } of due) {
      if (!locked.has(alarmId)) continue;
      // Another server may have escalated it between the query and the lock.
      if (await isNotified(db, alarmId, raisedAt)) continue;
      const alarm = (await findAlarm(readAsServer(db), alarmId))!;
      const names = await enqueueNotice(
        db,
        to,
        {
          about: `alarm ${alarmId} escalation of ${raisedAt}`,
          kind: 'escalation',
          urgent: true,
          text: escalationNotice(alarm, now - raisedAt),
          address: `/alarms/${alarmId}`,
          alarmId,
          plantId: alarm.plantId,
        },
        now,
      );
      const remark = `Nobody acknowledged it in time. ${names.length > 0 ? names.join(', ') : 'Nobody could be reached'}.`;
      await addEvent(db, { alarmId, at: now, kind: 'told', remark });
      await notify(db, 'alarms', [alarmId]);
      count++;
    }
    return count;
  });
}
