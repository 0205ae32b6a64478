import { DAY_MS } from '@vivid-beacon/core';
import { breachNotice, escalationNotice, returnNotice } from '@vivid-beacon/core/src/engine';
import { addEvent, findAlarm } from './sql';
import { withTransaction, type Pool, type Queryable } from '../db/database';
import { notify } from '../live/notify';
import { isTold, lockUnanswered, tellingOf } from './alarmsToTellSql';
import { tell } from '../notices/queue';

/** What is older than this when it is found wakes nobody; it stands in the list. */
const TOO_OLD_MS = DAY_MS;

/** Tells the people of a rule that its alarm was raised, or that it is back to normal. */
export async function tellOfAlarm(
  db: Queryable,
  alarmId: string,
  kind: 'breach' | 'return',
  at: number,
  now: number,
): Promise<void> {
  if (at < now - TOO_OLD_MS) return;
  const rule = await tellingOf(db, alarmId);
  if (!rule || rule.told.length === 0) return;
  // A return is only news to those who were told of the alarm.
  if (kind === 'return' && rule.breachesTold === 0) return;
  const alarm = (await findAlarm(db, alarmId))!;
  await tell(
    db,
    rule.told,
    {
      about: `alarm ${alarmId} ${kind} at ${at}`,
      kind,
      urgent: alarm.priority === 'high',
      text: kind === 'breach' ? breachNotice(alarm, rule) : returnNotice(alarm),
      address: `/alarms/${alarmId}`,
      alarmId,
    },
    now,
  );
}

/** Tells others of alarms that nobody has acknowledged in time, each raise once. @returns how many. */
export async function escalate(pool: Pool, now: number): Promise<number> {
  return withTransaction(pool, async (db) => {
    const unanswered = await lockUnanswered(db, now);
    let count = 0;
    for (const { alarmId, raisedAt, to } of unanswered) {
      // Another server may have told of it, and let it go, between the look at what waits and the lock.
      if (await isTold(db, alarmId, raisedAt)) continue;
      const alarm = (await findAlarm(db, alarmId))!;
      const names = await tell(
        db,
        to,
        {
          about: `alarm ${alarmId} escalation of ${raisedAt}`,
          kind: 'escalation',
          urgent: true,
          text: escalationNotice(alarm, now - raisedAt),
          address: `/alarms/${alarmId}`,
          alarmId,
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
