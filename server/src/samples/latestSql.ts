import { moment } from '../db/columns';
import { allPrepared, type Queryable } from '../db/database';

export interface LatestRow {
  readonly metricId: string;
  readonly t: number;
  readonly v: number;
  readonly q: number;
  /** Since when the value is the same, as far as the newest day tells. */
  readonly flatSince: number;
  /** True when the whole newest day has this value, so that the flat stretch may reach back further. */
  readonly flatAllDay: boolean;
}

/** Keeps the newest sample of each metric, when it came, and since when it has not changed. */
export async function writeLatest(
  db: Queryable,
  rows: readonly LatestRow[],
  receivedAt: number,
): Promise<void> {
  await allPrepared(
    db,
    'write_latest',
    `insert into metric_latest (metric_id, t, v, q, flat_since, received_at)
     select metric_id, to_timestamp(t / 1000), v, q, to_timestamp(flat_since / 1000), $6::timestamptz
     from unnest($1::bigint[], $2::float8[], $3::float8[], $4::smallint[], $5::float8[])
       as new (metric_id, t, v, q, flat_since)
     on conflict (metric_id) do update set
       t = excluded.t, v = excluded.v, q = excluded.q, received_at = excluded.received_at,
       flat_since = case
         when metric_latest.v = excluded.v and metric_latest.flat_since < excluded.flat_since
              and excluded.metric_id = any($7::bigint[]) then metric_latest.flat_since
         else excluded.flat_since end
     where excluded.t >= metric_latest.t`,
    [
      rows.map((row) => row.metricId),
      rows.map((row) => row.t),
      rows.map((row) => row.v),
      rows.map((row) => row.q),
      rows.map((row) => row.flatSince),
      moment(receivedAt),
      rows.filter((row) => row.flatAllDay).map((row) => row.metricId),
    ],
  );
}

/** Sets the newest sample after samples were taken away; without one the row goes. */
export async function resetLatest(db: Queryable, metricId: string): Promise<void> {
  await db.query('delete from metric_latest where metric_id = $1', [metricId]);
  await db.query(
    `insert into metric_latest (metric_id, t, v, q)
     select $1::bigint, newest.t, newest.v, newest.quality
     from (select day from sample_day where metric_id = $1 and n > 0 order by day desc limit 1) last_day,
          lateral (select * from metric_samples($1::bigint, last_day.day::timestamp at time zone 'UTC',
                                                (last_day.day + 1)::timestamp at time zone 'UTC')) newest
     order by newest.t desc limit 1`,
    [metricId],
  );
}

/** Notes how far senders' clocks ran ahead, also for samples that were refused for it. */
export async function noteClockAhead(
  db: Queryable,
  rows: readonly { metricId: string; aheadMs: number }[],
  at: number,
): Promise<void> {
  await db.query(
    `update metric_latest set ahead_ms = new.ahead_ms, ahead_at = $3::timestamptz
     from unnest($1::bigint[], $2::bigint[]) as new (metric_id, ahead_ms)
     where metric_latest.metric_id = new.metric_id`,
    [rows.map((row) => row.metricId), rows.map((row) => Math.round(row.aheadMs)), moment(at)],
  );
}
