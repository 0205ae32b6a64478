import { DAY_MS } from '@vivid-beacon/core';
import { REGISTER_REACH_MS } from '@vivid-beacon/core/src/aggregation';
import { one, type Pool } from '../db/database';
import { dropForgottenParts } from '../intake/sql';
import { dropOldNotices } from '../notices/sql';
import { tidyTrail } from '../trail/kept';

/** Intakes that were begun and never finished are given up after this time. */
const FORGOTTEN_MS = 2 * DAY_MS;
/** The outbox reaches back so far; what stand-ins received, so far. */
const KEEP_NOTICES_MS = 400 * DAY_MS;
const KEEP_CAUGHT_MS = 30 * DAY_MS;

/**
 * Throws away raw samples older than their metric keeps them. Rollups stay, so that trends and totals reach
 * back as before. The last day before those that are kept stays as long as its last sample reaches into them: what
 * held into the first of them, or was counted since, is read from there when that day changes.
 *
 * @returns how many days of metrics were thrown away.
 */
export async function applyRetention(pool: Pool, now: number): Promise<number> {
  const row = await one<{ n: number }>(
    pool,
    `with gone as (
       delete from sample_day using metric
       where metric.id = sample_day.metric_id and metric.retention_days is not null
         and sample_day.day < ($1::timestamptz at time zone 'UTC')::date - metric.retention_days
         and (exists (
             select 1 from sample_day later
             where later.metric_id = sample_day.metric_id and later.n > 0 and later.day > sample_day.day
               and later.day < ($1::timestamptz at time zone 'UTC')::date - metric.retention_days)
           or (sample_day.day + 1)::timestamp at time zone 'UTC'
              + greatest(metric.max_gap_ms, metric.interval_ms, case when metric.kind = 'register' then $2::bigint else 0 end)
                * interval '1 millisecond'
              <= ((($1::timestamptz at time zone 'UTC')::date - metric.retention_days)::timestamp at time zone 'UTC'))
       returning 1)
     select count(*)::int as n from gone`,
    [new Date(now), REGISTER_REACH_MS],
  );
  return row!.n;
}

/** Housekeeping that runs by itself now and then. */
export async function tidyUp(pool: Pool, now: number): Promise<void> {
  await applyRetention(pool, now);
  await tidyTrail(pool, now);
  await dropForgottenParts(pool, now - FORGOTTEN_MS);
  await dropOldNotices(pool, now - KEEP_NOTICES_MS, now - KEEP_CAUGHT_MS);
}
