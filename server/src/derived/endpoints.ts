import { derivedApi } from '@vivid-beacon/core/src/api/derived';
import { BeaconError, type DerivedDefinition, type MetricKind } from '@vivid-beacon/core';
import { FUNCTIONS } from '@vivid-beacon/core/src/expressions';
import { refuseCircle } from '@vivid-beacon/core/src/derive/derivedMetric';
import { writeUnit } from '@vivid-beacon/core/src/units/unit';
import { withTransaction, type Queryable } from '../db/database';
import { readAs, readAsServer } from '../db/reader';
import { endpoints } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { notify } from '../live/notify';
import { makeMetric } from '../metrics/makeMetric';
import { needMetrics, toMetric } from '../metrics/metrics';
import { changeMetric, listMetrics, metricsOfChildren } from '../metrics/sql';
import { expressionReading } from './readings';
import { answerReading } from '../readings/answerReading';
import { bindExpression } from '../readings/bindExpression';
import { readContext } from '../readings/readContext';
import { findDerived, listDerived, listFactors, writeDerived, writeFactor } from '../metrics/derivedSql';

/** Refuses an expression that would use itself, through whichever other expressions, also those that the caller does not see. */
async function refuseCircles(own: Queryable, metricId: string, definition: DerivedDefinition): Promise<void> {
  const db = readAsServer(own);
  const all = new Map((await listDerived(db)).map((each) => [each.metricId, each as DerivedDefinition]));
  all.set(metricId, definition);
  const names = new Map((await listMetrics(db)).map((row) => [row.id, `${row.name} (${row.assetName})`]));
  const uses = new Map<string, readonly string[]>();
  for (const [id, { bindings }] of all) {
    const used: string[] = [];
    for (const binding of Object.values(bindings)) {
      if (binding.kind === 'metric') used.push(binding.metricId);
      if (binding.kind === 'children') {
        const children = await metricsOfChildren(db, binding.assetId, binding.metricName);
        used.push(...children.map((row) => row.id));
      }
    }
    uses.set(id, used);
  }
  refuseCircle(
    metricId,
    (id) => uses.get(id) ?? [],
    (id) => names.get(id) ?? 'this metric',
  );
}

export const derivedEndpoints = endpoints(derivedApi, {
  'GET /api/derived/functions': async () =>
    Object.entries(FUNCTIONS).map(([name, { form, does }]) => ({ name, form, does })),

  'POST /api/derived/preview': (call) =>
    answerReading(call, expressionReading, {
      definition: call.body,
      unit: call.body.unit,
    }),

  'GET /api/derived/:id': async ({ db, params }) => {
    await needMetrics(db, [params.id]);
    const found = await findDerived(db, params.id);
    if (!found) throw new BeaconError('NOT_FOUND', 'This is not a derived metric.');
    return found;
  },

  'POST /api/derived': async ({ app, db, body }) => {
    const now = app.now();
    const id = await withTransaction(app.pool, async (client) => {
      const own = readAs(client, db.asker);
      const bound = await bindExpression(readContext(own, now), body, body.unit);
      const longest = intervalOf(bound);
      const made = await makeMetric(own, {
        assetId: body.assetId,
        name: body.name,
        unit: body.unit || writeUnit(bound.unit),
        kind: body.way === 'totals' ? 'level' : body.kind,
        origin: 'derived',
        intervalMs: longest.intervalMs,
        maxGapMs: longest.maxGapMs,
        rollover: null,
        decimals: body.decimals,
        at: now,
      });
      await refuseCircles(own, made, body);
      await writeDerived(own, made, body, now);
      await notify(own, 'metrics', [made]);
      return made;
    });
    return toMetric((await needMetrics(db, [id])).get(id)!, now);
  },

  'PUT /api/derived/:id': async ({ app, db, params, body }) => {
    const now = app.now();
    await withTransaction(app.pool, async (client) => {
      const own = readAs(client, db.asker);
      const before = (await needMetrics(own, [params.id])).get(params.id)!;
      if (before.origin !== 'derived') throw new BeaconError('NOT_FOUND', 'This is not a derived metric.');
      await refuseCircles(own, params.id, body);
      const bound = await bindExpression(readContext(own, now), body, body.unit);
      const longest = intervalOf(bound);
      const unit = body.unit || writeUnit(bound.unit);
      const kind: MetricKind = body.way === 'totals' ? 'level' : body.kind;
      const done = await changeMetric(own, params.id, {
        ...before,
        name: body.name,
        unit,
        kind,
        decimals: body.decimals,
        intervalMs: longest.intervalMs,
        maxGapMs: longest.maxGapMs,
      });
      if (!done) {
        throw new BeaconError(
          'BAD_INPUT',
          `${before.assetName} already has a metric named "${body.name}".`,
          'name',
        );
      }
      await writeDerived(own, params.id, body, now);
      await notify(own, 'metrics', [params.id]);
      await notify(own, 'samples', [params.id]);
    });
    return toMetric((await needMetrics(db, [params.id])).get(params.id)!, now);
  },

  'GET /api/factors': ({ app }) => listFactors(app.pool),

  'POST /api/factors': async ({ app, body }) => {
    const id = await changeAndNotify(app.pool, 'samples', async (db) => {
      const written = await writeFactor(db, body);
      if (written === undefined) {
        throw new BeaconError('BAD_INPUT', `There is already a factor named "${body.name}".`, 'name');
      }
      return written;
    });
    return { id };
  },
});

/** A derived metric logs as slowly as the slowest of what it uses. */
function intervalOf({ names }: Awaited<ReturnType<typeof bindExpression>>): {
  intervalMs: number;
  maxGapMs: number;
} {
  const rows = [...names.values()].flatMap((each) => (each.kind === 'metrics' ? each.rows : []));
  return {
    intervalMs: Math.max(1000, ...rows.map(({ intervalMs }) => intervalMs)),
    maxGapMs: Math.max(1000, ...rows.map(({ maxGapMs }) => maxGapMs)),
  };
}
