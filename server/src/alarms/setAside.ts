import {
  allows,
  BeaconError,
  nextAlarmState,
  type AlarmAction,
  type Role,
  type SetAside,
} from '@vivid-beacon/core';
import { withTransaction, type Pool, type Queryable } from '../db/database';
import { notify } from '../live/notify';
import {
  addEvent,
  lockAlarm,
  lockEndedShelves,
  lockRule,
  lockStandingAlarm,
  saveAlarmState,
  saveAside,
} from './sql';

const ACTION: Readonly<Record<SetAside, AlarmAction>> = { shelved: 'shelve', outOfService: 'takeOut' };

/**
 * Shelves a rule until a time, or takes it out of service. Its alarm goes along, if one stands; what its
 * condition does meanwhile is recorded, and nobody is called.
 */
export async function setRuleAside(
  pool: Pool,
  ruleId: string,
  aside: { readonly kind: SetAside; readonly until: number | null; readonly reason: string },
  personId: string,
  at: number,
): Promise<void> {
  await withTransaction(pool, async (db) => {
    const rule = await needRule(db, ruleId);
    if (!rule.inForce) throw new BeaconError('WRONG_STATE', 'This rule is out of force already.');
    if (rule.aside?.kind === 'outOfService' && aside.kind === 'shelved') {
      throw new BeaconError('WRONG_STATE', 'This rule is out of service. Put it back first.');
    }
    const standing = await lockStandingAlarm(db, ruleId);
    await saveAside(db, ruleId, aside, personId, at);
    if (standing) {
      await saveAlarmState(db, standing.id, nextAlarmState(standing.state, ACTION[aside.kind]));
      await addEvent(db, { alarmId: standing.id, at, kind: aside.kind, personId, remark: aside.reason });
    }
    await notify(db, 'alarms', standing ? [standing.id] : []);
  });
}

/**
 * Puts a rule back before its time, also one that has gone out of force meanwhile: its alarm must come to an
 * end. 409 when it is not set aside; what analysts took out of service only they put back.
 */
export async function putRuleBack(
  pool: Pool,
  ruleId: string,
  person: { readonly id: string; readonly role: Role },
  at: number,
): Promise<void> {
  await withTransaction(pool, async (db) => {
    const rule = await needRule(db, ruleId);
    if (!rule.aside) throw new BeaconError('WRONG_STATE', 'This rule is not set aside.');
    if (rule.aside.kind === 'outOfService' && !allows(person.role, 'analyst')) {
      throw new BeaconError('NOT_ALLOWED', 'Only analysts put a rule back that is out of service.');
    }
    await putBack(db, ruleId, person.id, at);
  });
}

/** Puts back the rules whose shelf has ended. @returns how many; each once, though several servers look. */
export async function endShelves(pool: Pool, now: number): Promise<number> {
  return withTransaction(pool, async (db) => {
    const ended = await lockEndedShelves(db, now);
    for (const rule of ended) await putBack(db, rule.id, null, now);
    return ended.length;
  });
}

/** Resets an alarm that had latched and was acknowledged. */
export async function resetAlarm(pool: Pool, alarmId: string, personId: string, at: number): Promise<void> {
  await withTransaction(pool, async (db) => {
    const alarm = await lockAlarm(db, alarmId);
    if (!alarm) throw new BeaconError('NOT_FOUND', 'This alarm does not exist.');
    await saveAlarmState(db, alarmId, nextAlarmState(alarm.state, 'reset'));
    await addEvent(db, { alarmId, at, kind: 'reset', personId });
    await notify(db, 'alarms', [alarmId]);
  });
}

async function needRule(db: Queryable, ruleId: string) {
  const rule = await lockRule(db, ruleId);
  if (!rule) throw new BeaconError('NOT_FOUND', 'This alarm rule does not exist.');
  return rule;
}

async function putBack(db: Queryable, ruleId: string, personId: string | null, at: number): Promise<void> {
  const standing = await lockStandingAlarm(db, ruleId);
  await saveAside(db, ruleId, null, personId, at);
  if (standing) {
    const active = standing.returnedAt === null;
    await saveAlarmState(
      db,
      standing.id,
      nextAlarmState(standing.state, 'putBack', { latching: false, active }),
    );
    await addEvent(db, {
      alarmId: standing.id,
      at,
      kind: 'putBack',
      ...(personId ? { personId } : { remark: 'Its time on the shelf was over.' }),
    });
  }
  await notify(db, 'alarms', standing ? [standing.id] : []);
}
