import type { Series } from '@vivid-beacon/core';
import {
  isActive,
  runWithHistory,
  type AlarmCondition,
  type ConditionChange,
  type ConditionState,
} from '@vivid-beacon/core/src/alarming';
import type { Queryable } from '../db/database';
import { applyChange, keyOfWatch, knownValue, tellOfChanges } from './applyChanges';
import { addAlarm, addEvent, alarmsOfWatch, lockStandingAlarm } from './sql';
import { suppressionAround } from './suppression';
import type { WatchRow } from './watchSql';

/** The state of a condition after an evaluation, and the changed alarms. */
export interface Evaluated {
  readonly state: ConditionState;
  readonly touched: readonly string[];
}

/**
 * Runs a rule again over everything since it came into force and reconciles its alarms.
 *
 * @param past from `context` on: what is judged, with the history that it needs.
 */
export async function runAgain(
  db: Queryable,
  watch: WatchRow,
  condition: AlarmCondition,
  { context, all }: { readonly context: number; readonly all: Series },
  now: number,
): Promise<Evaluated> {
  const { state, changes } = runWithHistory(condition, all, context, watch.inForceFrom, now);
  const suppressedAt = await suppressionAround(db, watch, watch.inForceFrom, state.seen);
  const touched: string[] = [];

  const recorded = await alarmsOfWatch(db, watch, watch.inForceFrom);
  for (const episode of finishedEpisodes(changes)) {
    const found = recorded.some(
      (alarm) => alarm.raisedAt <= episode.end.t && (alarm.returnedAt ?? Infinity) >= episode.start.t,
    );
    if (!found) touched.push(await recordFoundEpisode(db, watch, episode, suppressedAt(episode.start.t)));
  }

  const standing = await lockStandingAlarm(db, watch);
  const stood = standing !== undefined && standing.returnedAt === null;
  const stands = isActive(state);
  if (stood !== stands) {
    const kind = stands ? 'raise' : 'return';
    // With the corrected data the active alarm may never have been raised; it then returns where it began.
    const change = changes.findLast((each) => each.kind === kind) ?? {
      kind,
      t: standing?.raisedAt ?? state.seen,
      value: all.v.at(-1) ?? 0,
    };
    const t = stands ? change.t : Math.max(change.t, standing!.raisedAt);
    const done = await applyChange(db, watch, { ...change, t }, suppressedAt);
    if (done) {
      await addEvent(db, {
        alarmId: done.alarmId,
        at: t,
        kind: 'recalculated',
        remark: 'Late or corrected samples changed this alarm.',
      });
      await tellOfChanges(db, watch, [done], now);
      touched.push(done.alarmId);
    }
  }
  return { state, touched };
}

interface Episode {
  readonly start: ConditionChange;
  readonly end: ConditionChange;
}

function finishedEpisodes(changes: readonly ConditionChange[]): Episode[] {
  const episodes: Episode[] = [];
  for (let i = 0; i + 1 < changes.length; i += 2) episodes.push({ start: changes[i], end: changes[i + 1] });
  return episodes;
}

/** An alarm that only late samples reveal: it is over, and nobody has seen it. */
async function recordFoundEpisode(
  db: Queryable,
  watch: WatchRow,
  { start, end }: Episode,
  suppressed: boolean,
): Promise<string> {
  const standing = await lockStandingAlarm(db, watch);
  const unheard = watch.aside !== null || suppressed;
  const id = await addAlarm(db, {
    ...keyOfWatch(watch),
    state: standing || unheard ? 'normal' : 'returnedUnacknowledged',
    raisedAt: start.t,
    raisedValue: knownValue(start.value),
    returnedAt: end.t,
  });
  await addEvent(db, { alarmId: id, at: start.t, kind: 'raised', value: knownValue(start.value), unheard });
  await addEvent(db, { alarmId: id, at: end.t, kind: 'returned', value: knownValue(end.value) });
  await addEvent(db, {
    alarmId: id,
    at: end.t,
    kind: 'recalculated',
    remark: 'Found in samples that came late.',
  });
  return id;
}
