import type { Queryable } from '../db/database';
import type { MetricRow } from '../metrics/sql';
import { readAround } from './readSeries';

/** Time of the newest usable sample before `end`, ms; null without one. */
export async function newestBefore(
  db: Queryable,
  row: Pick<MetricRow, 'id' | 'lastT' | 'lastQ'>,
  end: number,
): Promise<number | null> {
  if (row.lastT !== null && row.lastT < end && row.lastQ < 2) return row.lastT;
  const { t } = (await readAround(db, [row.id], end - 1, end)).get(row.id)!;
  return t.findLast((each) => each < end) ?? null;
}
