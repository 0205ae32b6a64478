import {
  isSetAside,
  nextAlarmState,
  sliceSeries,
  EMPTY_SERIES,
  type AlarmState,
  type Series,
} from '@vivid-beacon/core';
import {
  isActive,
  historyStart,
  lookBackMs,
  runCondition,
  runWithHistory,
  takenUpTo,
  type ConditionChange,
  type ConditionState,
} from '@vivid-beacon/core/src/alarming';
import { withTransaction, type Pool, type Queryable } from '../db/database';
import { notify } from '../live/notify';
import { enqueueAlarmNotices } from './alarmNotices';
import { END_OF_TIME, readSeries } from '../samples/readSeries';
import type { MergeResult } from '../samples/store';
import { conditionOfWatch } from './condition';
import { newestStates } from './newestStates';
import {
  addAlarm,
  addEvent,
  alarmsOfWatch,
  lockStandingAlarm,
  saveAlarmProcess,
  type AlarmRow,
  type WatchKey,
} from './sql';
import { reconcile, keepSuppression, suppressionAround } from './suppression';
import {
  lockTimedWatches,
  lockWatchesOf,
  lockWatchesSuppressedBy,
  saveCondition,
  saveConditions,
  type WatchRow,
} from './watchSql';

/**
 * Evaluates the rules of metrics whose samples changed, in the transaction that changed them.
 *
 * New samples go on from where a condition stood. When a sample came late or was corrected, the condition is
 * run again over everything since the rule came into force, so that it stands as if all had come once and in
 * order; what people saw and did stays in the history.
 *
 * @param now time that has passed without samples counts up to here.
 */
export async function evaluateAlarms(
  db: Queryable,
  results: readonly MergeResult[],
  now: number,
): Promise<void> {
  const changed = new Map(
    results.filter(({ changedFrom }) => changedFrom !== null).map((result) => [result.metricId, result]),
  );
  if (changed.size === 0) return;
  const ids = [...changed.keys()];
  const touched: string[] = [];
  const stood: (WatchKey & { condition: ConditionState })[] = [];
  for (const watch of await lockWatchesOf(db, ids)) {
    const result = changed.get(watch.metricId)!;
    const late = result.changedFrom! <= takenUpTo(watch.condition);
    const run = late ? await evaluateAgain(db, watch, now) : await evaluateOn(db, watch, result.fresh, now);
    touched.push(...run.touched);
    stood.push({ ruleId: watch.ruleId, metricId: watch.metricId, condition: run.state });
  }
  await saveConditions(db, stood);
  const suppressed = await lockWatchesSuppressedBy(db, ids);
  if (suppressed.length > 0) {
    touched.push(...(await keepSuppression(db, suppressed, await newestStates(db, suppressed), now)));
  }
  if (touched.length > 0) await notify(db, 'alarms', [...new Set(touched)]);
}

/**
 * Applies what time alone changes: silence that is due, and the end of a rule's hours. @returns how many
 * alarms changed.
 */
export async function evaluateTimers(pool: Pool, now: number): Promise<number> {
  return withTransaction(pool, async (db) => {
    const touched: string[] = [];
    for (const watch of await lockTimedWatches(db, now)) {
      const { state, changes } = runCondition(conditionOfWatch(watch), EMPTY_SERIES, watch.condition, now);
      touched.push(...(await applyChanges(db, watch, changes, now)));
      if (changes.length > 0 || state.phase !== watch.condition.phase) await saveCondition(db, watch, state);
    }
    if (touched.length > 0) await notify(db, 'alarms', [...new Set(touched)]);
    return touched.length;
  });
}

/** The state of a condition after an evaluation, and the changed alarms. */
interface Evaluated {
  readonly state: ConditionState;
  readonly touched: readonly string[];
}

/**
 * Goes on over new samples. A condition has always seen the newest usable sample that is stored, so that those that
 * were just added are all there is to see; it reads only what it must look back to.
 */
async function evaluateOn(
  db: Queryable,
  watch: WatchRow,
  fresh: Series | null,
  now: number,
): Promise<Evaluated> {
  const condition = conditionOfWatch(watch);
  const back = lookBackMs(condition);
  const after = Math.max(watch.condition.seen + 1, watch.inForceFrom) - back;
  const samples =
    fresh && back === 0 ? sliceSeries(fresh, after, END_OF_TIME) : await samplesOf(db, watch, after);
  const { state, changes } = runCondition(condition, samples, watch.condition, now);
  return { state, touched: await applyChanges(db, watch, changes, now) };
}

async function samplesOf(db: Queryable, { metricId }: WatchRow, from: number): Promise<Series> {
  return (await readSeries(db, [metricId], from, END_OF_TIME)).get(metricId)!;
}

async function applyChanges(
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
async function tellOfChanges(
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

const known = (value: number): number | null => (Number.isNaN(value) ? null : value);

async function applyChange(
  db: Queryable,
  watch: WatchRow,
  change: ConditionChange,
  suppressedAt: (t: number) => boolean,
): Promise<Applied | null> {
  const suppressed = suppressedAt(change.t);
  const standing = await standingAt(db, watch, suppressed, change.t);
  const value = known(change.value);
  if (change.kind === 'raise') {
    const fresh = raisedState(watch, suppressed);
    const state = standing ? nextAlarmState(standing.state, 'raise') : fresh;
    const id =
      standing?.id ??
      (await addAlarm(db, {
        ...keyOf(watch),
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

const keyOf = ({ ruleId, metricId }: WatchRow): { ruleId: string; metricId: string } => ({
  ruleId,
  metricId,
});

/** Runs a rule over all samples since it came into force and reconciles its alarms. */
async function evaluateAgain(db: Queryable, watch: WatchRow, now: number): Promise<Evaluated> {
  const condition = conditionOfWatch(watch);
  const context = historyStart(condition, watch.inForceFrom);
  const all = await samplesOf(db, watch, context);
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
    ...keyOf(watch),
    state: standing || unheard ? 'normal' : 'returnedUnacknowledged',
    raisedAt: start.t,
    raisedValue: known(start.value),
    returnedAt: end.t,
  });
  await addEvent(db, { alarmId: id, at: start.t, kind: 'raised', value: known(start.value), unheard });
  await addEvent(db, { alarmId: id, at: end.t, kind: 'returned', value: known(end.value) });
  await addEvent(db, {
    alarmId: id,
    at: end.t,
    kind: 'recalculated',
    remark: 'Found in samples that came late.',
  });
  return id;
}
