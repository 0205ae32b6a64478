import { tokensApi } from '@vivid-beacon/core/src/api/tokens';
import { BeaconError, type MetricKind } from '@vivid-beacon/core';
import { findAsset } from '../assets/sql';
import { readAs, type Reader } from '../db/reader';
import { withTransaction } from '../db/database';
import { endpoints } from '../http/endpoint';
import { notify } from '../live/notify';
import { makeMetric } from '../metrics/makeMetric';
import { needMetrics } from '../metrics/metrics';
import { listHeard, mapSeries } from '../arrivals/heardSql';
import { addToken, changeRule, findToken, listTokens, revokeToken } from './sql';
import { makeToken } from './tokenOfRequest';

/** What a new token may write at. @throws {BeaconError} BAD_INPUT for what the caller does not reach. */
async function checkReach(
  db: Reader,
  { plantId, metricIds }: { readonly plantId: string | null; readonly metricIds: readonly string[] | null },
): Promise<void> {
  if (plantId === null) {
    if (db.asker.sites === null) return;
    throw new BeaconError(
      'BAD_INPUT',
      'A token for every plant takes the role analyst at every plant.',
      'plantId',
    );
  }
  const plant = await findAsset(db, plantId);
  if (!plant || plant.parentId !== null)
    throw new BeaconError('BAD_INPUT', 'This plant does not exist.', 'plantId');
  if (metricIds === null) return;
  const elsewhere = [...(await needMetrics(db, metricIds)).values()].find((row) => row.plantId !== plantId);
  if (!elsewhere) return;
  throw new BeaconError('BAD_INPUT', `${elsewhere.name} belongs to ${elsewhere.plantName}.`, 'metricIds');
}

async function needToken(db: Reader, id: string): Promise<{ plantId: string | null }> {
  const token = await findToken(db, id);
  if (!token) throw gone();
  return token;
}

export const tokenEndpoints = endpoints(tokensApi, {
  'GET /api/push-tokens': ({ db }) => listTokens(db),

  'POST /api/push-tokens': async ({ app, db, body, person }) => {
    const { metricIds, endsAt } = body;
    await checkReach(db, { plantId: body.plantId, metricIds });
    if (endsAt !== null && endsAt <= app.now()) {
      throw new BeaconError('BAD_INPUT', 'The token would have ended already.', 'endsAt');
    }
    const { token, hash } = makeToken();
    const id = await withTransaction(app.pool, (own) =>
      addToken(own, { ...body, hash, createdBy: person.id, at: app.now() }),
    );
    return { id, token };
  },

  'DELETE /api/push-tokens/:id': async ({ app, db, params }) => {
    await needToken(db, params.id);
    const done = await withTransaction(app.pool, (own) => revokeToken(own, params.id, app.now()));
    if (!done) throw gone();
    app.tokens.forget();
  },

  'PUT /api/push-tokens/:id/rule': async ({ app, db, params, body }) => {
    const { plantId } = await needToken(db, params.id);
    const parent = body.parentId === null ? null : await findAsset(db, body.parentId);
    if (parent === undefined) throw new BeaconError('BAD_INPUT', 'This asset does not exist.', 'parentId');
    if (parent && plantId !== null && parent.plantId !== plantId) {
      throw new BeaconError('BAD_INPUT', `${parent.title} is not at the plant of this token.`, 'parentId');
    }
    if (!(await withTransaction(app.pool, (own) => changeRule(own, params.id, body)))) throw gone();
    app.tokens.forget();
  },

  'GET /api/push-tokens/:id/heard': async ({ db, params }) => {
    await needToken(db, params.id);
    return listHeard(db, params.id);
  },

  'POST /api/push-tokens/:id/heard': async ({ app, db, params, body }) => {
    await needToken(db, params.id);
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
