import type { Queryable } from '../db/database';
import { END_OF_TIME, readAround } from '../samples/readSeries';
import type { WatchRow } from './watchSql';

/** The newest usable sample of each state that suppresses one of these. */
export async function newestStates(
  db: Queryable,
  watches: readonly Pick<WatchRow, 'suppressMetric'>[],
): Promise<Map<string, { t: number; v: number }>> {
  const ids = [...new Set(watches.flatMap(({ suppressMetric }) => suppressMetric ?? []))];
  const newest = new Map<string, { t: number; v: number }>();
  for (const [id, { t, v }] of await readAround(db, ids, END_OF_TIME - 1, END_OF_TIME)) {
    if (t.length > 0) newest.set(id, { t: t[0], v: v[0] });
  }
  return newest;
}
