import { BeaconError, nextAlarmState, type AlarmAction, type SetAside } from '@vivid-beacon/core';
import { withTransaction, type Pool, type Queryable } from '../db/database';
import { notify } from '../live/notify';
import { enqueueAlarmNotices } from './alarmNotices';
import { addEvent, lockAlarm, lockStandingAlarm, saveAlarmState } from './sql';
import { lockEndedShelves, lockWatchesOfStages, saveAside, type WatchRow } from './watchSql';

const ACTION: Readonly<Record<SetAside, AlarmAction>> = { shelved: 'shelve', outOfService: 'takeOut' };

/**
 * Shelves a rule until a time, or takes it out of service: on one of its metrics, or on all (`metricId` = null). Its
 * alarms go along, if any stand; what its condition does meanwhile is recorded, and nobody is notified.
 */
export async function setRuleAside(
  pool: Pool,
  ruleId: string,
  metricId: string | null,
  aside: { readonly kind: SetAside; readonly until: number | null; readonly reason: string },
  personId: string,
  at: number,
): Promise<void> {
  await withTransaction(pool, async (db) => {
    const watches = await needWatches(db, ruleId, metricId);
    if (aside.kind === 'shelved' && watches.some((watch) => watch.aside === 'outOfService')) {
      throw new BeaconError('WRONG_STATE', 'This rule is out of service. Reinstate it first.');
    }
    const touched: string[] = [];
    for (const watch of watches) {
      const standing = await lockStandingAlarm(db, watch);
      await saveAside(db, watch, aside, personId, at);
      if (!standing) continue;
      await saveAlarmState(db, standing.id, nextAlarmState(standing.state, ACTION[aside.kind]));
      await addEvent(db, { alarmId: standing.id, at, kind: aside.kind, personId, remark: aside.reason });
      touched.push(standing.id);
    }
    await notify(db, 'alarms', touched);
  });
}

/**
 * Reinstates a rule early. 409 if it is not set aside; only analysts reinstate what was taken out of service.
 */
export async function putRuleBack(
  pool: Pool,
  ruleId: string,
  metricId: string | null,
  person: { readonly id: string; readonly analyst: boolean },
  at: number,
): Promise<void> {
  await withTransaction(pool, async (db) => {
    const watches = (await needWatches(db, ruleId, metricId)).filter(({ aside }) => aside !== null);
    if (watches.length === 0)
      throw new BeaconError('WRONG_STATE', 'This rule is neither shelved nor out of service.');
    if (watches.some(({ aside }) => aside === 'outOfService') && !person.analyst) {
      throw new BeaconError('NOT_ALLOWED', 'Only an analyst can reinstate a rule that is out of service.');
    }
    for (const watch of watches) await putBack(db, watch, person.id, at);
  });
}

/** Reinstates rules whose shelving has expired. @returns how many; each once, even with several servers. */
export async function endShelves(pool: Pool, now: number): Promise<number> {
  return withTransaction(pool, async (db) => {
    const ended = await lockEndedShelves(db, now);
    for (const watch of ended) await putBack(db, watch, null, now);
    return ended.length;
  });
}

/** Resets a latched, acknowledged alarm. */
export async function resetAlarm(pool: Pool, alarmId: string, personId: string, at: number): Promise<void> {
  await withTransaction(pool, async (db) => {
    const alarm = await lockAlarm(db, alarmId);
    if (!alarm) throw new BeaconError('NOT_FOUND', 'This alarm does not exist.');
    await saveAlarmState(db, alarmId, nextAlarmState(alarm.state, 'reset'));
    await addEvent(db, { alarmId, at, kind: 'reset', personId });
    await notify(db, 'alarms', [alarmId]);
  });
}

async function needWatches(db: Queryable, ruleId: string, metricId: string | null): Promise<WatchRow[]> {
  const watches = await lockWatchesOfStages(db, ruleId, metricId);
  if (watches.length === 0) {
    throw new BeaconError('NOT_FOUND', 'This alarm rule does not exist or was withdrawn already.');
  }
  return watches;
}

async function putBack(db: Queryable, watch: WatchRow, personId: string | null, at: number): Promise<void> {
  const standing = await lockStandingAlarm(db, watch);
  await saveAside(db, watch, null, personId, at);
  if (standing) {
    const next = nextAlarmState(standing.state, 'putBack', {
      latching: false,
      active: standing.returnedAt === null,
      suppressed: watch.suppressed,
    });
    await saveAlarmState(db, standing.id, next);
    await addEvent(db, {
      alarmId: standing.id,
      at,
      kind: 'putBack',
      ...(personId ? { personId } : { remark: 'Its time on the shelf was over.' }),
    });
    if (next === 'unacknowledged') await enqueueAlarmNotices(db, standing.id, 'breach', at, at);
  }
  await notify(db, 'alarms', standing ? [standing.id] : []);
}
