import { sliceSeries, EMPTY_SERIES, type Series } from '@vivid-beacon/core';
import {
  historyStart,
  lookBackMs,
  runCondition,
  takenUpTo,
  type ConditionState,
} from '@vivid-beacon/core/src/alarming';
import { withTransaction, type Pool, type Queryable } from '../db/database';
import { notify } from '../live/notify';
import { END_OF_TIME, readSeries } from '../samples/readSeries';
import type { MergeResult } from '../samples/store';
import { applyChanges } from './applyChanges';
import { conditionOfWatch } from './condition';
import { newestStates } from './newestStates';
import { markPeriods } from './periodSql';
import { runAgain, type Evaluated } from './runAgain';
import type { WatchKey } from './sql';
import { keepSuppression } from './suppression';
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
  await markPeriods(
    db,
    [...changed.values()].map(({ metricId, changedFrom }) => ({ metricId, from: changedFrom! })),
  );
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

async function evaluateAgain(db: Queryable, watch: WatchRow, now: number): Promise<Evaluated> {
  const condition = conditionOfWatch(watch);
  const context = historyStart(condition, watch.inForceFrom);
  return runAgain(db, watch, condition, { context, all: await samplesOf(db, watch, context) }, now);
}
