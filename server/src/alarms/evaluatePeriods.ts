import { BeaconError, MINUTE_MS } from '@vivid-beacon/core';
import { historyStart, runCondition } from '@vivid-beacon/core/src/alarming';
import { withTransaction, type Pool, type Queryable } from '../db/database';
import { notify } from '../live/notify';
import { applyChanges } from './applyChanges';
import { conditionOfWatch } from './condition';
import type { RulePast } from './rulePast';
import {
  duePeriods,
  judgedAfter,
  LONGEST_WAIT_MS,
  saveJudged,
  saveProblem,
  writeJudged,
  type ValueOfPeriod,
} from './periodSql';
import { levelsOfPeriods, seriesOfPeriods, type ReadPeriods } from './readPeriods';
import { runAgain } from './runAgain';
import { lockWatchesOfRule, saveCondition, findWatch, type WatchRow } from './watchSql';

const MAX_AT_ONCE = 200;
/** Periods that cannot be judged are tried again after this time. */
const AGAIN_MS = 5 * MINUTE_MS;

/**
 * Judges the periods that have closed and those that late or corrected samples have changed. Values are read
 * before the watch is locked, so that pushes do not wait for them; when samples come in between, the periods are
 * judged once more.
 *
 * @returns how many watches were judged.
 */
export async function evaluatePeriods(pool: Pool, past: RulePast, now: number): Promise<number> {
  let judged = 0;
  let failed: unknown = null;
  for (const { isComplete, ...key } of await duePeriods(pool, now, MAX_AT_ONCE)) {
    const watch = await findWatch(pool, key);
    if (!watch?.over || watch.judgedTo === null || watch.dueAt === null) continue;
    // Periods that ended so long ago wait for nothing more.
    const end = isComplete ? Math.max(watch.dueAt, now - LONGEST_WAIT_MS) : watch.judgedTo;
    // One that fails must not hold up those after it; it is told when they are done.
    try {
      if (await judgeWatch(pool, past, watch, Math.min(end, now), now)) judged++;
    } catch (error) {
      failed ??= error;
    }
  }
  if (failed !== null) throw failed as Error;
  return judged;
}

async function judgeWatch(
  pool: Pool,
  past: RulePast,
  watch: WatchRow,
  end: number,
  now: number,
): Promise<boolean> {
  const { metricId, hours, judgedTo, staleFrom } = watch;
  const start = Math.min(judgedTo!, staleFrom ?? Infinity);
  const read = await past
    .periods({ metricId, over: watch.over!, hours, start, end })
    .catch((error: unknown) => {
      if (!(error instanceof BeaconError)) throw error;
      return error;
    });
  if (read instanceof BeaconError) {
    await saveProblem(pool, watch, read.message, now + AGAIN_MS);
    await notify(pool, 'alarms', []);
    return false;
  }
  return withTransaction(pool, async (db) => {
    const [locked] = await lockWatchesOfRule(db, watch.ruleId, metricId);
    // Another server has judged it meanwhile, or it is withdrawn.
    if (!locked?.inForce || locked.judgedTo !== judgedTo) return false;
    await takePeriods(db, locked, watch.staleMark, { ...read, start, end }, now);
    return true;
  });
}

async function takePeriods(
  db: Queryable,
  watch: WatchRow,
  mark: number,
  { periods, nextEnd, inputs, start, end }: ReadPeriods & { readonly start: number; readonly end: number },
  now: number,
): Promise<void> {
  const before = new Map((await judgedAfter(db, watch, start)).map((each) => [each.end, each]));
  const isNew = ({ end: at }: ValueOfPeriod): boolean => at > watch.judgedTo!;
  const corrected = periods.some((each) => !isNew(each) && !isSame(each, before.get(each.end)));
  await writeJudged(db, watch, periods);
  const run = corrected ? await runOnAll(db, watch, now) : await runOn(db, watch, periods.filter(isNew), now);
  await saveCondition(db, watch, run.state);
  await saveJudged(db, watch, { to: end, nextEnd, inputs, mark });
  if (run.touched.length > 0) await notify(db, 'alarms', [...new Set(run.touched)]);
}

const isSame = (a: ValueOfPeriod, b: ValueOfPeriod | undefined): boolean =>
  b !== undefined && a.value === b.value && a.level === b.level;

async function runOn(
  db: Queryable,
  watch: WatchRow,
  periods: readonly ValueOfPeriod[],
  now: number,
): Promise<Awaited<ReturnType<typeof runAgain>>> {
  const condition = conditionOfWatch(watch, levelsOfPeriods(periods));
  const { state, changes } = runCondition(condition, seriesOfPeriods(periods), watch.condition);
  return { state, touched: await applyChanges(db, watch, changes, now) };
}

/** Over everything since the rule came into force, as it was judged now. */
async function runOnAll(db: Queryable, watch: WatchRow, now: number): ReturnType<typeof runAgain> {
  const context = historyStart(conditionOfWatch(watch), watch.inForceFrom);
  const all = await judgedAfter(db, watch, context);
  const condition = conditionOfWatch(watch, levelsOfPeriods(all));
  return runAgain(db, watch, condition, { context, all: seriesOfPeriods(all) }, now);
}
