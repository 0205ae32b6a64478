import type { Intake, Refusal } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

export interface IntakeRow {
  readonly id: string;
  readonly status: Intake['status'];
  readonly startedById: string;
  readonly fileName: string;
}

/** Columns of one metric on their way, as they lie in `intake_batch`. */
export interface BatchPart {
  readonly metricId: string;
  readonly t: readonly number[];
  readonly v: readonly number[];
}

export async function addIntake(
  db: Queryable,
  intake: {
    fileName: string;
    fileSize: number;
    fileHash: string;
    layout: unknown;
    startedBy: string;
    at: number;
  },
): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    `insert into intake (file_name, file_size, file_hash, layout, status, started_at, started_by)
     values ($1, $2, $3, $4::jsonb, 'reading', $5, $6) returning id`,
    [
      intake.fileName,
      intake.fileSize,
      intake.fileHash,
      JSON.stringify(intake.layout),
      moment(intake.at),
      intake.startedBy,
    ],
  );
  return row!.id;
}

export function lockIntake(db: Queryable, id: string): Promise<IntakeRow | undefined> {
  return one(
    db,
    `select id, status, started_by as "startedById", file_name as "fileName" from intake where id = $1 for update`,
    [id],
  );
}

/** The same batch again (same number) replaces the first, so that a lost answer can be asked for again. */
export async function putBatch(
  db: Queryable,
  intakeId: string,
  seq: number,
  parts: readonly BatchPart[],
): Promise<void> {
  await db.query(
    `insert into intake_batch (intake_id, seq, payload) values ($1, $2, $3::jsonb)
     on conflict (intake_id, seq) do update set payload = excluded.payload`,
    [intakeId, seq, JSON.stringify(parts)],
  );
}

export async function countBatches(db: Queryable, intakeId: string): Promise<number> {
  return (await one<{ n: number }>(db, 'select count(*)::int as n from intake_batch where intake_id = $1', [
    intakeId,
  ]))!.n;
}

export async function readBatch(db: Queryable, intakeId: string, seq: number): Promise<BatchPart[]> {
  const row = await one<{ payload: BatchPart[] }>(
    db,
    'select payload from intake_batch where intake_id = $1 and seq = $2',
    [intakeId, seq],
  );
  return row?.payload ?? [];
}

export async function dropBatches(db: Queryable, intakeId: string): Promise<void> {
  await db.query('delete from intake_batch where intake_id = $1', [intakeId]);
}

export async function addRefusals(
  db: Queryable,
  intakeId: string,
  refusals: readonly Refusal[],
): Promise<void> {
  await db.query(
    `insert into intake_refusal (intake_id, line, column_name, value, reason)
     select $1::bigint, * from unnest($2::bigint[], $3::text[], $4::text[], $5::text[])`,
    [
      intakeId,
      refusals.map((each) => each.line),
      refusals.map((each) => each.column),
      refusals.map((each) => each.value),
      refusals.map((each) => each.reason),
    ],
  );
}

export async function addIntakeMetric(
  db: Queryable,
  row: {
    intakeId: string;
    metricId: string;
    firstT: number;
    lastT: number;
    samples: number;
    added: number;
    unchanged: number;
    corrected: number;
  },
): Promise<void> {
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
  rows: number,
  refused: number,
): Promise<void> {
  await db.query(
    'update intake set status = $2, finished_at = $3, row_count = $4, refused = $5 where id = $1',
    [id, status, moment(at), rows, refused],
  );
}

const INTAKES = `
  select intake.id, intake.file_name as "fileName", intake.status, ${ms('intake.started_at', 'startedAt')},
         person.name as "startedBy", intake.row_count::float8 as rows, intake.refused::float8 as "refusedCount",
         coalesce(sum(fed.added), 0)::float8 as added, coalesce(sum(fed.unchanged), 0)::float8 as unchanged,
         coalesce(sum(fed.corrected), 0)::float8 as corrected,
         coalesce(jsonb_agg(jsonb_build_object('metricId', fed.metric_id::text, 'name', metric.name, 'added', fed.added))
                  filter (where fed.metric_id is not null), '[]') as metrics
  from intake
  join person on person.id = intake.started_by
  left join intake_metric fed on fed.intake_id = intake.id
  left join metric on metric.id = fed.metric_id`;

export function listIntakes(db: Queryable): Promise<Omit<Intake, 'refusals'>[]> {
  return all(
    db,
    `${INTAKES} where intake.status = 'done' group by intake.id, person.name order by intake.started_at desc limit 30`,
  );
}

export async function findIntake(
  db: Queryable,
  id: string,
  refusalLimit: number,
): Promise<Intake | undefined> {
  const intake = await one<Omit<Intake, 'refusals'>>(
    db,
    `${INTAKES} where intake.id = $1 group by intake.id, person.name`,
    [id],
  );
  if (!intake) return undefined;
  const refusals = await all<Refusal>(
    db,
    `select line::float8 as line, column_name as "column", value, reason from intake_refusal
     where intake_id = $1 order by line, column_name limit $2`,
    [id, refusalLimit],
  );
  return { ...intake, refusals };
}
