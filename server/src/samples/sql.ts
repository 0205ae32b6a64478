import { DAY_MS, type Correction, type PackedDay } from '@vivid-beacon/core';
import { moment } from '../db/columns';
import { all, type Queryable } from '../db/database';

/** One packed day of one metric; `dayStart` in ms. */
export interface StoredDay extends PackedDay {
  readonly metricId: string;
  readonly dayStart: number;
}

interface DayRow {
  readonly metricId: string;
  readonly day: number;
  readonly n: number;
  readonly times: Buffer;
  readonly vals: Buffer;
}

function toStoredDay({ metricId, day, n, times, vals }: DayRow): StoredDay {
  return { metricId, dayStart: day * DAY_MS, n, times, values: vals };
}

/** Lets only one transaction at a time change the samples of these metrics. Ordered, so that none wait in a ring. */
export async function lockMetrics(db: Queryable, metricIds: readonly string[]): Promise<void> {
  await db.query('select id from metric where id = any($1::bigint[]) order by id for no key update', [
    metricIds,
  ]);
}

/** Packed days with `from` ≤ day < `to` (ms, both UTC midnights), in order of metric and day. */
export async function readDays(
  db: Queryable,
  metricIds: readonly string[],
  from: number,
  to: number,
): Promise<StoredDay[]> {
  const rows = await all<DayRow>(
    db,
    `select metric_id as "metricId", day - date '1970-01-01' as day, n, times, vals
     from sample_day
     where metric_id = any($1::bigint[]) and day >= date '1970-01-01' + $2::int and day < date '1970-01-01' + $3::int
     order by metric_id, day`,
    [metricIds, Math.floor(from / DAY_MS), Math.ceil(to / DAY_MS)],
  );
  return rows.map(toStoredDay);
}

/** Given days only, for a merge. */
export async function readGivenDays(
  db: Queryable,
  metricIds: readonly string[],
  dayStarts: readonly number[],
): Promise<StoredDay[]> {
  const rows = await all<DayRow>(
    db,
    `select sample_day.metric_id as "metricId", sample_day.day - date '1970-01-01' as day, n, times, vals
     from unnest($1::bigint[], $2::int[]) as wanted (metric_id, day)
     join sample_day on sample_day.metric_id = wanted.metric_id
                    and sample_day.day = date '1970-01-01' + wanted.day`,
    [metricIds, dayStarts.map((day) => day / DAY_MS)],
  );
  return rows.map(toStoredDay);
}

export async function writeDays(db: Queryable, days: readonly StoredDay[]): Promise<void> {
  await db.query(
    `insert into sample_day (metric_id, day, n, times, vals)
     select metric_id, date '1970-01-01' + day, n, times, vals
     from unnest($1::bigint[], $2::int[], $3::int[], $4::bytea[], $5::bytea[]) as d (metric_id, day, n, times, vals)
     on conflict (metric_id, day) do update
       set n = excluded.n, times = excluded.times, vals = excluded.vals`,
    [
      days.map((day) => day.metricId),
      days.map((day) => day.dayStart / DAY_MS),
      days.map((day) => day.n),
      days.map((day) => Buffer.from(day.times)),
      days.map((day) => Buffer.from(day.values)),
    ],
  );
}

export async function writeLatest(
  db: Queryable,
  rows: readonly { metricId: string; t: number; v: number }[],
): Promise<void> {
  await db.query(
    `insert into metric_latest (metric_id, t, v)
     select * from unnest($1::bigint[], $2::timestamptz[], $3::float8[])
     on conflict (metric_id) do update set t = excluded.t, v = excluded.v
       where excluded.t >= metric_latest.t`,
    [rows.map((row) => row.metricId), rows.map((row) => moment(row.t)), rows.map((row) => row.v)],
  );
}

export async function writeCorrections(
  db: Queryable,
  corrections: readonly (Correction & { metricId: string })[],
  source: string,
  at: number,
): Promise<void> {
  await db.query(
    `insert into sample_correction (metric_id, t, value_before, value_after, corrected_at, source)
     select metric_id, t, before, after, $5::timestamptz, $6
     from unnest($1::bigint[], $2::timestamptz[], $3::float8[], $4::float8[]) as c (metric_id, t, before, after)`,
    [
      corrections.map((each) => each.metricId),
      corrections.map((each) => moment(each.t)),
      corrections.map((each) => each.before),
      corrections.map((each) => each.after),
      moment(at),
      source,
    ],
  );
}

/** Counts what pushes brought to each metric and day, for provenance. */
export async function countPushed(
  db: Queryable,
  tokenId: string,
  rows: readonly { metricId: string; dayStart: number; samples: number }[],
): Promise<void> {
  await db.query(
    `insert into push_day (metric_id, day, token_id, samples)
     select metric_id, date '1970-01-01' + day, $4::bigint, samples
     from unnest($1::bigint[], $2::int[], $3::bigint[]) as p (metric_id, day, samples)
     on conflict (metric_id, day, token_id) do update set samples = push_day.samples + excluded.samples`,
    [
      rows.map((row) => row.metricId),
      rows.map((row) => row.dayStart / DAY_MS),
      rows.map((row) => row.samples),
      tokenId,
    ],
  );
}
