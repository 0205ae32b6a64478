import { logsApi } from '@vivid-beacon/core/src/api/logs';
import {
  DAY_MS,
  BeaconError,
  type Asset,
  type StopEntry,
  type StopLog,
  type JobInput,
  type ListAnswer,
} from '@vivid-beacon/core';
import { stopTime } from '@vivid-beacon/core/src/aggregation';
import { findAsset, idsBelow, listAssets } from '../assets/sql';
import type { Reader } from '../db/reader';
import { endpoints } from '../http/endpoint';
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
  type JobRow,
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

async function needStop(db: Reader, id: string): Promise<StopEntry> {
  const stop = await findStop(db, id);
  if (!stop) throw new BeaconError('NOT_FOUND', 'This stop does not exist any more.');
  return stop;
}

async function needJob(db: Reader, id: string): Promise<JobRow> {
  const job = await findJob(db, id);
  if (!job) throw new BeaconError('NOT_FOUND', 'This job does not exist any more.');
  return job;
}

function refuseFuture(t: number, now: number, path: string): void {
  if (t > now + AHEAD_MS) throw new BeaconError('BAD_INPUT', 'The time is in the future.', path);
}

/** Working time is laid out over the whole of a job. */
const OLDEST_JOB_MS = 3660 * DAY_MS;

function refuseAncient({ history }: Pick<JobInput, 'history'>, now: number): void {
  if (history[0].at < now - OLDEST_JOB_MS) {
    const given = new Date(history[0].at).toISOString().slice(0, 10);
    throw new BeaconError(
      'BAD_INPUT',
      `A job may have begun ten years ago at most, got ${given}.`,
      'history[0].at',
    );
  }
}

/** The outcome of every entry of a list. */
async function takeList<Entry>(
  entries: readonly Entry[],
  take: (entry: Entry) => Promise<{ added: boolean }>,
): Promise<ListAnswer> {
  let added = 0;
  let changed = 0;
  const refused: { readonly index: number; readonly reason: string }[] = [];
  for (const [index, entry] of entries.entries()) {
    try {
      if ((await take(entry)).added) added++;
      else changed++;
    } catch (error) {
      if (!(error instanceof BeaconError)) throw error;
      refused.push({ index, reason: error.message });
    }
  }
  return { added, changed, refused };
}

export const logEndpoints = endpoints(logsApi, {
  'GET /api/stops': async ({ app, db, query }): Promise<StopLog> => {
    const now = app.now();
    const entries = await listStops(db, await below(db, query.assetId), query.from, query.to);
    return { entries, ...stopTime(entries, [{ start: query.from, end: query.to }], now), now };
  },

  'GET /api/stops/reasons': ({ db, query }) => frequentReasons(db, query.assetId ?? null),

  'POST /api/stops': async ({ app, db, body, person }) => {
    await needAsset(db, body.assetId);
    refuseFuture(body.start, app.now(), 'start');
    const { id } = await changeAndNotify(
      app.pool,
      'logs',
      (own) => putStop(own, body, person.name, app.now()),
      (put) => [put.id],
    );
    return needStop(db, id);
  },

  'PUT /api/stops/:id': async ({ app, db, params, body }) => {
    await needStop(db, params.id);
    await needAsset(db, body.assetId);
    refuseFuture(body.start, app.now(), 'start');
    await changeAndNotify(
      app.pool,
      'logs',
      (own) => changeStop(own, params.id, body),
      () => [params.id],
    );
    return needStop(db, params.id);
  },

  'DELETE /api/stops/:id': async ({ app, db, params }) => {
    await needStop(db, params.id);
    await changeAndNotify(
      app.pool,
      'logs',
      (own) => removeStop(own, params.id),
      () => [params.id],
    );
  },

  'POST /api/stops/list': async ({ app, db, body, person }) => {
    const now = app.now();
    const known = new Set((await listAssets(db)).map(({ id }) => id));
    const answer = await changeAndNotify(app.pool, 'logs', (own) =>
      takeList(body.entries, async (entry) => {
        if (!known.has(entry.assetId)) throw new BeaconError('BAD_INPUT', 'This asset does not exist.');
        refuseFuture(entry.start, now, 'start');
        return putStop(own, entry, person.name, now);
      }),
    );
    return answer;
  },

  'GET /api/jobs': async ({ app, db, query }) => {
    const now = app.now();
    const rows = await listJobs(db, await below(db, query.assetId), now - query.days * DAY_MS);
    return withTimes(db, rows, now);
  },

  'POST /api/jobs': async ({ app, db, body, person }) => {
    await needAsset(db, body.assetId);
    refuseFuture(body.history.at(-1)!.at, app.now(), 'history');
    refuseAncient(body, app.now());
    const { id } = await changeAndNotify(
      app.pool,
      'logs',
      (own) => putJob(own, body, person.name, app.now()),
      (put) => [put.id],
    );
    return (await withTimes(db, [await needJob(db, id)], app.now()))[0];
  },

  'POST /api/jobs/list': async ({ app, db, body, person }) => {
    const known = new Set((await listAssets(db)).map(({ id }) => id));
    const answer = await changeAndNotify(app.pool, 'logs', (own) =>
      takeList(body.jobs, async (job) => {
        if (!known.has(job.assetId)) throw new BeaconError('BAD_INPUT', 'This desk does not exist.');
        refuseAncient(job, app.now());
        return putJob(own, job, person.name, app.now());
      }),
    );
    return answer;
  },

  'POST /api/jobs/:id/statuses': async ({ app, db, params, body, person }) => {
    const job = await needJob(db, params.id);
    refuseFuture(body.at, app.now(), 'at');
    if (body.at <= job.history.at(-1)!.at) {
      throw new BeaconError(
        'BAD_INPUT',
        'The time of the new status must be later than that of the last one.',
        'at',
      );
    }
    await changeAndNotify(
      app.pool,
      'logs',
      (own) => addStatus(own, params.id, body, person.name),
      () => [params.id],
    );
    return (await withTimes(db, [await needJob(db, params.id)], app.now()))[0];
  },

  'GET /api/desks/:id/statuses': async ({ db, params }) =>
    (await listStatusKinds(db, [params.id])).map(({ status, stopsClock, endsJob }) => ({
      status,
      stopsClock,
      endsJob,
    })),

  'PUT /api/desks/:id/statuses': async ({ app, db, params, body }) => {
    await needAsset(db, params.id);
    await changeAndNotify(app.pool, 'logs', (own) => writeStatusKinds(own, params.id, body.kinds));
    return body.kinds;
  },
});
