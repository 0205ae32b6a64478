import { tokensApi } from '@vivid-beacon/core/src/api/tokens';
import { BeaconError, type MetricKind } from '@vivid-beacon/core';
import { findAsset } from '../assets/sql';
import { readAs } from '../db/reader';
import { withTransaction } from '../db/database';
import { endpoints } from '../http/endpoint';
import { notify } from '../live/notify';
import { makeMetric } from '../metrics/makeMetric';
import { needMetrics } from '../metrics/metrics';
import { listHeard, mapSeries } from '../arrivals/heardSql';
import { addToken, changeRule, listTokens, revokeToken } from './sql';
import { makeToken } from './tokenOfRequest';

export const tokenEndpoints = endpoints(tokensApi, {
  'GET /api/push-tokens': ({ app }) => listTokens(app.pool),

  'POST /api/push-tokens': async ({ app, body, person }) => {
    const { token, hash } = makeToken();
    const id = await addToken(app.pool, { name: body.name, hash, createdBy: person.id, at: app.now() });
    return { id, token };
  },

  'DELETE /api/push-tokens/:id': async ({ app, params }) => {
    if (!(await revokeToken(app.pool, params.id, app.now()))) {
      throw gone();
    }
    app.tokens.forget();
  },

  'PUT /api/push-tokens/:id/rule': async ({ app, db, params, body }) => {
    if (body.parentId !== null && !(await findAsset(db, body.parentId))) {
      throw new BeaconError('BAD_INPUT', 'This asset does not exist.', 'parentId');
    }
    if (!(await changeRule(app.pool, params.id, body))) throw gone();
    app.tokens.forget();
  },

  'GET /api/push-tokens/:id/heard': ({ app, params }) => listHeard(app.pool, params.id),

  'POST /api/push-tokens/:id/heard': async ({ app, db, params, body }) => {
    const metricId = await withTransaction(app.pool, async (client) => {
      const own = readAs(client, db.asker);
      const { make } = body;
      const id = make
        ? await makeMetric(own, {
            ...make,
            kind: make.kind as MetricKind,
            maxGapMs: make.intervalMs * DEFAULT_GAPS,
            rollover: null,
            decimals: 1,
            origin: 'samples',
            at: app.now(),
          })
        : body.metricId;
      if (id !== null) {
        const metric = (await needMetrics(own, [id])).get(id)!;
        if (metric.origin !== 'samples') {
          throw new BeaconError(
            'BAD_INPUT',
            `${metric.name} is a ${metric.origin} metric and takes no samples.`,
            'metricId',
          );
        }
      }
      if (!(await mapSeries(own, params.id, body.series, id))) {
        throw new BeaconError('NOT_FOUND', 'This token has never sent such a series.', 'series');
      }
      if (make) await notify(own, 'metrics', [id!]);
      return id;
    });
    return { metricId };
  },
});

/** Without a longest allowed gap of its own a metric may miss two samples. */
const DEFAULT_GAPS = 3;

function gone(): BeaconError {
  return new BeaconError('NOT_FOUND', 'This token does not exist or is revoked already.');
}
