import type { Queryable } from '../db/database';
import { readAround } from '../samples/readSeries';
import type { WatchRow } from './watchSql';

const LATEST = 8e12;

/** The newest usable sample of each state that suppresses one of these. */
export async function newestStates(
  db: Queryable,
  watches: readonly Pick<WatchRow, 'suppressMetric'>[],
): Promise<Map<string, { t: number; v: number }>> {
  const ids = [...new Set(watches.flatMap(({ suppressMetric }) => suppressMetric ?? []))];
  const newest = new Map<string, { t: number; v: number }>();
  for (const [id, { t, v }] of await readAround(db, ids, LATEST, LATEST + 1)) {
    if (t.length > 0) newest.set(id, { t: t[0], v: v[0] });
  }
  return newest;
}
