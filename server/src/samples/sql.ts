import { DAY_MS, type MetricKind } from '@vivid-beacon/core';
import type { Correction, DayTail, PackedDay } from '@vivid-beacon/core/src/aggregation';
import { BytesHeap } from '../db/bytesHeap';
import { moment } from '../db/columns';
import { allPrepared, type Queryable } from '../db/database';
import { budgetOf, spend } from '../db/readBudget';

/** One packed day of one metric; `dayStart` in ms. */
export interface StoredDay extends PackedDay {
  readonly metricId: string;
  readonly dayStart: number;
}

/** A stored day with what lies at its ends; null when no sample of it is usable. */
export interface WrittenDay extends StoredDay {
  readonly first: EndSample | null;
  readonly last: EndSample | null;
  readonly unusable: number;
}

/** What is put behind a stored day of good samples; `before` samples lie in it, `last` becomes its newest. */
export interface AppendedDay extends DayTail {
  readonly metricId: string;
  readonly dayStart: number;
  readonly before: number;
  readonly last: EndSample;
}

/** One sample, `t` in ms since the Unix epoch. */
export interface EndSample {
  readonly t: number;
  readonly v: number;
}

interface DayRow {
  readonly metricId: string;
  readonly day: number;
  readonly n: number;
  readonly times: Buffer;
  readonly vals: Buffer;
  readonly flags: Buffer | null;
}

const DAY_COLUMNS = `sample_day.metric_id as "metricId", sample_day.day - date '1970-01-01' as day,
                     sample_day.n, sample_day.times, sample_day.vals, sample_day.flags`;

function toStoredDay({ metricId, day, n, times, vals, flags }: DayRow): StoredDay {
  return { metricId, dayStart: day * DAY_MS, n, times, values: vals, flags };
}

/** What merging needs to know of a metric. */
export interface StoreMetric {
  readonly id: string;
  readonly kind: MetricKind;
  readonly intervalMs: number;
  readonly maxGapMs: number;
  readonly rollover: number | null;
  readonly isSpread: boolean;
  readonly low: number | null;
  readonly high: number | null;
  readonly removed: boolean;
}

/** Lets only one transaction at a time change the samples of these metrics. Ordered, so that none wait in a ring. */
export function lockMetrics(db: Queryable, metricIds: readonly string[]): Promise<StoreMetric[]> {
  return allPrepared(
    db,
    'lock_metrics',
    `select id, kind, interval_ms::float8 as "intervalMs", max_gap_ms::float8 as "maxGapMs", rollover, cut = 'share' as "isSpread",
            plausible_low as low, plausible_high as high, removed_at is not null as removed
     from metric where id = any($1::bigint[]) order by id for no key update`,
    [metricIds],
  );
}

/** Packed days that touch `from` ≤ t < `to` (ms), in order of metric and day. */
export async function readDays(
  db: Queryable,
  metricIds: readonly string[],
  from: number,
  to: number,
): Promise<StoredDay[]> {
  const counted = await spendOnMany(db, metricIds, from, to);
  const rows = await allPrepared<DayRow>(
    db,
    'read_days',
    `select ${DAY_COLUMNS} from sample_day
     where metric_id = any($1::bigint[]) and day >= date '1970-01-01' + $2::int and day < date '1970-01-01' + $3::int
     order by metric_id, day`,
    [metricIds, Math.floor(from / DAY_MS), Math.ceil(to / DAY_MS)],
  );
  if (!counted)
    spend(
      db,
      rows.reduce((sum, { n }) => sum + n, 0),
    );
  return rows.map(toStoredDay);
}

/** So many days of samples are fetched without counting them first. */
const FEW_DAYS = 8;

/** Counts the samples of many days before they are fetched, where there is a budget. @returns whether it did. */
async function spendOnMany(
  db: Queryable,
  metricIds: readonly string[],
  from: number,
  to: number,
): Promise<boolean> {
  if (budgetOf(db) === null || metricIds.length * ((to - from) / DAY_MS) <= FEW_DAYS) return false;
  const [{ samples }] = await allPrepared<{ samples: number }>(
    db,
    'count_days',
    `select coalesce(sum(n), 0)::float8 as samples from sample_day
     where metric_id = any($1::bigint[]) and day >= date '1970-01-01' + $2::int and day < date '1970-01-01' + $3::int`,
    [metricIds, Math.floor(from / DAY_MS), Math.ceil(to / DAY_MS)],
  );
  spend(db, samples);
  return true;
}

/** Given days only, for a merge. */
export async function readGivenDays(
  db: Queryable,
  metricIds: readonly string[],
  dayStarts: readonly number[],
): Promise<StoredDay[]> {
  const rows = await allPrepared<DayRow>(
    db,
    'read_given_days',
    `select ${DAY_COLUMNS}
     from unnest($1::bigint[], $2::int[]) as wanted (metric_id, day)
     join sample_day on sample_day.metric_id = wanted.metric_id
                    and sample_day.day = date '1970-01-01' + wanted.day`,
    [metricIds, dayStarts.map((day) => day / DAY_MS)],
  );
  return rows.map(toStoredDay);
}

/** The usable samples nearest to a stretch of days, before and after it. */
export interface Neighbours {
  readonly metricId: string;
  readonly before: EndSample | null;
  readonly after: EndSample | null;
}

/** For each metric: its last usable sample before the day `fromDays[i]` and its first one after `toDays[i]` (ms, whole days). */
export async function readNeighbours(
  db: Queryable,
  metricIds: readonly string[],
  fromDays: readonly number[],
  toDays: readonly number[],
): Promise<Map<string, Neighbours>> {
  const rows = await allPrepared<{
    metricId: string;
    beforeDay: number | null;
    beforeMs: number;
    beforeV: number;
    afterDay: number | null;
    afterMs: number;
    afterV: number;
  }>(
    db,
    'read_neighbours',
    `select wanted.metric_id as "metricId",
            before.day - date '1970-01-01' as "beforeDay", before.last_ms as "beforeMs", before.last_v as "beforeV",
            later.day - date '1970-01-01' as "afterDay", later.first_ms as "afterMs", later.first_v as "afterV"
     from unnest($1::bigint[], $2::int[], $3::int[]) as wanted (metric_id, from_day, to_day)
     left join lateral (
       select day, last_ms, last_v from sample_day
       where metric_id = wanted.metric_id and day < date '1970-01-01' + wanted.from_day and last_ms is not null
       order by day desc limit 1) before on true
     left join lateral (
       select day, first_ms, first_v from sample_day
       where metric_id = wanted.metric_id and day > date '1970-01-01' + wanted.to_day and first_ms is not null
       order by day limit 1) later on true`,
    [metricIds, fromDays.map((day) => day / DAY_MS), toDays.map((day) => day / DAY_MS)],
  );
  return new Map(
    rows.map((row) => [
      row.metricId,
      {
        metricId: row.metricId,
        before: row.beforeDay === null ? null : { t: row.beforeDay * DAY_MS + row.beforeMs, v: row.beforeV },
        after: row.afterDay === null ? null : { t: row.afterDay * DAY_MS + row.afterMs, v: row.afterV },
      },
    ]),
  );
}

export async function writeDays(db: Queryable, days: readonly WrittenDay[]): Promise<void> {
  const heap = new BytesHeap();
  const times = heap.add(days.map((day) => day.times));
  const values = heap.add(days.map((day) => day.values));
  const flags = heap.add(days.map((day) => day.flags));
  await allPrepared(
    db,
    'write_days',
    `insert into sample_day (metric_id, day, n, times, vals, flags, first_ms, first_v, last_ms, last_v, unusable)
     select metric_id, date '1970-01-01' + day, n, substring($12::bytea from times_at for times_size),
            substring($12::bytea from vals_at for vals_size), substring($12::bytea from flags_at for flags_size),
            first_ms, first_v, last_ms, last_v, unusable
     from unnest($1::bigint[], $2::int[], $3::int[], $4::int[], $5::int[], $6::int[], $7::int[], $8::float8[],
                 $9::int[], $10::float8[], $11::int[], $13::int[], $14::int[], $15::int[])
       as d (metric_id, day, n, times_at, vals_at, flags_at, first_ms, first_v, last_ms, last_v, unusable,
             times_size, vals_size, flags_size)
     on conflict (metric_id, day) do update
       set n = excluded.n, times = excluded.times, vals = excluded.vals, flags = excluded.flags,
           first_ms = excluded.first_ms, first_v = excluded.first_v,
           last_ms = excluded.last_ms, last_v = excluded.last_v, unusable = excluded.unusable`,
    [
      days.map((day) => day.metricId),
      days.map((day) => day.dayStart / DAY_MS),
      days.map((day) => day.n),
      times.at,
      values.at,
      flags.at,
      days.map((day) => day.first && day.first.t - day.dayStart),
      days.map((day) => day.first?.v ?? null),
      days.map((day) => day.last && day.last.t - day.dayStart),
      days.map((day) => day.last?.v ?? null),
      days.map((day) => day.unusable),
      heap.done(),
      times.length,
      values.length,
      flags.length,
    ],
  );
}

/** Puts later samples behind stored days. @throws if a day is not as it was read: its metric was not locked. */
export async function appendDays(db: Queryable, days: readonly AppendedDay[]): Promise<void> {
  const heap = new BytesHeap();
  const times = heap.add(days.map((day) => day.times));
  const tails = heap.add(days.map((day) => day.valuesTail));
  const rows = await allPrepared(
    db,
    'append_days',
    `update sample_day set n = d.n, times = substring($9::bytea from d.times_at for d.times_size),
                           vals = sample_day.vals || substring($9::bytea from d.tail_at for d.tail_size),
                           last_ms = d.last_ms, last_v = d.last_v
     from unnest($1::bigint[], $2::int[], $3::int[], $4::int[], $5::int[], $6::int[], $7::int[], $8::float8[],
                 $10::int[], $11::int[])
       as d (metric_id, day, before, n, times_at, tail_at, last_ms, last_v, times_size, tail_size)
     where sample_day.metric_id = d.metric_id and sample_day.day = date '1970-01-01' + d.day
       and sample_day.n = d.before
     returning 1`,
    [
      days.map((day) => day.metricId),
      days.map((day) => day.dayStart / DAY_MS),
      days.map((day) => day.before),
      days.map((day) => day.n),
      times.at,
      tails.at,
      days.map((day) => day.last.t - day.dayStart),
      days.map((day) => day.last.v),
      heap.done(),
      times.length,
      tails.length,
    ],
  );
  if (rows.length !== days.length) {
    throw new Error(`appendDays: ${days.length - rows.length} of ${days.length} days changed meanwhile`);
  }
}

/** Takes whole days away, for retention and for undoing an intake. */
export async function deleteDays(
  db: Queryable,
  metricIds: readonly string[],
  dayStarts: readonly number[],
): Promise<void> {
  await db.query(
    `delete from sample_day using unnest($1::bigint[], $2::int[]) as gone (metric_id, day)
     where sample_day.metric_id = gone.metric_id and sample_day.day = date '1970-01-01' + gone.day`,
    [metricIds, dayStarts.map((day) => day / DAY_MS)],
  );
}

export async function writeCorrections(
  db: Queryable,
  corrections: readonly (Correction & { metricId: string })[],
  source: string,
  at: number,
): Promise<void> {
  await db.query(
    `insert into sample_correction
       (metric_id, t, value_before, value_after, quality_before, quality_after, corrected_at, source)
     select metric_id, t, before, after, q_before, q_after, $7::timestamptz, $8
     from unnest($1::bigint[], $2::timestamptz[], $3::float8[], $4::float8[], $5::smallint[], $6::smallint[])
       as c (metric_id, t, before, after, q_before, q_after)`,
    [
      corrections.map((each) => each.metricId),
      corrections.map((each) => moment(each.t)),
      corrections.map((each) => each.before),
      corrections.map((each) => each.after),
      corrections.map((each) => each.qualityBefore),
      corrections.map((each) => each.qualityAfter),
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
  await allPrepared(
    db,
    'count_pushed',
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
