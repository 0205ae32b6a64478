import { BeaconError, newMetricSchema } from '@vivid-beacon/core';
import { findAsset, listAssets } from '../assets/sql';
import { endpoint } from '../http/endpoint';
import { notify } from '../live/notify';
import { keyFrom, needMetrics, toMetric } from './metrics';
import { addMetric, listMetrics } from './sql';

/** Without a longest allowed gap of its own a metric may miss two samples. */
const USUAL_GAPS = 3;

export const metricEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/metrics',
    access: 'viewer',
    summary: 'Lists metrics with their newest sample and the health of their feed.',
    answer: '[Metric]: units as written, lengths of time in ms',
    handle: async ({ app }) => {
      const now = app.now();
      return (await listMetrics(app.pool)).map((row) => toMetric(row, now));
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/metrics/:id',
    access: 'viewer',
    summary: 'One metric.',
    answer: 'Metric. 404 NOT_FOUND.',
    handle: async ({ app, params }) =>
      toMetric((await needMetrics(app.pool, [params.id])).get(params.id)!, app.now()),
  }),
  endpoint({
    method: 'post',
    path: '/api/metrics',
    access: 'analyst',
    summary: 'Adds a metric to an asset. Its key, which pushes name it by, is made from the names.',
    answer: 'Metric. 422 BAD_INPUT when the asset has a metric of this name.',
    body: newMetricSchema,
    handle: async ({ app, body }) => {
      const asset = await findAsset(app.pool, body.assetId);
      if (!asset) throw new BeaconError('BAD_INPUT', 'This asset does not exist.', 'assetId');
      const plant = (await listAssets(app.pool)).find(({ id }) => id === asset.plantId)!;
      const place = plant.id === asset.id ? [plant.name] : [plant.name, asset.name];
      const id = await addMetric(app.pool, {
        ...body,
        key: keyFrom(...place, body.name),
        maxGapMs: body.maxGapMs ?? body.intervalMs * USUAL_GAPS,
        at: app.now(),
      });
      if (id === undefined) {
        throw new BeaconError(
          'BAD_INPUT',
          `${asset.name} already has a metric named "${body.name}".`,
          'name',
        );
      }
      await notify(app.pool, 'metrics', [id]);
      return toMetric((await needMetrics(app.pool, [id])).get(id)!, app.now());
    },
  }),
];
