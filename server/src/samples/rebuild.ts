import { DAY_MS, usableOf } from '@vivid-beacon/core';
import { unpackDay } from '@vivid-beacon/core/src/engine';
import { all, withTransaction, type Pool, type Queryable } from '../db/database';
import { portionsOf } from './portions';
import { markRolledUp, metricsToRollUp } from './rollupSql';
import { keepRollups, ROLLUP_VERSION } from './rollups';
import { lockMetrics, readDays, writeDays } from './sql';
import { judgedSeries, toWrittenDay } from './store';

/**
 * Makes the rollups of a metric anew from its samples, with quality judged again: after its kind, interval,
 * longest gap, rollover or plausible range changed. In the caller's transaction. Days whose samples
 * retention has thrown away keep the rollups they have.
 */
export async function rebuildRollups(db: Queryable, metricId: string): Promise<void> {
  const [metric] = await lockMetrics(db, [metricId]);
  if (!metric) return;
  const days = await all<{ day: number; n: number }>(
    db,
    `select day - date '1970-01-01' as day, n from sample_day where metric_id = $1 order by day`,
    [metricId],
  );
  if (days.length > 0) {
    await db.query(`delete from rollup_day where metric_id = $1 and day >= date '1970-01-01' + $2::int`, [
      metricId,
      days[0].day,
    ]);
    for (const portion of portionsOf(days, ({ n }) => n)) {
      await rebuildDays(db, metric, portion[0].day * DAY_MS, (portion.at(-1)!.day + 1) * DAY_MS);
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
    const judged = judgedSeries(unpackDay(day, day.dayStart), metric);
    return { metric, dayStart: day.dayStart, all: judged, usable: usableOf(judged), n: judged.t.length };
  });
  const filled = days.filter(({ n }) => n > 0);
  if (filled.length === 0) return;
  await writeDays(
    db,
    filled.map((day) => toWrittenDay(metric.id, day.dayStart, day.all, day.usable)),
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
