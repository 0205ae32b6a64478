import * as yup from 'yup';
import { DAY_MS, BeaconError, idText, type Asset, type StopLog, fromAndTo } from '@vivid-beacon/core';
import {
  jobSchema,
  jobsSchema,
  statusKindsSchema,
  statusSchema,
  stopSchema,
  stopsSchema,
  stopTime,
} from '@vivid-beacon/core/src/engine';
import { findAsset, idsBelow, listAssets } from '../assets/sql';
import type { Reader } from '../db/reader';
import { endpoint } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { withTimes } from './jobs';
import {
  addStatus,
  changeStop,
  findJob,
  findStop,
  frequentReasons,
  listJobs,
  listStatusKinds,
  listStops,
  putJob,
  putStop,
  removeStop,
  writeStatusKinds,
  type JobParts,
  type StopParts,
} from './sql';

const AHEAD_MS = 5 * 60_000;

/** An asset with everything below it; null = all. */
async function below(db: Reader, assetId: string | undefined): Promise<string[] | null> {
  return assetId ? idsBelow(db, assetId) : null;
}

async function needAsset(db: Reader, id: string): Promise<Asset> {
  const asset = await findAsset(db, id);
  if (!asset) throw new BeaconError('BAD_INPUT', 'This asset does not exist.', 'assetId');
  return asset;
}

function refuseFuture(t: number, now: number, path: string): void {
  if (t > now + AHEAD_MS) throw new BeaconError('BAD_INPUT', 'The time lies in the future.', path);
}

/** Working time is laid out over the whole of a job. */
const OLDEST_JOB_MS = 3660 * DAY_MS;

function refuseAncient({ history }: Pick<JobParts, 'history'>, now: number): void {
  if (history[0].at < now - OLDEST_JOB_MS) {
    const given = new Date(history[0].at).toISOString().slice(0, 10);
    throw new BeaconError(
      'BAD_INPUT',
      `A job may have begun ten years ago at most, got ${given}.`,
      'history[0].at',
    );
  }
}

const windowQuery = yup
  .object({
    assetId: idText().optional(),
    ...fromAndTo(),
  })
  .noUnknown();

/** What happened to every entry of a list. */
interface ListAnswer {
  added: number;
  changed: number;
  refused: { index: number; reason: string }[];
}

async function takeList<Entry>(
  entries: readonly Entry[],
  take: (entry: Entry) => Promise<{ added: boolean }>,
): Promise<ListAnswer> {
  const answer: ListAnswer = { added: 0, changed: 0, refused: [] };
  for (const [index, entry] of entries.entries()) {
    try {
      if ((await take(entry)).added) answer.added++;
      else answer.changed++;
    } catch (error) {
      if (!(error instanceof BeaconError)) throw error;
      answer.refused.push({ index, reason: error.message });
    }
  }
  return answer;
}

export const logEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/stops',
    access: 'viewer',
    summary: 'The stop log of a stretch of time, of an asset and all below it or of all.',
    answer:
      'StopLog: { entries, byReason: [{ reason, stops, ms }], totalMs, now }; overlapping stops of an asset count once',
    query: windowQuery,
    handle: async ({ app, db, query }): Promise<StopLog> => {
      const now = app.now();
      const entries = await listStops(app.pool, await below(db, query.assetId), query.from, query.to);
      return { entries, ...stopTime(entries, { start: query.from, end: query.to }, now), now };
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/stops/reasons',
    access: 'viewer',
    summary: 'Reasons given before, the most frequent of an asset first.',
    answer: '[text], at most 12',
    query: yup.object({ assetId: idText().optional() }).noUnknown(),
    handle: ({ app, query }) => frequentReasons(app.pool, query.assetId ?? null),
  }),
  endpoint({
    method: 'post',
    path: '/api/stops',
    access: 'operator',
    summary: 'Enters a stop by hand: since when, why, still open or until when.',
    answer: 'StopEntry',
    body: stopSchema,
    handle: async ({ app, db, body, person }) => {
      await needAsset(db, body.assetId);
      refuseFuture(body.start, app.now(), 'start');
      const { id } = await changeAndNotify(
        app.pool,
        'logs',
        (db) => putStop(db, body as StopParts, person.name, app.now()),
        (put) => [put.id],
      );
      return findStop(app.pool, id);
    },
  }),
  endpoint({
    method: 'put',
    path: '/api/stops/:id',
    access: 'operator',
    summary: 'Changes or ends a stop.',
    answer: 'StopEntry. 404 NOT_FOUND.',
    body: stopSchema,
    handle: async ({ app, db, params, body }) => {
      if (!(await findStop(app.pool, params.id))) throw new BeaconError('NOT_FOUND', 'This stop is gone.');
      await needAsset(db, body.assetId);
      refuseFuture(body.start, app.now(), 'start');
      await changeAndNotify(
        app.pool,
        'logs',
        (db) => changeStop(db, params.id, body as StopParts),
        () => [params.id],
      );
      return findStop(app.pool, params.id);
    },
  }),
  endpoint({
    method: 'delete',
    path: '/api/stops/:id',
    access: 'operator',
    summary: 'Takes a stop out of the log.',
    answer: 'Nothing (204).',
    handle: async ({ app, params }) => {
      await changeAndNotify(
        app.pool,
        'logs',
        (db) => removeStop(db, params.id),
        () => [params.id],
      );
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/stops/list',
    access: 'analyst',
    summary:
      'Enters many stops, for example from a file. One with a key that is there already is brought up to date.',
    answer: '{ added, changed, refused: [{ index, reason }] }',
    body: stopsSchema,
    limit: 5_000_000,
    handle: async ({ app, db, body, person }) => {
      const now = app.now();
      const known = new Set((await listAssets(db)).map(({ id }) => id));
      const answer = await changeAndNotify(app.pool, 'logs', (db) =>
        takeList(body.entries as unknown as StopParts[], async (entry) => {
          if (!known.has(entry.assetId)) throw new BeaconError('BAD_INPUT', 'This asset does not exist.');
          refuseFuture(entry.start, now, 'start');
          return putStop(db, entry, person.name, now);
        }),
      );
      return answer;
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/jobs',
    access: 'viewer',
    summary: 'The job log: open jobs, and those that changed in the last days.',
    answer: '[JobEntry]: workingMs counts our own statuses in working hours only; times in ms',
    query: yup
      .object({ assetId: idText().optional(), days: yup.number().integer().min(1).max(400).default(30) })
      .noUnknown(),
    handle: async ({ app, db, query }) => {
      const now = app.now();
      const rows = await listJobs(app.pool, await below(db, query.assetId), now - query.days * DAY_MS);
      return withTimes(app.pool, rows, now);
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/jobs',
    access: 'operator',
    summary: 'Enters a job with its first status, or brings the one of this number up to date.',
    answer: 'JobEntry',
    body: jobSchema,
    handle: async ({ app, db, body, person }) => {
      await needAsset(db, body.assetId);
      refuseFuture(body.history.at(-1)!.at, app.now(), 'history');
      refuseAncient(body, app.now());
      const { id } = await changeAndNotify(
        app.pool,
        'logs',
        (db) => putJob(db, body as JobParts, person.name, app.now()),
        (put) => [put.id],
      );
      return (await withTimes(app.pool, [(await findJob(app.pool, id))!], app.now()))[0];
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/jobs/list',
    access: 'analyst',
    summary: 'Enters many jobs with their histories, for example from a file.',
    answer: '{ added, changed, refused: [{ index, reason }] }',
    body: jobsSchema,
    limit: 5_000_000,
    handle: async ({ app, db, body, person }) => {
      const known = new Set((await listAssets(db)).map(({ id }) => id));
      const answer = await changeAndNotify(app.pool, 'logs', (db) =>
        takeList(body.jobs as JobParts[], async (job) => {
          if (!known.has(job.assetId)) throw new BeaconError('BAD_INPUT', 'This desk does not exist.');
          refuseAncient(job, app.now());
          return putJob(db, job, person.name, app.now());
        }),
      );
      return answer;
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/jobs/:id/statuses',
    access: 'operator',
    summary: 'Gives a job a new status.',
    answer: 'JobEntry. 404 NOT_FOUND.',
    body: statusSchema,
    handle: async ({ app, params, body, person }) => {
      const job = await findJob(app.pool, params.id);
      if (!job) throw new BeaconError('NOT_FOUND', 'This job is gone.');
      refuseFuture(body.at, app.now(), 'at');
      if (body.at <= job.history.at(-1)!.at) {
        throw new BeaconError('BAD_INPUT', 'The new status must come after the last one.', 'at');
      }
      await changeAndNotify(
        app.pool,
        'logs',
        (db) => addStatus(db, params.id, body, person.name),
        () => [params.id],
      );
      return (await withTimes(app.pool, [(await findJob(app.pool, params.id))!], app.now()))[0];
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/desks/:id/statuses',
    access: 'viewer',
    summary: 'What the statuses of a desk mean.',
    answer: '[{ status, stopsClock, endsJob }]',
    handle: async ({ app, params }) =>
      (await listStatusKinds(app.pool, [params.id])).map(({ status, stopsClock, endsJob }) => ({
        status,
        stopsClock,
        endsJob,
      })),
  }),
  endpoint({
    method: 'put',
    path: '/api/desks/:id/statuses',
    access: 'analyst',
    summary: 'Sets what the statuses of a desk mean: which stop the clock, which end a job.',
    answer: '[{ status, stopsClock, endsJob }]',
    body: statusKindsSchema,
    handle: async ({ app, db, params, body }) => {
      await needAsset(db, params.id);
      await changeAndNotify(app.pool, 'logs', (db) => writeStatusKinds(db, params.id, body.kinds));
      return body.kinds;
    },
  }),
];
