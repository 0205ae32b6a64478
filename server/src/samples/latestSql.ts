import { CLOCK_TOLERANCE_MS, DAY_MS, QUALITY } from '@vivid-beacon/core';
import { moment } from '../db/columns';
import { allPrepared, type Queryable } from '../db/database';

/** A metric with a day or more between its samples is fed by files: it is no feed that can go quiet. */
const LIVE = `metric.interval_ms < ${DAY_MS}`;

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
    `insert into metric_latest (metric_id, t, v, q, flat_since, received_at, silent_at, live, state)
     select id, t, v, q, since, $6::timestamptz, t + silent_after, live,
            case when q = ${QUALITY.implausible} then 'outOfRange' when t - since >= flat_after then 'flat' else 'reporting' end
     from (
       select metric.id, to_timestamp(new.t / 1000) as t, new.v, new.q,
              case when old.v = new.v and old.flat_since < to_timestamp(new.flat_since / 1000) and metric.id = any($7::bigint[])
                   then old.flat_since else to_timestamp(new.flat_since / 1000) end as since,
              metric.silent_after_ms * interval '1 millisecond' as silent_after,
              metric.flat_after_ms * interval '1 millisecond' as flat_after, ${LIVE} as live
       from unnest($1::bigint[], $2::float8[], $3::float8[], $4::smallint[], $5::float8[])
              as new (metric_id, t, v, q, flat_since)
       join metric on metric.id = new.metric_id
       left join metric_latest old on old.metric_id = new.metric_id) newest
     on conflict (metric_id) do update set
       t = excluded.t, v = excluded.v, q = excluded.q, received_at = excluded.received_at, flat_since = excluded.flat_since,
       silent_at = excluded.silent_at, live = excluded.live, state = excluded.state
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
  await judgeFeed(db, metricId);
}

/** Judges a feed anew by its newest sample and what its metric says now. */
export async function judgeFeed(db: Queryable, metricId: string): Promise<void> {
  await db.query(
    `update metric_latest latest
     set silent_at = latest.t + metric.silent_after_ms * interval '1 millisecond', live = ${LIVE},
         state = case when latest.q = ${QUALITY.implausible} then 'outOfRange'
                      when latest.t - latest.flat_since >= metric.flat_after_ms * interval '1 millisecond' then 'flat'
                      else 'reporting' end
     from metric where metric.id = latest.metric_id and metric.id = $1`,
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
    `update metric_latest set ahead_ms = new.ahead_ms, ahead_at = $3::timestamptz,
            ahead_until = case when new.ahead_ms > ${CLOCK_TOLERANCE_MS} then $3::timestamptz + interval '1 day' end
     from unnest($1::bigint[], $2::bigint[]) as new (metric_id, ahead_ms)
     where metric_latest.metric_id = new.metric_id`,
    [rows.map((row) => row.metricId), rows.map((row) => Math.round(row.aheadMs)), moment(at)],
  );
}
