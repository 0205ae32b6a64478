import { DAY_MS, usableOf } from '@vivid-beacon/core';
import { unpackDay } from '@vivid-beacon/core/src/engine';
import { one, withTransaction, type Pool, type Queryable } from '../db/database';
import { markRolledUp, metricsToRollUp } from './rollupSql';
import { keepRollups, ROLLUP_VERSION } from './rollups';
import { lockMetrics, readDays, writeDays } from './sql';
import { judgedSeries, toWrittenDay } from './store';

const DAYS_AT_ONCE = 200;

/**
 * Makes the rollups of a metric anew from its samples, with quality judged again: after its kind, interval,
 * longest gap, rollover or plausible range changed. In the caller's transaction. Days whose samples
 * retention has thrown away keep the rollups they have.
 */
export async function rebuildRollups(db: Queryable, metricId: string): Promise<void> {
  const [metric] = await lockMetrics(db, [metricId]);
  if (!metric) return;
  const bounds = await one<{ first: number | null; last: number | null }>(
    db,
    `select min(day) - date '1970-01-01' as first, max(day) - date '1970-01-01' as last
     from sample_day where metric_id = $1`,
    [metricId],
  );
  if (bounds && bounds.first !== null && bounds.last !== null) {
    await db.query(`delete from rollup_day where metric_id = $1 and day >= date '1970-01-01' + $2::int`, [
      metricId,
      bounds.first,
    ]);
    for (let from = bounds.first; from <= bounds.last; from += DAYS_AT_ONCE) {
      const to = Math.min(bounds.last + 1, from + DAYS_AT_ONCE);
      await rebuildDays(db, metric, from * DAY_MS, to * DAY_MS);
    }
  }
  await markRolledUp(db, metricId, ROLLUP_VERSION);
}

async function rebuildDays(
  db: Queryable,
  metric: Awaited<ReturnType<typeof lockMetrics>>[number],
  from: number,
  to: number,
): Promise<void> {
  const days = (await readDays(db, [metric.id], from, to)).map((day) => {
    const all = judgedSeries(unpackDay(day, day.dayStart), metric);
    return { metric, dayStart: day.dayStart, all, usable: usableOf(all), n: all.t.length };
  });
  const filled = days.filter(({ n }) => n > 0);
  if (filled.length === 0) return;
  await writeDays(
    db,
    filled.map(({ dayStart, all, usable }) => toWrittenDay(metric.id, dayStart, all, usable)),
  );
  await keepRollups(
    db,
    filled.map(({ n, ...day }) => ({
      ...day,
      change: { first: day.all.t[0], last: day.all.t[n - 1] },
    })),
  );
}

/** Brings all rollups up to the present way of computing, metric by metric. @returns how many metrics. */
export async function bringRollupsUpToDate(
  pool: Pool,
  say: (done: number, of: number) => void = () => undefined,
): Promise<number> {
  const ids = await metricsToRollUp(pool, ROLLUP_VERSION);
  for (const [i, id] of ids.entries()) {
    await withTransaction(pool, (db) => rebuildRollups(db, id));
    say(i + 1, ids.length);
  }
  return ids.length;
}
