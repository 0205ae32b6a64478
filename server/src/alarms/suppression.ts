import { firstAtOrAfter, nextAlarmState, type AlarmState, type SuppressWhile } from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { enqueueAlarmNotices } from './alarmNotices';
import { readAround } from '../samples/readSeries';
import { addEvent, lockStandingAlarm, saveAlarmState, type AlarmRow } from './sql';
import { saveSuppressed, type WatchRow } from './watchSql';

const NEVER = (): boolean => false;

function suppresses(suppress: SuppressWhile, code: number): boolean {
  return (code === suppress.code) === suppress.is;
}

/** Whether the state of the plant suppresses a rule at an instant in [from, to]; never without a state. */
export async function suppressionAround(
  db: Queryable,
  { suppress, suppressMetric }: Pick<WatchRow, 'suppress' | 'suppressMetric'>,
  from: number,
  to: number,
): Promise<(t: number) => boolean> {
  if (!suppress || !suppressMetric) return NEVER;
  const { t, v } = (await readAround(db, [suppressMetric], from, to + 1)).get(suppressMetric)!;
  return (at) => {
    // The newest sample at or before the instant counts.
    const i = firstAtOrAfter(t, at + 1) - 1;
    return i >= 0 && suppresses(suppress, v[i]);
  };
}

/**
 * Brings what is suppressed by design in line with the newest state: an alarm that stands is heard no more, or
 * becomes what its condition is.
 *
 * @returns ids of the alarms that changed.
 */
export async function keepSuppression(
  db: Queryable,
  watches: readonly WatchRow[],
  newest: ReadonlyMap<string, { readonly t: number; readonly v: number }>,
  now: number,
): Promise<string[]> {
  const touched: string[] = [];
  for (const watch of watches) {
    const state = watch.suppressMetric === null ? undefined : newest.get(watch.suppressMetric);
    if (!state || !watch.suppress) continue;
    const suppressed = suppresses(watch.suppress, state.v);
    if (suppressed !== watch.suppressed) await saveSuppressed(db, watch, suppressed);
    const standing = await lockStandingAlarm(db, watch);
    if (!standing) continue;
    const next = await reconcile(db, watch, standing, suppressed, state.t);
    if (next === standing.state) continue;
    touched.push(standing.id);
    if (next === 'unacknowledged' && watch.tells) {
      await enqueueAlarmNotices(db, standing.id, 'breach', state.t, now);
    }
  }
  return touched;
}

/**
 * Suppresses an active alarm, or ends its suppression, by the state of the plant at an instant. @returns its
 * new state.
 */
export async function reconcile(
  db: Queryable,
  { latching }: Pick<WatchRow, 'latching'>,
  standing: AlarmRow,
  suppressed: boolean,
  at: number,
): Promise<AlarmState> {
  const { id, state } = standing;
  if (suppressed === (state === 'suppressed') || state === 'shelved' || state === 'outOfService')
    return state;
  const active = standing.returnedAt === null;
  const next = nextAlarmState(state, suppressed ? 'suppress' : 'putBack', { latching, active });
  await saveAlarmState(db, id, next);
  await addEvent(db, {
    alarmId: id,
    at: Math.max(at, standing.raisedAt),
    kind: suppressed ? 'suppressed' : 'putBack',
    remark: suppressed ? 'Suppressed by design: the state of the plant.' : 'No longer suppressed by design.',
  });
  return next;
}
