import { isSetAside, nextAlarmState, type AlarmState } from '@vivid-beacon/core';
import type { ConditionChange } from '@vivid-beacon/core/src/alarming';
import type { Queryable } from '../db/database';
import { enqueueAlarmNotices } from './alarmNotices';
import { addAlarm, addEvent, lockStandingAlarm, saveAlarmProcess, type AlarmRow } from './sql';
import { reconcile, suppressionAround } from './suppression';
import type { WatchRow } from './watchSql';

/** Applies what a condition found to the alarms of its watch. @returns ids of the alarms that changed. */
export async function applyChanges(
  db: Queryable,
  watch: WatchRow,
  changes: readonly ConditionChange[],
  now: number,
): Promise<string[]> {
  if (changes.length === 0) return [];
  const suppressedAt = await suppressionAround(db, watch, changes[0].t, changes[changes.length - 1].t);
  const applied: Applied[] = [];
  for (const change of changes) {
    const done = await applyChange(db, watch, change, suppressedAt);
    if (done) applied.push(done);
  }
  await tellOfChanges(db, watch, applied, now);
  return applied.map(({ alarmId }) => alarmId);
}

/** The effect of a change on an alarm. */
interface Applied {
  readonly alarmId: string;
  readonly kind: ConditionChange['kind'];
  readonly t: number;
  /** Nobody is notified while it is set aside or suppressed. */
  readonly heard: boolean;
}

/**
 * Of several changes at once, people are notified of the last raise, with its return; otherwise of the last
 * return.
 */
export async function tellOfChanges(
  db: Queryable,
  watch: WatchRow,
  applied: readonly Applied[],
  now: number,
): Promise<void> {
  if (!watch.tells) return;
  const heard = applied.filter((each) => each.heard);
  const last = heard.findLast(({ kind }) => kind === 'raise') ?? heard.at(-1);
  if (!last) return;
  await enqueueAlarmNotices(db, last.alarmId, last.kind === 'raise' ? 'breach' : 'return', last.t, now);
}

/** The active alarm, with suppression at an instant applied. */
async function standingAt(
  db: Queryable,
  watch: WatchRow,
  suppressed: boolean,
  at: number,
): Promise<AlarmRow | undefined> {
  const standing = await lockStandingAlarm(db, watch);
  if (!standing) return undefined;
  const state = await reconcile(db, watch, standing, suppressed, at);
  return state === 'normal' ? undefined : { ...standing, state };
}

/**
 * The state of an alarm raised at an instant; if its rule is set aside or suppressed, it is only recorded.
 */
function raisedState(watch: WatchRow, suppressed: boolean): AlarmState {
  return watch.aside ?? (suppressed ? 'suppressed' : 'unacknowledged');
}

/** A value as it is stored; null = not known. */
export const knownValue = (value: number): number | null => (Number.isNaN(value) ? null : value);

/** Applies one change. @returns null where there is nothing to return. */
export async function applyChange(
  db: Queryable,
  watch: WatchRow,
  change: ConditionChange,
  suppressedAt: (t: number) => boolean,
): Promise<Applied | null> {
  const suppressed = suppressedAt(change.t);
  const standing = await standingAt(db, watch, suppressed, change.t);
  const value = knownValue(change.value);
  if (change.kind === 'raise') {
    const fresh = raisedState(watch, suppressed);
    const state = standing ? nextAlarmState(standing.state, 'raise') : fresh;
    const id =
      standing?.id ??
      (await addAlarm(db, {
        ...keyOfWatch(watch),
        state,
        raisedAt: change.t,
        raisedValue: value,
        returnedAt: null,
      }));
    if (standing) await saveAlarmProcess(db, id, state, null);
    const heard = state === 'unacknowledged';
    await addEvent(db, { alarmId: id, at: change.t, kind: 'raised', value, unheard: !heard });
    return { alarmId: id, kind: 'raise', t: change.t, heard };
  }
  if (!standing) return null;
  const circumstances = { latching: watch.latching, active: false };
  const state = nextAlarmState(standing.state, 'return', circumstances);
  await saveAlarmProcess(db, standing.id, state, change.t);
  await addEvent(db, { alarmId: standing.id, at: change.t, kind: 'returned', value });
  return { alarmId: standing.id, kind: 'return', t: change.t, heard: !isSetAside(state) };
}

export const keyOfWatch = ({ ruleId, metricId }: WatchRow): { ruleId: string; metricId: string } => ({
  ruleId,
  metricId,
});
