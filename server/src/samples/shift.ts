import { DAY_MS, joinSeries } from '@vivid-beacon/core';
import { unpackDay } from '@vivid-beacon/core/src/aggregation';
import { all, type Queryable } from '../db/database';
import { portionsOf } from './portions';
import { resetLatest } from './latestSql';
import { readDays } from './sql';
import { mergeIntoStore } from './store';

/**
 * Moves all samples of a metric by a length of time, in the caller's transaction: what their times stand for was
 * set otherwise. Rollups are to be made anew afterwards.
 *
 * @param byMs later; negative = earlier.
 */
export async function shiftSamples(
  db: Queryable,
  metricId: string,
  byMs: number,
  now: number,
): Promise<void> {
  const days = await all<{ day: number; n: number }>(
    db,
    `select day - date '1970-01-01' as day, n from sample_day where metric_id = $1 order by day`,
    [metricId],
  );
  // What moves earlier begins with the earliest, so that no sample meets one that is still to be moved.
  const portions = portionsOf(days, ({ n }) => n);
  for (const portion of byMs < 0 ? portions : [...portions].reverse()) {
    const from = portion[0].day * DAY_MS;
    const to = (portion[portion.length - 1].day + 1) * DAY_MS;
    const stored = await readDays(db, [metricId], from, to);
    const { t, v, q } = joinSeries(stored.map((day) => unpackDay(day, day.dayStart)));
    await db.query(
      `delete from sample_day
       where metric_id = $1 and day between date '1970-01-01' + $2::int and date '1970-01-01' + $3::int`,
      [metricId, portion[0].day, portion[portion.length - 1].day],
    );
    await mergeIntoStore(
      db,
      new Map([[metricId, { t: t.map((each) => each + byMs), v, q }]]),
      'other time stamps',
      now,
    );
  }
  await resetLatest(db, metricId);
}
