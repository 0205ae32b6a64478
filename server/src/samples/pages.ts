import { DAY_MS, joinSeries, sliceSeries, type QualifiedSeries } from '@vivid-beacon/core';
import { dayOf, unpackDay } from '@vivid-beacon/core/src/aggregation';
import { all, type Queryable } from '../db/database';
import { readQualified } from './readSeries';
import { readDays } from './sql';

/** A stretch of raw samples, with how many there are in all. */
export interface SamplePage {
  readonly total: number;
  readonly offset: number;
  readonly series: QualifiedSeries;
}

/**
 * Samples number `offset` to `offset + limit` of a metric with `from` ≤ t < `to`, in order of time, bad ones
 * too. Only the days they lie on are unpacked.
 */
export async function readPage(
  db: Queryable,
  metricId: string,
  from: number,
  to: number,
  offset: number,
  limit: number,
): Promise<SamplePage> {
  const counts = await countByDay(db, metricId, from, to);
  const total = counts.reduce((sum, { n }) => sum + n, 0);
  let before = 0;
  let first = -1;
  let last = -1;
  let skipped = 0;
  for (const [i, { n }] of counts.entries()) {
    if (before + n > offset && before < offset + limit) {
      if (first < 0) {
        first = i;
        skipped = before;
      }
      last = i;
    }
    before += n;
  }
  if (first < 0) return { total, offset, series: joinSeries([]) };
  const start = Math.max(from, counts[first].day);
  const end = Math.min(to, counts[last].day + DAY_MS);
  const series = (await readQualified(db, [metricId], start, end)).get(metricId)!;
  const low = offset - skipped;
  const high = Math.min(series.t.length, low + limit);
  return {
    total,
    offset,
    series: {
      t: series.t.subarray(low, high),
      v: series.v.subarray(low, high),
      q: series.q?.subarray(low, high) ?? null,
    },
  };
}

/** How many samples lie on each UTC day inside the stretch. */
async function countByDay(
  db: Queryable,
  metricId: string,
  from: number,
  to: number,
): Promise<{ day: number; n: number }[]> {
  const rows = await all<{ day: number; n: number }>(
    db,
    `select (day - date '1970-01-01')::float8 * ${DAY_MS} as day, n from sample_day
     where metric_id = $1 and day >= date '1970-01-01' + $2::int and day < date '1970-01-01' + $3::int order by day`,
    [metricId, Math.floor(from / DAY_MS), Math.ceil(to / DAY_MS)],
  );
  // The days at both ends may lie partly outside.
  for (const row of [rows[0], rows[rows.length - 1]]) {
    if (!row || (row.day >= from && row.day + DAY_MS <= to)) continue;
    const part = await readQualified(db, [metricId], Math.max(from, row.day), Math.min(to, row.day + DAY_MS));
    row.n = part.get(metricId)!.t.length;
  }
  return rows;
}

/** A metric by the second has 350,000 samples in so many days. */
const DAYS_AT_ONCE = 4;

/** All raw samples of a stretch in pieces of some days, so that a long export needs little memory. */
export async function* piecesOf(
  db: Queryable,
  metricId: string,
  from: number,
  to: number,
): AsyncGenerator<QualifiedSeries> {
  const bounds = await all<{ first: number | null; last: number | null }>(
    db,
    `select min(day) - date '1970-01-01' as first, max(day) - date '1970-01-01' as last from sample_day
     where metric_id = $1`,
    [metricId],
  );
  const { first, last } = bounds[0];
  if (first === null || last === null) return;
  const end = Math.min(to, (last + 1) * DAY_MS);
  for (let at = Math.max(dayOf(from), first * DAY_MS); at < end; at += DAYS_AT_ONCE * DAY_MS) {
    const days = await readDays(db, [metricId], at, Math.min(end, at + DAYS_AT_ONCE * DAY_MS));
    if (days.length === 0) continue;
    const whole = joinSeries(days.map((day) => unpackDay(day, day.dayStart)));
    const inside = sliceSeries(whole, from, to);
    if (inside.t.length > 0) yield inside;
  }
}
