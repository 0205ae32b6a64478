import type { RollupGrain } from '@vivid-beacon/core/src/aggregation';
import { DAY_MS } from '@vivid-beacon/core';
import { BytesHeap } from '../db/bytesHeap';
import { all, allPrepared, type Queryable } from '../db/database';
import { budgetOf, spend } from '../db/readBudget';

/** Goes up when what a rollup holds changes; older ones are then made again. */
export const ROLLUP_VERSION = 1;

/** The packed aggregates of one metric and UTC day. */
export interface StoredRollup {
  readonly metricId: string;
  readonly dayStart: number;
  /** null = nothing touches the day. */
  readonly packed: { readonly quarters: Uint8Array; readonly hours: Uint8Array } | null;
}

/** Writes rollups; those that hold nothing are taken away. */
export async function writeRollups(db: Queryable, rollups: readonly StoredRollup[]): Promise<void> {
  const kept = rollups.filter(({ packed }) => packed !== null);
  const gone = rollups.filter(({ packed }) => packed === null);
  if (kept.length > 0) {
    const heap = new BytesHeap();
    const bodies = heap.add(kept.map(({ packed }) => packed!.quarters));
    const hours = heap.add(kept.map(({ packed }) => packed!.hours));
    await allPrepared(
      db,
      'write_rollups',
      `insert into rollup_day (metric_id, day, body, hours)
       select metric_id, date '1970-01-01' + day, substring($7::bytea from at for size),
              substring($7::bytea from hours_at for hours_size)
       from unnest($1::bigint[], $2::int[], $3::int[], $4::int[], $5::int[], $6::int[])
            as r (metric_id, day, at, size, hours_at, hours_size)
       on conflict (metric_id, day) do update set body = excluded.body, hours = excluded.hours`,
      [
        kept.map((each) => each.metricId),
        kept.map((each) => each.dayStart / DAY_MS),
        bodies.at,
        bodies.length,
        hours.at,
        hours.length,
        heap.done(),
      ],
    );
  }
  if (gone.length > 0) {
    await db.query(
      `delete from rollup_day using unnest($1::bigint[], $2::int[]) as g (metric_id, day)
       where rollup_day.metric_id = g.metric_id and rollup_day.day = date '1970-01-01' + g.day`,
      [gone.map((each) => each.metricId), gone.map((each) => each.dayStart / DAY_MS)],
    );
  }
}

/**
 * Rollups of the UTC days that touch `from` ≤ t < `to` (ms), in order of metric and day. Where hours are asked for
 * and were never kept, the quarters come instead.
 */
export async function readRollups(
  db: Queryable,
  metricIds: readonly string[],
  from: number,
  to: number,
  grain: RollupGrain,
): Promise<{ metricId: string; dayStart: number; body: Uint8Array }[]> {
  const budget = budgetOf(db);
  const most = budget ? Math.floor(budget.left / OF_ROLLUP[grain]) + 1 : null;
  const rows = await allPrepared<{ metricId: string; day: number; body: Buffer }>(
    db,
    `read_rollups_${grain}`,
    `select metric_id as "metricId", day - date '1970-01-01' as day, ${PACKED[grain]} as body from rollup_day
     where metric_id = any($1::bigint[]) and day >= date '1970-01-01' + $2::int and day < date '1970-01-01' + $3::int
     order by metric_id, day limit $4::bigint`,
    [metricIds, Math.floor(from / DAY_MS), Math.ceil(to / DAY_MS), most],
  );
  spend(db, rows.length * OF_ROLLUP[grain]);
  return rows.map(({ metricId, day, body }) => ({ metricId, dayStart: day * DAY_MS, body }));
}

/** Reading the rollups of a day takes as long as so many samples. */
const OF_ROLLUP: Readonly<Record<RollupGrain, number>> = { quarters: 400, hours: 150 };

const PACKED: Readonly<Record<RollupGrain, string>> = { quarters: 'body', hours: 'coalesce(hours, body)' };

/** Metrics whose rollups were made by an older way of computing. */
export async function metricsToRollUp(db: Queryable, version: number): Promise<string[]> {
  const rows = await all<{ id: string }>(
    db,
    `select id from metric where rollup_version < $1 and origin = 'samples' order by id`,
    [version],
  );
  return rows.map(({ id }) => id);
}

export async function markRolledUp(db: Queryable, metricId: string, version: number): Promise<void> {
  await db.query('update metric set rollup_version = $2 where id = $1', [metricId, version]);
}
