import type { JobEntry, StatusKind, StopEntry, StopInput, JobInput } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { SEEN_PLANT } from '../db/conditions';
import { all, one, type Queryable } from '../db/database';
import type { Reader } from '../db/reader';

const STOP = `
  select stop.id, stop.asset_id as "assetId", asset.name as "assetName", place.plant_name as "plantName", place.zone,
         ${ms('stop.start_at', 'start')}, ${ms('stop.end_at', 'end')}, stop.category, stop.reason, stop.note,
         stop.entered_by as "enteredBy"
  from stop_entry stop join asset on asset.id = stop.asset_id join asset_place place on place.asset_id = asset.id`;

/** Stops that touch a stretch of time, newest first. `assetIds` null = all. */
export function listStops(
  db: Reader,
  assetIds: readonly string[] | null,
  from: number,
  to: number,
): Promise<StopEntry[]> {
  return all(
    db,
    `${STOP} where ${SEEN_PLANT} and ($2::bigint[] is null or stop.asset_id = any($2::bigint[]))
       and stop.start_at < $4::timestamptz and coalesce(stop.end_at, 'infinity') > $3::timestamptz
     order by stop.end_at is not null, stop.start_at desc limit 5000`,
    [db.asker.sites, assetIds, moment(from), moment(to)],
  );
}

export function findStop(db: Reader, id: string): Promise<StopEntry | undefined> {
  return one(db, `${STOP} where ${SEEN_PLANT} and stop.id = $2`, [db.asker.sites, id]);
}

/** `key`: of a list, by which it is found again. */
export type StopParts = StopInput & { readonly key?: string | null };

/** Adds a stop; one with a key that is there already is updated. @returns its id and whether it is new. */
export async function putStop(
  db: Queryable,
  stop: StopParts,
  enteredBy: string,
  at: number,
): Promise<{ id: string; added: boolean }> {
  const row = await one<{ id: string; added: boolean }>(
    db,
    `insert into stop_entry (asset_id, start_at, end_at, category, reason, note, entry_key, entered_by, entered_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9)
     on conflict (asset_id, entry_key) where entry_key is not null do update
       set start_at = excluded.start_at, end_at = excluded.end_at, category = excluded.category,
           reason = excluded.reason, note = excluded.note
     returning id, xmax = 0 as added`,
    [
      stop.assetId,
      moment(stop.start),
      stop.end === null ? null : moment(stop.end),
      stop.category,
      stop.reason,
      stop.note,
      stop.key ?? null,
      enteredBy,
      moment(at),
    ],
  );
  return row!;
}

export async function changeStop(db: Queryable, id: string, stop: StopParts): Promise<void> {
  await db.query(
    `update stop_entry set asset_id = $2, start_at = $3, end_at = $4, category = $5, reason = $6, note = $7
     where id = $1`,
    [
      id,
      stop.assetId,
      moment(stop.start),
      stop.end === null ? null : moment(stop.end),
      stop.category,
      stop.reason,
      stop.note,
    ],
  );
}

export async function removeStop(db: Queryable, id: string): Promise<void> {
  await db.query('delete from stop_entry where id = $1', [id]);
}

/** Reasons used before on an asset or anywhere, the most frequent first: what the phone offers to tap. */
export async function frequentReasons(db: Reader, assetId: string | null): Promise<string[]> {
  const rows = await all<{ reason: string }>(
    db,
    `select stop.reason from stop_entry stop join asset_place place on place.asset_id = stop.asset_id where ${SEEN_PLANT}
     group by stop.reason
     order by count(*) filter (where stop.asset_id = $2::bigint) desc, count(*) desc, stop.reason limit 12`,
    [db.asker.sites, assetId],
  );
  return rows.map(({ reason }) => reason);
}

/** A job with its history, before its time is worked out. */
export interface JobRow extends Omit<JobEntry, 'open' | 'workingMs' | 'elapsedMs'> {
  readonly plantId: string;
}

const JOB = `
  select job.id, job.asset_id as "assetId", asset.name as "assetName", place.zone, place.plant_id as "plantId",
         job.number, job.category, job.customer, job.owner, job.fields,
         jsonb_agg(jsonb_build_object('at', (extract(epoch from status.at) * 1000)::float8, 'status', status.status,
                                      'by', status.by) order by status.at) as history
  from job_entry job join asset on asset.id = job.asset_id join asset_place place on place.asset_id = asset.id
  join job_status status on status.job_id = job.id`;

/** Jobs whose newest status is younger than `from` or that are open, newest first. */
export function listJobs(db: Reader, assetIds: readonly string[] | null, from: number): Promise<JobRow[]> {
  return all(
    db,
    `${JOB} where ${SEEN_PLANT} and ($2::bigint[] is null or job.asset_id = any($2::bigint[]))
     group by job.id, asset.name, place.zone, place.plant_id
     having max(status.at) >= $3::timestamptz
        or not exists (select 1 from job_status_kind kind
                       where kind.asset_id = job.asset_id and kind.ends_job
                         and kind.status = (array_agg(status.status order by status.at desc))[1])
     order by max(status.at) desc limit 5000`,
    [db.asker.sites, assetIds, moment(from)],
  );
}

export function findJob(db: Reader, id: string): Promise<JobRow | undefined> {
  return one(
    db,
    `${JOB} where ${SEEN_PLANT} and job.id = $2 group by job.id, asset.name, place.zone, place.plant_id`,
    [db.asker.sites, id],
  );
}

/** Adds a job, or brings the one with this number up to date. @returns its id and whether it is new. */
export async function putJob(
  db: Queryable,
  job: JobInput,
  by: string,
  at: number,
): Promise<{ id: string; added: boolean }> {
  const row = (await one<{ id: string; added: boolean }>(
    db,
    `insert into job_entry (asset_id, number, category, customer, owner, fields, entered_by, entered_at)
     values ($1, $2, $3, $4, $5, $6::jsonb, $7, $8)
     on conflict (asset_id, number) do update set category = excluded.category, customer = excluded.customer,
       owner = excluded.owner, fields = excluded.fields
     returning id, xmax = 0 as added`,
    [
      job.assetId,
      job.number,
      job.category,
      job.customer,
      job.owner,
      JSON.stringify(job.fields),
      by,
      moment(at),
    ],
  ))!;
  await db.query(
    `insert into job_status (job_id, at, status, by)
     select $1::bigint, t, s, $4 from unnest($2::timestamptz[], $3::text[]) as h (t, s)
     on conflict (job_id, at) do update set status = excluded.status`,
    [row.id, job.history.map((each) => moment(each.at)), job.history.map((each) => each.status), by],
  );
  return row;
}

export async function addStatus(
  db: Queryable,
  jobId: string,
  status: { at: number; status: string },
  by: string,
): Promise<void> {
  await db.query(
    `insert into job_status (job_id, at, status, by) values ($1, $2, $3, $4)
     on conflict (job_id, at) do update set status = excluded.status, by = excluded.by`,
    [jobId, moment(status.at), status.status, by],
  );
}

export function listStatusKinds(
  db: Reader,
  assetIds: readonly string[] | null,
): Promise<(StatusKind & { assetId: string })[]> {
  return all(
    db,
    `select kind.asset_id as "assetId", kind.status, kind.stops_clock as "stopsClock", kind.ends_job as "endsJob"
     from job_status_kind kind join asset_place place on place.asset_id = kind.asset_id
     where ${SEEN_PLANT} and ($2::bigint[] is null or kind.asset_id = any($2::bigint[])) order by kind.status`,
    [db.asker.sites, assetIds],
  );
}

export async function writeStatusKinds(
  db: Queryable,
  assetId: string,
  kinds: readonly StatusKind[],
): Promise<void> {
  await db.query('delete from job_status_kind where asset_id = $1', [assetId]);
  await db.query(
    `insert into job_status_kind (asset_id, status, stops_clock, ends_job)
     select $1::bigint, * from unnest($2::text[], $3::bool[], $4::bool[]) on conflict do nothing`,
    [
      assetId,
      kinds.map(({ status }) => status),
      kinds.map(({ stopsClock }) => stopsClock),
      kinds.map(({ endsJob }) => endsJob),
    ],
  );
}
