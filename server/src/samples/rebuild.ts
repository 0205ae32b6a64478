import { DAY_MS, usableOf } from '@vivid-beacon/core';
import { unpackDay } from '@vivid-beacon/core/src/aggregation';
import { all, one, withTransaction, type Pool, type Queryable } from '../db/database';
import { portionsOf } from './portions';
import { markRolledUp, metricsToRollUp, ROLLUP_VERSION } from './rollupSql';
import { storeRollups } from './rollups';
import { lockMetrics, readDays, writeDays } from './sql';
import { judgedSeries, toWrittenDay } from './store';

/**
 * Makes the rollups of a metric anew from its samples, with quality judged again: after its kind, interval,
 * longest gap, rollover or plausible range changed. In the caller's transaction. Days whose samples
 * retention has thrown away keep the rollups they have, and so does the last day before those that are kept: what came
 * before it is not known any more.
 */
export async function rebuildRollups(db: Queryable, metricId: string): Promise<void> {
  const [metric] = await lockMetrics(db, [metricId]);
  if (!metric) return;
  const stored = await all<{ day: number; n: number }>(
    db,
    `select day - date '1970-01-01' as day, n from sample_day where metric_id = $1 order by day`,
    [metricId],
  );
  const days = (await isCut(db, metricId)) ? stored.slice(1) : stored;
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

/** Whether retention has thrown samples away: their rollups lie before the first day that is stored. */
async function isCut(db: Queryable, metricId: string): Promise<boolean> {
  const row = await one<{ cut: boolean }>(
    db,
    `select exists (select 1 from rollup_day where metric_id = $1
       and day < (select min(day) from sample_day where metric_id = $1)) as cut`,
    [metricId],
  );
  return row!.cut;
}

async function rebuildDays(
  db: Queryable,
  metric: Awaited<ReturnType<typeof lockMetrics>>[number],
  from: number,
  to: number,
): Promise<void> {
  const days = (await readDays(db, [metric.id], from, to)).map((day) => {
    const stored = unpackDay(day, day.dayStart);
    const all = judgedSeries(stored, metric);
    const rejudged = !sameMarks(stored.q, all.q);
    return { metric, dayStart: day.dayStart, all, usable: usableOf(all), rejudged };
  });
  const filled = days.filter(({ all }) => all.t.length > 0);
  if (filled.length === 0) return;
  // Packing and writing is the dearer half: days whose marks stay as they are stay as they lie.
  const written = filled.filter(({ rejudged }) => rejudged);
  if (written.length > 0) {
    await writeDays(
      db,
      written.map((day) => toWrittenDay(metric.id, day.dayStart, day.all, day.usable)),
    );
  }
  await storeRollups(
    db,
    filled.map(({ all, usable, dayStart }) => ({
      metric,
      dayStart,
      all,
      usable,
      change: { first: all.t[0], last: all.t[all.t.length - 1] },
    })),
  );
}

/** Marks of samples; null = none has any. */
function sameMarks(a: Uint8Array | null, b: Uint8Array | null): boolean {
  if (a === null || b === null) return a === b;
  return a.length === b.length && a.every((mark, i) => mark === b[i]);
}

/** Brings all rollups up to the present way of computing, metric by metric. @returns how many metrics. */
export async function refreshRollups(
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
