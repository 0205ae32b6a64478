import { metricsApi } from '@vivid-beacon/core/src/api/metrics';
import { BeaconError, stampShift } from '@vivid-beacon/core';
import { ucumCode } from '@vivid-beacon/core/src/units/unit';
import { findAsset } from '../assets/sql';
import { withTransaction } from '../db/database';
import { endpoints, SENT } from '../http/endpoint';
import { readAs } from '../db/reader';
import { changeAndNotify } from '../live/changeAndNotify';
import { notify } from '../live/notify';
import { judgeFeed } from '../samples/latestSql';
import { rebuildRollups } from '../samples/rebuild';
import { shiftSamples } from '../samples/shift';
import { metricsAlike, metricsAsNamed } from './alikeSql';
import { makeMetric } from './makeMetric';
import { needMetrics, toMetric } from './metrics';
import { listMetricPage } from './list';
import { countFeeds } from './searchSql';
import { changeMetric, latestAsJson, removeMetric } from './sql';

/** Without a longest allowed gap of its own a metric may miss two samples. */
const DEFAULT_GAPS = 3;

export const metricEndpoints = endpoints(metricsApi, {
  'GET /api/metrics': ({ app, db, query }) => listMetricPage(db, query, app.now()),

  'GET /api/metrics/feeds': ({ app, db }) => countFeeds(db, app.now()),

  'POST /api/metrics/named': async ({ app, db, body }) => {
    const now = app.now();
    return (await metricsAsNamed(db, body.metrics)).map((row) => toMetric(row, now));
  },

  'GET /api/assets/:id/metrics-below': async ({ app, db, params, query }) => {
    if (!(await findAsset(db, params.id))) {
      throw new BeaconError('NOT_FOUND', 'This asset does not exist.');
    }
    const alike = await metricsAlike(db, params.id, query.depth);
    const first = await needMetrics(db, [...new Set(alike.map(({ metricId }) => metricId))]);
    const now = app.now();
    return alike.map(({ level, metricId, assetIds }) => ({
      level,
      metric: toMetric(first.get(metricId)!, now),
      assetIds,
    }));
  },

  'GET /api/latest': async ({ db, response }) => {
    response.setHeader('Content-Type', 'application/json; charset=utf-8');
    response.end(await latestAsJson(db));
    return SENT;
  },

  'GET /api/metrics/:id': async ({ app, db, params }) =>
    toMetric((await needMetrics(db, [params.id])).get(params.id)!, app.now()),

  'POST /api/metrics': async ({ app, db, body }) => {
    const metric = {
      ...body,
      origin: 'samples' as const,
      maxGapMs: body.maxGapMs ?? body.intervalMs * DEFAULT_GAPS,
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

  'PUT /api/metrics/:id': async ({ app, db, params, body }) => {
    const before = (await needMetrics(db, [params.id])).get(params.id)!;
    const maxGapMs = body.maxGapMs ?? body.intervalMs * DEFAULT_GAPS;
    await withTransaction(app.pool, async (db) => {
      const done = await changeMetric(db, params.id, {
        ...body,
        kind: body.kind,
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
        before.cut === body.cut &&
        before.plausibleLow === body.plausibleLow &&
        before.plausibleHigh === body.plausibleHigh;
      if (before.origin === 'samples') {
        // Samples read by other stamps lie elsewhere.
        const later = stampShift(before, before.stamped) - stampShift(body, body.stamped);
        if (later !== 0) await shiftSamples(db, params.id, later, app.now());
        if (!same || later !== 0) await rebuildRollups(db, params.id);
      }
      await notify(db, 'metrics', [params.id]);
      await notify(db, 'samples', [params.id]);
    });
    return toMetric((await needMetrics(db, [params.id])).get(params.id)!, app.now());
  },

  'DELETE /api/metrics/:id': async ({ app, db, params }) => {
    await needMetrics(db, [params.id]);
    await changeAndNotify(
      app.pool,
      'metrics',
      (db) => removeMetric(db, params.id, app.now()),
      () => [params.id],
    );
  },
});
