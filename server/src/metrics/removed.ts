import { removedMetricsApi } from '@vivid-beacon/core/src/api/removedMetrics';
import { BeaconError, nameKey, searchWords, type RemovedMetric } from '@vivid-beacon/core';
import type { Reader } from '../db/reader';
import { endpoints } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { resetLatest } from '../samples/latestSql';
import { eraseMetric, findRemoved, pageOfRemoved, restoreMetric } from './removedSql';

async function needRemoved(db: Reader, id: string): Promise<RemovedMetric> {
  const metric = await findRemoved(db, id);
  if (!metric) throw new BeaconError('NOT_FOUND', 'There is no such removed metric.');
  return metric;
}

export const removedMetricEndpoints = endpoints(removedMetricsApi, {
  'GET /api/removed-metrics': ({ db, query: { search, ...page } }) =>
    pageOfRemoved(db, searchWords(search), page),

  'POST /api/removed-metrics/:id/restoration': async ({ app, db, params }) => {
    const { taken } = await needRemoved(db, params.id);
    await changeAndNotify(
      app.pool,
      'metrics',
      async (own) => {
        if (!(await restoreMetric(own, params.id))) {
          throw new BeaconError('WRONG_STATE', taken ?? 'This metric cannot be restored now. Try again.');
        }
        await resetLatest(own, params.id);
      },
      () => [params.id],
    );
  },

  'DELETE /api/removed-metrics/:id': async ({ app, db, params, query }) => {
    const { name } = await needRemoved(db, params.id);
    if (nameKey(query.name) !== nameKey(name)) {
      throw new BeaconError('BAD_INPUT', `Type "${name}" to erase it, got "${query.name}".`, 'name');
    }
    await changeAndNotify(
      app.pool,
      'metrics',
      (own) => eraseMetric(own, params.id),
      () => [params.id],
    );
  },
});
