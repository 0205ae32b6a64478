import { DAY_MS } from '@vivid-beacon/core';
import {
  packDay,
  packValues,
  unpackDay,
  unpackValues,
  type Merged,
  type MergeChange,
} from '@vivid-beacon/core/src/aggregation';
import { all, type Queryable } from '../db/database';
import { BytesHeap } from '../db/bytesHeap';

/** What an intake changed on one day of one metric. */
export interface DayChange extends MergeChange {
  readonly metricId: string;
  readonly dayStart: number;
}

/** A change as it follows from a merge. */
export function dayChangeOf(metricId: string, dayStart: number, { added, corrections }: Merged): DayChange {
  const t = Float64Array.from(corrections, (each) => each.t);
  return {
    metricId,
    dayStart,
    added,
    before: {
      t,
      v: Float64Array.from(corrections, (each) => each.before),
      q: Uint8Array.from(corrections, (each) => each.qualityBefore),
    },
    after: {
      t,
      v: Float64Array.from(corrections, (each) => each.after),
      q: Uint8Array.from(corrections, (each) => each.qualityAfter),
    },
  };
}

/** Keeps what an intake changed, so that it can be undone. */
export async function writeDayChanges(
  db: Queryable,
  intakeId: string,
  changes: readonly DayChange[],
): Promise<void> {
  const packed = changes.map(({ dayStart, added, before, after }) => ({
    added: packDay(added, dayStart),
    before: packDay(before, dayStart),
    afterVals: packValues(after.v),
    afterFlags: packDay(after, dayStart).flags,
  }));
  const heap = new BytesHeap();
  const columns = [
    packed.map(({ added }) => added.times),
    packed.map(({ added }) => added.values),
    packed.map(({ added }) => added.flags),
    packed.map(({ before }) => before.times),
    packed.map(({ before }) => before.values),
    packed.map(({ before }) => before.flags),
    packed.map(({ afterVals }) => afterVals),
    packed.map(({ afterFlags }) => afterFlags),
  ].map((column) => heap.add(column));
  const bytes = (name: string): string => `substring($6::bytea from ${name}_at for ${name}_size)`;
  await db.query(
    `insert into intake_change (intake_id, metric_id, day, added_n, before_n, added_times, added_vals, added_flags,
                                before_times, before_vals, before_flags, after_vals, after_flags)
     select $1::bigint, metric_id, date '1970-01-01' + day, added_n, before_n,
            ${['at', 'av', 'af', 'bt', 'bv', 'bf', 'cv', 'cf'].map(bytes).join(', ')}
     from unnest($2::bigint[], $3::int[], $4::int[], $5::int[],
                 ${columns.map((_, i) => `$${7 + 2 * i}::int[], $${8 + 2 * i}::int[]`).join(', ')})
       as c (metric_id, day, added_n, before_n, at_at, at_size, av_at, av_size, af_at, af_size, bt_at, bt_size,
             bv_at, bv_size, bf_at, bf_size, cv_at, cv_size, cf_at, cf_size)`,
    [
      intakeId,
      changes.map((each) => each.metricId),
      changes.map((each) => each.dayStart / DAY_MS),
      packed.map(({ added }) => added.n),
      packed.map(({ before }) => before.n),
      heap.done(),
      ...columns.flatMap(({ at, length }) => [at, length]),
    ],
  );
}

interface ChangeRow {
  readonly metricId: string;
  readonly day: number;
  readonly an: number;
  readonly at: Buffer;
  readonly av: Buffer;
  readonly af: Buffer | null;
  readonly bn: number;
  readonly bt: Buffer;
  readonly bv: Buffer;
  readonly bf: Buffer | null;
  readonly cv: Buffer;
  readonly cf: Buffer | null;
}

/** A day that an intake changed. */
export interface ChangedPlace {
  readonly metricId: string;
  readonly dayStart: number;
  /** Samples that are there and samples that were changed: what undoing it has to look at. */
  readonly samples: number;
}

/** The days an intake changed, in order of metric and day. */
export function listChangedDays(db: Queryable, intakeId: string): Promise<ChangedPlace[]> {
  return all(
    db,
    `select change.metric_id as "metricId", (change.day - date '1970-01-01') * ${DAY_MS}::float8 as "dayStart",
            change.added_n + change.before_n + coalesce(sample_day.n, 0) as samples
     from intake_change change left join sample_day using (metric_id, day)
     where change.intake_id = $1 order by change.metric_id, change.day`,
    [intakeId],
  );
}

/** What an intake changed on these days, in order of metric and day. */
export async function readDayChanges(
  db: Queryable,
  intakeId: string,
  places: readonly ChangedPlace[],
): Promise<DayChange[]> {
  const rows = await all<ChangeRow>(
    db,
    `select metric_id as "metricId", day - date '1970-01-01' as day, added_n as an, added_times as at,
            added_vals as av, added_flags as af, before_n as bn, before_times as bt, before_vals as bv,
            before_flags as bf, after_vals as cv, after_flags as cf
     from unnest($2::bigint[], $3::int[]) as place (id, since)
     join intake_change on intake_id = $1 and metric_id = place.id and day = date '1970-01-01' + place.since
     order by metric_id, day`,
    [intakeId, places.map(({ metricId }) => metricId), places.map(({ dayStart }) => dayStart / DAY_MS)],
  );
  return rows.map((row) => {
    const dayStart = row.day * DAY_MS;
    const before = unpackDay({ n: row.bn, times: row.bt, values: row.bv, flags: row.bf }, dayStart);
    const flags =
      row.cf && unpackDay({ n: row.bn, times: row.bt, values: row.cv, flags: row.cf }, dayStart).q;
    return {
      metricId: row.metricId,
      dayStart,
      added: unpackDay({ n: row.an, times: row.at, values: row.av, flags: row.af }, dayStart),
      before,
      after: { t: before.t, v: unpackValues(row.cv, row.bn), q: flags },
    };
  });
}
