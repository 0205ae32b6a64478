import { pipeline } from 'node:stream/promises';
import { Readable } from 'node:stream';
import type pg from 'pg';
import { from as copyFrom } from 'pg-copy-streams';
import { DAY_MS, type Intake, type IntakeWithoutLines, type KeptMapping } from '@vivid-beacon/core';
import type { PackedDay } from '@vivid-beacon/core/src/aggregation';
import type { ReportedLine } from '@vivid-beacon/core/src/intakeFiles';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';
import type { Reader } from '../db/reader';

export interface IntakeRow {
  readonly id: string;
  readonly status: Intake['status'];
  readonly startedById: string;
  readonly fileName: string;
  /** Which value to keep when values collide: nothing may, or the last. */
  readonly collisions: 'refuse' | 'last';
}

export async function addIntake(
  db: Queryable,
  intake: {
    fileName: string;
    fileSize: number;
    fileHash: string;
    layout: unknown;
    collisions: 'refuse' | 'last';
    startedBy: string;
    at: number;
  },
): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    `insert into intake (file_name, file_size, file_hash, layout, status, started_at, started_by, collisions)
     values ($1, $2, $3, $4::jsonb, 'reading', $5, $6, $7) returning id`,
    [
      intake.fileName,
      intake.fileSize,
      intake.fileHash,
      JSON.stringify(intake.layout),
      moment(intake.at),
      intake.startedBy,
      intake.collisions,
    ],
  );
  return row!.id;
}

export function lockIntake(db: Queryable, id: string): Promise<IntakeRow | undefined> {
  return one(
    db,
    `select id, status, started_by as "startedById", file_name as "fileName", collisions
     from intake where id = $1 for update`,
    [id],
  );
}

/** One packed day of one metric on its way. */
export interface PartDay extends PackedDay {
  readonly metricId: string;
  readonly dayStart: number;
}

const hex = (bytes: Uint8Array): string =>
  `\\\\x${Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('hex')}`;

/** Writes one part with COPY. The same number again replaces the first, so that a lost answer can be asked for again. */
export async function putPart(
  db: pg.PoolClient,
  intakeId: string,
  seq: number,
  days: readonly PartDay[],
): Promise<void> {
  const fresh = await one(
    db,
    'insert into intake_arrived (intake_id, seq) values ($1, $2) on conflict do nothing returning seq',
    [intakeId, seq],
  );
  if (!fresh) {
    await db.query('delete from intake_part where intake_id = $1 and seq = $2', [intakeId, seq]);
    await db.query('delete from intake_line where intake_id = $1 and part = $2', [intakeId, seq]);
  }
  if (days.length === 0) return;
  const lines = days.map(({ metricId, dayStart, n, times, values, flags }) => {
    const day = new Date(dayStart).toISOString().slice(0, 10);
    return `${intakeId}\t${seq}\t${metricId}\t${day}\t${n}\t${hex(times)}\t${hex(values)}\t${flags ? hex(flags) : '\\N'}\n`;
  });
  await pipeline(
    Readable.from(lines),
    db.query(copyFrom('copy intake_part (intake_id, seq, metric_id, day, n, times, vals, flags) from stdin')),
  );
}

export async function countParts(db: Queryable, intakeId: string): Promise<number> {
  return (await one<{ n: number }>(db, 'select count(*)::int as n from intake_arrived where intake_id = $1', [
    intakeId,
  ]))!.n;
}

/** The days of an intake, in order of metric and day, with how many samples came for each. */
export function listPartDays(
  db: Queryable,
  intakeId: string,
): Promise<{ metricId: string; day: number; n: number }[]> {
  return all(
    db,
    `select metric_id as "metricId", day - date '1970-01-01' as day, sum(n)::int as n from intake_part
     where intake_id = $1 group by metric_id, day order by metric_id, day`,
    [intakeId],
  );
}

/** Parts of one metric over days `from` to `to` (numbers since 1970), in order of day and arrival. */
export async function readParts(
  db: Queryable,
  intakeId: string,
  metricId: string,
  from: number,
  to: number,
): Promise<PartDay[]> {
  const rows = await all<{ day: number; n: number; times: Buffer; vals: Buffer; flags: Buffer | null }>(
    db,
    `select day - date '1970-01-01' as day, n, times, vals, flags from intake_part
     where intake_id = $1 and metric_id = $2
       and day >= date '1970-01-01' + $3::int and day <= date '1970-01-01' + $4::int
     order by day, seq`,
    [intakeId, metricId, from, to],
  );
  return rows.map(({ day, n, times, vals, flags }) => ({
    metricId,
    dayStart: day * DAY_MS,
    n,
    times,
    values: vals,
    flags,
  }));
}

export async function dropParts(db: Queryable, intakeId: string): Promise<void> {
  await db.query('delete from intake_part where intake_id = $1', [intakeId]);
  await db.query('delete from intake_arrived where intake_id = $1', [intakeId]);
}

/** Parts of intakes that nobody will finish: cancelled, or begun before `before` and never finished. */
export async function dropForgottenParts(db: Queryable, before: number): Promise<void> {
  await db.query(
    `update intake set status = 'cancelled' where status = 'reading' and started_at < $1::timestamptz`,
    [moment(before)],
  );
  const old = `select id from intake where status <> 'reading'`;
  await db.query(`delete from intake_part where intake_id in (${old})`);
  await db.query(`delete from intake_arrived where intake_id in (${old})`);
}

/** Keeps what is told of lines of a file. */
export async function addLines(
  db: Queryable,
  intakeId: string,
  part: number,
  told: readonly ReportedLine[],
): Promise<void> {
  await db.query(
    `insert into intake_line (intake_id, part, kind, line, column_name, value, reason)
     select $1::bigint, $2::int, * from unnest($3::text[], $4::bigint[], $5::text[], $6::text[], $7::text[])`,
    [
      intakeId,
      part,
      told.map((each) => each.kind),
      told.map((each) => each.line),
      told.map((each) => each.column),
      told.map((each) => each.value),
      told.map((each) => each.reason),
    ],
  );
}

export interface FedMetric {
  readonly intakeId: string;
  readonly metricId: string;
  readonly firstT: number;
  readonly lastT: number;
  readonly samples: number;
  readonly added: number;
  readonly unchanged: number;
  readonly corrected: number;
}

export async function addIntakeMetric(db: Queryable, row: FedMetric): Promise<void> {
  await db.query(
    `insert into intake_metric (intake_id, metric_id, first_t, last_t, samples, added, unchanged, corrected)
     values ($1, $2, $3, $4, $5, $6, $7, $8)`,
    [
      row.intakeId,
      row.metricId,
      moment(row.firstT),
      moment(row.lastT),
      row.samples,
      row.added,
      row.unchanged,
      row.corrected,
    ],
  );
}

export async function closeIntake(
  db: Queryable,
  id: string,
  status: 'done' | 'cancelled',
  at: number,
  told: { readonly rows: number; readonly refused: number; readonly notes: unknown },
): Promise<void> {
  await db.query(
    `update intake set status = $2, finished_at = $3, row_count = $4, refused = $5, notes = $6::jsonb where id = $1`,
    [id, status, moment(at), told.rows, told.refused, JSON.stringify(told.notes)],
  );
}

export async function markUndone(db: Queryable, id: string, personId: string, at: number): Promise<void> {
  await db.query(`update intake set status = 'undone', undone_at = $2, undone_by = $3 where id = $1`, [
    id,
    moment(at),
    personId,
  ]);
}

const INTAKES = `
  select intake.id, intake.file_name as "fileName", intake.status, ${ms('intake.started_at', 'startedAt')},
         person.name as "startedBy", intake.row_count::float8 as rows, intake.refused::float8 as "refusedCount",
         intake.notes,
         coalesce(sum(fed.added), 0)::float8 as added, coalesce(sum(fed.unchanged), 0)::float8 as unchanged,
         coalesce(sum(fed.corrected), 0)::float8 as corrected,
         coalesce(jsonb_agg(jsonb_build_object('metricId', fed.metric_id::text, 'name', metric.name,
                                             'assetName', asset.name, 'added', fed.added))
                  filter (where fed.metric_id is not null), '[]') as metrics
  from intake
  join person on person.id = intake.started_by
  left join intake_metric fed on fed.intake_id = intake.id
  left join metric on metric.id = fed.metric_id
  left join asset on asset.id = metric.asset_id`;

/** Who does not reach every plant sees their own intakes, and those that went to their plants only: $1 plants, $2 who asks. */
const SEEN = `($1::bigint[] is null or intake.started_by = $2::bigint or exists (
    select 1 from intake_metric fed where fed.intake_id = intake.id))
  and ($1::bigint[] is null or not exists (
    select 1 from intake_metric fed join metric on metric.id = fed.metric_id
    join asset_place place on place.asset_id = metric.asset_id
    where fed.intake_id = intake.id and not place.plant_id = any($1::bigint[])))`;

export function listIntakes(db: Reader): Promise<IntakeWithoutLines[]> {
  return all(
    db,
    `${INTAKES} where intake.status in ('done', 'undone') and ${SEEN}
     group by intake.id, person.name order by intake.started_at desc limit 30`,
    [db.asker.sites, db.asker.personId],
  );
}

export async function findIntake(db: Reader, id: string, lineLimit: number): Promise<Intake | undefined> {
  const intake = await one<IntakeWithoutLines>(
    db,
    `${INTAKES} where intake.id = $3 and ${SEEN} group by intake.id, person.name`,
    [db.asker.sites, db.asker.personId, id],
  );
  return intake && { ...intake, lines: await listLines(db, id, lineLimit) };
}

/** What is told of lines of a file, refused ones first, `limit` of each kind. */
export function listLines(db: Queryable, id: string, limit: number): Promise<ReportedLine[]> {
  return all(
    db,
    `select kind, line::float8 as line, column_name as "column", value, reason
     from (select *, row_number() over (partition by kind order by line, column_name) as place
           from intake_line where intake_id = $1) numbered
     where place <= $2
     order by array_position(array['refused', 'met', 'repeated', 'leftOut', 'short'], kind), line, column_name`,
    [id, limit],
  );
}

/** How files of a shape were read. Who does not reach every plant has only what they remembered themselves. */
export function findMapping(db: Reader, shape: string): Promise<KeptMapping | undefined> {
  return one(
    db,
    `select layout as correct, plans, zone, file_name as "fileName", ${ms('used_at', 'usedAt')}
     from intake_mapping where shape = $3 and ($1::bigint[] is null or used_by = $2::bigint)`,
    [db.asker.sites, db.asker.personId, shape],
  );
}

export async function rememberMapping(
  db: Queryable,
  mapping: Omit<KeptMapping, 'usedAt'> & {
    readonly shape: string;
    readonly personId: string;
    readonly at: number;
  },
): Promise<void> {
  await db.query(
    `insert into intake_mapping (shape, layout, plans, zone, used_at, used_by, file_name)
     values ($1, $2::jsonb, $3::jsonb, $4, $5, $6, $7)
     on conflict (shape) do update set layout = excluded.layout, plans = excluded.plans, zone = excluded.zone,
       used_at = excluded.used_at, used_by = excluded.used_by, file_name = excluded.file_name`,
    [
      mapping.shape,
      JSON.stringify(mapping.correct),
      JSON.stringify(mapping.plans),
      mapping.zone,
      moment(mapping.at),
      mapping.personId,
      mapping.fileName,
    ],
  );
}
