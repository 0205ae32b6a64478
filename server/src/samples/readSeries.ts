import { joinSeries, sliceSeries, usableOf, type QualifiedSeries, type Series } from '@vivid-beacon/core';
import { dayOf, unpackDay } from '@vivid-beacon/core/src/aggregation';
import type { Queryable } from '../db/database';
import { breather } from './breather';
import { withEnds } from './rollups';
import { readDays, readNeighbours } from './sql';

/** Later than any sample, ms: from devices whose clock is ahead there are some after now. */
export const END_OF_TIME = 9e12;

/** All samples of several metrics with `from` ≤ t < `to`, bad ones too; metrics without any are given as empty. */
export async function readQualified(
  db: Queryable,
  metricIds: readonly string[],
  from: number,
  to: number,
): Promise<Map<string, QualifiedSeries>> {
  const whole = await readWholeDays(db, metricIds, from, to);
  return new Map([...whole].map(([id, series]) => [id, sliceSeries(series, from, to)]));
}

/** The usable samples of several metrics with `from` ≤ t < `to`. */
export async function readSeries(
  db: Queryable,
  metricIds: readonly string[],
  from: number,
  to: number,
): Promise<Map<string, Series>> {
  const all = await readQualified(db, metricIds, from, to);
  return new Map([...all].map(([id, series]) => [id, usableOf(series)]));
}

/**
 * The usable samples of a stretch of time with the one before it and the one after it, however far away:
 * what a summary of any window inside the stretch needs.
 */
export async function readAround(
  db: Queryable,
  metricIds: readonly string[],
  from: number,
  to: number,
): Promise<Map<string, Series>> {
  const days = { first: dayOf(from), last: dayOf(Math.max(from, to - 1)) };
  const whole = await readWholeDays(db, metricIds, days.first, days.last + 1);
  const near = await readNeighbours(
    db,
    metricIds,
    metricIds.map(() => days.first),
    metricIds.map(() => days.last),
  );
  return new Map(
    metricIds.map((id) => {
      const ends = near.get(id)!;
      return [id, withEnds(usableOf(whole.get(id)!), ends.before, ends.after)];
    }),
  );
}

async function readWholeDays(
  db: Queryable,
  metricIds: readonly string[],
  from: number,
  to: number,
): Promise<Map<string, QualifiedSeries>> {
  const parts = new Map<string, QualifiedSeries[]>(metricIds.map((id) => [id, []]));
  const breathe = breather();
  for (const day of await readDays(db, metricIds, from, to)) {
    parts.get(day.metricId)!.push(unpackDay(day, day.dayStart));
    await breathe();
  }
  return new Map([...parts].map(([id, series]) => [id, joinSeries(series)]));
}
