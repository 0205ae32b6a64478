import { EMPTY_SERIES, usableOf, type QualifiedSeries } from '@vivid-beacon/core';
import { mergeSamples, unpackDay, type Correction } from '@vivid-beacon/core/src/engine';
import { evaluateAlarms } from '../alarms/evaluate';
import type { Queryable } from '../db/database';
import { notify } from '../live/notify';
import { resetLatest } from '../samples/latestSql';
import { keepRollups, type ChangedDay } from '../samples/rollups';
import {
  deleteDays,
  lockMetrics,
  readGivenDays,
  writeCorrections,
  writeDays,
  type StoreMetric,
} from '../samples/sql';
import { toWrittenDay, type MergeResult } from '../samples/store';
import { readDayChanges, type DayChange } from './changeSql';
import { markUndone } from './sql';

/** What undoing did. */
export interface Undone {
  /** Samples taken away again. */
  readonly removed: number;
  /** Samples that have their former value again. */
  readonly restored: number;
  /** Samples left as they are, because something else has changed them since. */
  readonly kept: number;
}

const DAYS_AT_ONCE = 200;

/**
 * Undoes an intake: samples it added go, samples it replaced get their former values back. What a push or
 * another file has changed since stays. In the caller's transaction.
 */
export async function undoIntake(
  db: Queryable,
  intakeId: string,
  personId: string,
  now: number,
): Promise<Undone> {
  const done = { removed: 0, restored: 0, kept: 0 };
  const changedFrom = new Map<string, number>();
  let after = { metricId: '0', dayStart: 0 };
  for (;;) {
    const changes = await readDayChanges(db, intakeId, after, DAYS_AT_ONCE);
    if (changes.length === 0) break;
    const last = changes[changes.length - 1];
    after = { metricId: last.metricId, dayStart: last.dayStart };
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
  await evaluateAlarms(db, results, now);
  await markUndone(db, intakeId, personId, now);
  if (changedFrom.size > 0) await notify(db, 'samples', [...changedFrom.keys()]);
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
  for (const each of changes) {
    const day = byPlace.get(`${each.metricId} ${each.dayStart}`);
    const now_ = day ? unpackDay(day, each.dayStart) : EMPTY_SERIES;
    const result = undoDay(now_, each);
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
  if (changed.length > 0) await keepRollups(db, changed);
  return changed;
}

/** One day without what an intake did to it. */
export function undoDay(
  present: QualifiedSeries,
  { added, before, after }: Pick<DayChange, 'added' | 'before' | 'after'>,
): {
  series: QualifiedSeries;
  removed: number;
  kept: number;
  corrections: readonly Correction[];
  first: number;
  last: number;
} {
  const at = new Map<number, number>();
  present.t.forEach((t, i) => at.set(t, i));
  const same = (series: QualifiedSeries, i: number): boolean => {
    const k = at.get(series.t[i]);
    if (k === undefined) return false;
    return Object.is(present.v[k], series.v[i]) && (present.q?.[k] ?? 0) === (series.q?.[i] ?? 0);
  };
  const gone = new Set<number>();
  const restored: number[] = [];
  let kept = 0;
  let first = Infinity;
  let last = -Infinity;
  const touch = (t: number): void => {
    first = Math.min(first, t);
    last = Math.max(last, t);
  };
  added.t.forEach((t, i) => {
    if (!same(added, i)) kept++;
    else {
      gone.add(t);
      touch(t);
    }
  });
  after.t.forEach((t, i) => {
    if (!same(after, i)) kept++;
    else {
      restored.push(i);
      touch(t);
    }
  });
  const stays = Array.from(present.t.keys()).filter((i) => !gone.has(present.t[i]));
  const left: QualifiedSeries = {
    t: Float64Array.from(stays, (i) => present.t[i]),
    v: Float64Array.from(stays, (i) => present.v[i]),
    q: present.q && Uint8Array.from(stays, (i) => present.q![i]),
  };
  const former: QualifiedSeries = {
    t: Float64Array.from(restored, (i) => before.t[i]),
    v: Float64Array.from(restored, (i) => before.v[i]),
    q: before.q && Uint8Array.from(restored, (i) => before.q![i]),
  };
  const { series, corrections } = mergeSamples(left, former);
  return { series, removed: gone.size, kept, corrections, first, last };
}
