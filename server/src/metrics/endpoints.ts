import { BeaconError, metricListSchema, type MetricKind } from '@vivid-beacon/core';
import { metricSchema, newMetricSchema } from '@vivid-beacon/core/src/engine';
import { ucumCode } from '@vivid-beacon/core/src/units/unit';
import { withTransaction } from '../db/database';
import { endpoint } from '../http/endpoint';
import { readAs } from '../db/reader';
import { changeAndNotify } from '../live/changeAndNotify';
import { notify } from '../live/notify';
import { judgeFeed } from '../samples/latestSql';
import { rebuildRollups } from '../samples/rebuild';
import { makeMetric } from './makeMetric';
import { needMetrics, toMetric } from './metrics';
import { listPage } from './list';
import { countFeeds } from './searchSql';
import { changeMetric, latestAsJson, removeMetric } from './sql';

/** Without a longest allowed gap of its own a metric may miss two samples. */
const USUAL_GAPS = 3;

export const metricEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/metrics',
    access: 'viewer',
    summary:
      'Metrics with their newest sample and the health of their feed, in the order of their full names: by id, on or below an asset, ' +
      'or found by words that stand anywhere in the names from the plant down, or in the key.',
    answer: '{ items: [Metric], total }: units as written, lengths of time in ms',
    query: metricListSchema,
    handle: ({ app, db, query }) => listPage(db, query as Parameters<typeof listPage>[1], app.now()),
  }),
  endpoint({
    method: 'get',
    path: '/api/metrics/feeds',
    access: 'viewer',
    summary: 'How many feeds there are in each state.',
    answer: '{ reporting, silent, never, flat, outOfRange, clockAhead }; a state without any is left out',
    handle: ({ app, db }) => countFeeds(db, app.now()),
  }),
  endpoint({
    method: 'get',
    path: '/api/latest',
    access: 'viewer',
    summary: 'The newest sample of every metric, in columns: made for screens that ask often.',
    answer: '{ id: [], t: [] (ms), v: [], q: [] }; a metric without samples is left out',
    handle: async ({ app, response }) => {
      response.setHeader('Content-Type', 'application/json; charset=utf-8');
      response.end(await latestAsJson(app.pool));
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/metrics/:id',
    access: 'viewer',
    summary: 'One metric.',
    answer: 'Metric. 404 NOT_FOUND.',
    handle: async ({ app, db, params }) =>
      toMetric((await needMetrics(db, [params.id])).get(params.id)!, app.now()),
  }),
  endpoint({
    method: 'post',
    path: '/api/metrics',
    access: 'analyst',
    summary: 'Adds a metric to an asset. Its key, which pushes name it by, is made from the names.',
    answer: 'Metric. 422 BAD_INPUT when the asset has a metric of this name.',
    body: newMetricSchema,
    handle: async ({ app, db, body }) => {
      const metric = {
        ...body,
        origin: 'samples' as const,
        maxGapMs: body.maxGapMs ?? body.intervalMs * USUAL_GAPS,
        at: app.now(),
      };
      const id = await changeAndNotify(
        app.pool,
        'metrics',
        (own) => makeMetric(readAs(own, db.asker), metric),
        (made) => [made],
      );
      return toMetric((await needMetrics(db, [id])).get(id)!, app.now());
    },
  }),
  endpoint({
    method: 'put',
    path: '/api/metrics/:id',
    access: 'analyst',
    summary: 'Changes a metric; its rollups are made again where they rest on what changed.',
    answer: 'Metric. 422 BAD_INPUT when the asset has another metric of this name.',
    body: metricSchema,
    handle: async ({ app, db, params, body }) => {
      const before = (await needMetrics(db, [params.id])).get(params.id)!;
      const maxGapMs = body.maxGapMs ?? body.intervalMs * USUAL_GAPS;
      await withTransaction(app.pool, async (db) => {
        const done = await changeMetric(db, params.id, {
          ...body,
          kind: body.kind as MetricKind,
          maxGapMs,
          ucum: ucumCode(body.unit),
        });
        if (!done) {
          throw new BeaconError(
            'BAD_INPUT',
            `${before.assetName} already has a metric named "${body.name}".`,
            'name',
          );
        }
        await judgeFeed(db, params.id);
        const same =
          before.kind === body.kind &&
          before.intervalMs === body.intervalMs &&
          before.maxGapMs === maxGapMs &&
          before.rollover === body.rollover &&
          before.plausibleLow === body.plausibleLow &&
          before.plausibleHigh === body.plausibleHigh;
        if (!same && before.origin === 'samples') await rebuildRollups(db, params.id);
        await notify(db, 'metrics', [params.id]);
        await notify(db, 'samples', [params.id]);
      });
      return toMetric((await needMetrics(db, [params.id])).get(params.id)!, app.now());
    },
  }),
  endpoint({
    method: 'delete',
    path: '/api/metrics/:id',
    access: 'analyst',
    summary: 'Takes a metric off every list. Its samples stay in the database.',
    answer: 'Nothing (204).',
    handle: async ({ app, db, params }) => {
      await needMetrics(db, [params.id]);
      await changeAndNotify(
        app.pool,
        'metrics',
        (db) => removeMetric(db, params.id, app.now()),
        () => [params.id],
      );
    },
  }),
];
