import { EMPTY_SERIES, usableOf } from '@vivid-beacon/core';
import { undoMerge, unpackDay, type Correction } from '@vivid-beacon/core/src/aggregation';
import type { Queryable } from '../db/database';
import { notify } from '../live/notify';
import { breather } from '../samples/breather';
import { afterMerge } from '../arrivals/storeSamples';
import { resetLatest } from '../samples/latestSql';
import { portionsOf } from '../samples/portions';
import { storeRollups, type ChangedDay } from '../samples/rollups';
import {
  deleteDays,
  lockMetrics,
  readGivenDays,
  writeCorrections,
  writeDays,
  type StoreMetric,
} from '../samples/sql';
import { toWrittenDay, type MergeResult } from '../samples/store';
import { listChangedDays, readDayChanges, type DayChange } from './changeSql';
import { markUndone } from './sql';

/** What undoing did. */
export interface UndoCounts {
  /** Samples taken away again. */
  readonly removed: number;
  /** Samples that have their former value again. */
  readonly restored: number;
  /** Samples left as they are, because something else has changed them since. */
  readonly kept: number;
}

/**
 * Undoes an intake: samples it added go, samples it replaced get their former values back. What a push or
 * another file has changed since stays. In the caller's transaction.
 */
export async function undoIntake(
  db: Queryable,
  intakeId: string,
  personId: string,
  now: number,
): Promise<UndoCounts> {
  const done = { removed: 0, restored: 0, kept: 0 };
  const changedFrom = new Map<string, number>();
  for (const portion of portionsOf(await listChangedDays(db, intakeId), ({ samples }) => samples)) {
    const changes = await readDayChanges(db, intakeId, portion);
    for (const { metric, change } of await undoDays(db, changes, intakeId, now, done)) {
      changedFrom.set(metric.id, Math.min(change.first, changedFrom.get(metric.id) ?? Infinity));
    }
  }
  for (const metricId of changedFrom.keys()) await resetLatest(db, metricId);
  const results: MergeResult[] = [...changedFrom].map(([metricId, from]) => ({
    metricId,
    added: 0,
    unchanged: 0,
    corrected: 0,
    addedByDay: new Map(),
    changedFrom: from,
    fresh: null,
  }));
  await afterMerge(db, results, now);
  await markUndone(db, intakeId, personId, now);
  await notify(db, 'metrics', []);
  return done;
}

async function undoDays(
  db: Queryable,
  changes: readonly DayChange[],
  intakeId: string,
  now: number,
  done: { removed: number; restored: number; kept: number },
): Promise<ChangedDay[]> {
  const ids = [...new Set(changes.map(({ metricId }) => metricId))];
  const metrics = new Map((await lockMetrics(db, ids)).map((metric) => [metric.id, metric]));
  const stored = await readGivenDays(
    db,
    changes.map(({ metricId }) => metricId),
    changes.map(({ dayStart }) => dayStart),
  );
  const byPlace = new Map(stored.map((day) => [`${day.metricId} ${day.dayStart}`, day]));
  const changed: ChangedDay[] = [];
  const corrections: (Correction & { metricId: string })[] = [];
  const breathe = breather();
  for (const each of changes) {
    const day = byPlace.get(`${each.metricId} ${each.dayStart}`);
    const present = day ? unpackDay(day, each.dayStart) : EMPTY_SERIES;
    const result = undoMerge(present, each);
    await breathe();
    done.removed += result.removed;
    done.restored += result.corrections.length;
    done.kept += result.kept;
    if (result.first === Infinity) continue;
    const metric: StoreMetric = metrics.get(each.metricId)!;
    const usable = usableOf(result.series);
    changed.push({
      metric,
      dayStart: each.dayStart,
      usable,
      all: result.series,
      change: { first: result.first, last: result.last },
    });
    for (const correction of result.corrections) corrections.push({ ...correction, metricId: each.metricId });
  }
  const kept = changed.filter(({ all }) => all.t.length > 0);
  const empty = changed.filter(({ all }) => all.t.length === 0);
  if (kept.length > 0) {
    await writeDays(
      db,
      kept.map(({ metric, dayStart, all, usable }) => toWrittenDay(metric.id, dayStart, all, usable)),
    );
  }
  if (empty.length > 0) {
    await deleteDays(
      db,
      empty.map(({ metric }) => metric.id),
      empty.map(({ dayStart }) => dayStart),
    );
  }
  if (corrections.length > 0) await writeCorrections(db, corrections, `undo of intake ${intakeId}`, now);
  if (changed.length > 0) await storeRollups(db, changed);
  return changed;
}
