import { BeaconError, newTokenSchema, type MetricKind, type PushRule } from '@vivid-beacon/core';
import { mapSeriesSchema, pushRuleSchema } from '@vivid-beacon/core/src/engine';
import { findAsset } from '../assets/sql';
import { readAs } from '../db/reader';
import { withTransaction } from '../db/database';
import { endpoint } from '../http/endpoint';
import { notify } from '../live/notify';
import { makeMetric } from '../metrics/makeMetric';
import { needMetrics } from '../metrics/metrics';
import { listHeard, mapSeries } from '../samples/heardSql';
import { addToken, changeRule, listTokens, revokeToken } from './sql';
import { makeToken } from './tokenOfRequest';

export const tokenEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/push-tokens',
    access: 'analyst',
    summary: 'Lists the push tokens in use; never the tokens themselves.',
    answer:
      '[{ id, name, createdAt, createdBy, lastUsedAt, rule, waiting }]; waiting = series heard without a metric',
    handle: ({ app }) => listTokens(app.pool),
  }),
  endpoint({
    method: 'post',
    path: '/api/push-tokens',
    access: 'analyst',
    summary: 'Makes a push token. It is shown in this answer only.',
    answer: '{ id, token }',
    body: newTokenSchema,
    handle: async ({ app, body, person }) => {
      const { token, hash } = makeToken();
      const id = await addToken(app.pool, { name: body.name, hash, createdBy: person.id, at: app.now() });
      return { id, token };
    },
  }),
  endpoint({
    method: 'delete',
    path: '/api/push-tokens/:id',
    access: 'analyst',
    summary: 'Revokes a push token; what sends with it is refused from now on.',
    answer: 'Nothing (204).',
    handle: async ({ app, params }) => {
      if (!(await revokeToken(app.pool, params.id, app.now()))) {
        throw gone();
      }
      app.tokens.forget();
    },
  }),
  endpoint({
    method: 'put',
    path: '/api/push-tokens/:id/rule',
    access: 'analyst',
    summary:
      'Sets how exposition text of a token is matched: which label names the asset and which the metric, whether unknown series wait or are made, and what holds where values of one push meet.',
    answer: 'Nothing (204). 422 BAD_INPUT when metrics are to be made but nothing says where.',
    body: pushRuleSchema,
    handle: async ({ app, db, params, body }) => {
      if (body.parentId !== null && !(await findAsset(db, body.parentId))) {
        throw new BeaconError('BAD_INPUT', 'This asset does not exist.', 'parentId');
      }
      if (!(await changeRule(app.pool, params.id, body as PushRule))) throw gone();
      app.tokens.forget();
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/push-tokens/:id/heard',
    access: 'analyst',
    summary: 'Series that were heard with a token: those that wait to be mapped first.',
    answer:
      '[HeardSeries]: series, name, labels, metricId or null, firstHeard and lastHeard (ms), lastValue, heard',
    handle: ({ app, params }) => listHeard(app.pool, params.id),
  }),
  endpoint({
    method: 'post',
    path: '/api/push-tokens/:id/heard',
    access: 'analyst',
    summary:
      'Maps a heard series to a metric, makes one for it, or lets it wait again. Holds from the next push on.',
    answer: '{ metricId }. 404 NOT_FOUND for a series that was never heard.',
    body: mapSeriesSchema,
    handle: async ({ app, db, params, body }) => {
      const metricId = await withTransaction(app.pool, async (client) => {
        const own = readAs(client, db.asker);
        const { make } = body;
        const id = make
          ? await makeMetric(own, {
              ...make,
              kind: make.kind as MetricKind,
              maxGapMs: make.intervalMs * USUAL_GAPS,
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
          throw new BeaconError('NOT_FOUND', 'This series was never heard with this token.', 'series');
        }
        if (make) await notify(own, 'metrics', [id!]);
        return id;
      });
      return { metricId };
    },
  }),
];

/** Without a longest allowed gap of its own a metric may miss two samples. */
const USUAL_GAPS = 3;

function gone(): BeaconError {
  return new BeaconError('NOT_FOUND', 'This token does not exist or is revoked already.');
}
