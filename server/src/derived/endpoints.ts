import * as yup from 'yup';
import { BeaconError, idText, type DerivedDefinition, type MetricKind } from '@vivid-beacon/core';
import { derivedSchema, expressionSchema, factorSchema } from '@vivid-beacon/core/src/engine';
import { FUNCTIONS } from '@vivid-beacon/core/src/expressions';
import { refuseCircle } from '@vivid-beacon/core/src/derive/derivedMetric';
import { writeUnit } from '@vivid-beacon/core/src/units/unit';
import { withTransaction } from '../db/database';
import { readAs, type Reader } from '../db/reader';
import { endpoint } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { notify } from '../live/notify';
import { makeMetric } from '../metrics/makeMetric';
import { needMetrics, toMetric } from '../metrics/metrics';
import { changeMetric, listMetrics, metricsOfChildren } from '../metrics/sql';
import { answerReading } from '../readings/answerReading';
import { bindExpression } from '../readings/derived';
import { readContext } from '../readings/readContext';
import { findDerived, listDerived, listFactors, writeDerived, writeFactor } from './sql';

/** Refuses an expression that would use itself, through whichever other expressions. */
async function refuseCircles(db: Reader, metricId: string, definition: DerivedDefinition): Promise<void> {
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

export const derivedEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/derived/functions',
    access: 'viewer',
    summary: 'The functions an expression may use.',
    answer: '[{ name, form, does }]',
    handle: async () => Object.entries(FUNCTIONS).map(([name, { form, does }]) => ({ name, form, does })),
  }),
  endpoint({
    method: 'post',
    path: '/api/derived/preview',
    access: 'analyst',
    summary: 'Works an expression out over the last day, with its unit, without saving anything.',
    answer:
      '{ unit, foundUnit, zone, window, t[], v[] (null = missing), value, coverage }. 422 BAD_INPUT says what is wrong and where.',
    body: expressionSchema,
    handle: (call) =>
      answerReading(call, 'expression', {
        definition: call.body as unknown as DerivedDefinition,
        unit: call.body.unit,
      }),
  }),
  endpoint({
    method: 'get',
    path: '/api/derived/:id',
    access: 'viewer',
    summary: 'The expression of a derived metric.',
    answer: '{ metricId, expression, bindings, way }. 404 NOT_FOUND.',
    handle: async ({ app, params }) => {
      const found = await findDerived(app.pool, params.id);
      if (!found) throw new BeaconError('NOT_FOUND', 'This is not a derived metric.');
      return found;
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/derived',
    access: 'analyst',
    summary: 'Adds a derived metric: an expression over named metrics, attributes and factors.',
    answer: 'Metric. 422 BAD_INPUT for a wrong expression, units that do not go together, or a circle.',
    body: derivedSchema,
    handle: async ({ app, db, body }) => {
      const now = app.now();
      const definition = body as unknown as DerivedDefinition;
      const id = await withTransaction(app.pool, async (client) => {
        const own = readAs(client, db.asker);
        const bound = await bindExpression(readContext(own, now), definition, body.unit);
        const longest = intervalOf(bound);
        const made = await makeMetric(own, {
          assetId: body.assetId,
          name: body.name,
          unit: body.unit || writeUnit(bound.unit),
          kind: definition.way === 'totals' ? 'level' : body.kind,
          origin: 'derived',
          intervalMs: longest.intervalMs,
          maxGapMs: longest.maxGapMs,
          rollover: null,
          decimals: body.decimals,
          at: now,
        });
        await refuseCircles(own, made, definition);
        await writeDerived(own, made, definition, now);
        await notify(own, 'metrics', [made]);
        return made;
      });
      return toMetric((await needMetrics(db, [id])).get(id)!, now);
    },
  }),
  endpoint({
    method: 'put',
    path: '/api/derived/:id',
    access: 'analyst',
    summary: 'Changes the expression, name or unit of a derived metric.',
    answer: 'Metric. 422 BAD_INPUT as for adding one; a circle is named.',
    body: derivedSchema,
    handle: async ({ app, db, params, body }) => {
      const now = app.now();
      const definition = body as unknown as DerivedDefinition;
      await withTransaction(app.pool, async (client) => {
        const own = readAs(client, db.asker);
        const before = (await needMetrics(own, [params.id])).get(params.id)!;
        if (before.origin !== 'derived') throw new BeaconError('NOT_FOUND', 'This is not a derived metric.');
        await refuseCircles(own, params.id, definition);
        const bound = await bindExpression(readContext(own, now), definition, body.unit);
        const longest = intervalOf(bound);
        const unit = body.unit || writeUnit(bound.unit);
        const kind: MetricKind = definition.way === 'totals' ? 'level' : (body.kind as MetricKind);
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
        await writeDerived(own, params.id, definition, now);
        await notify(own, 'metrics', [params.id]);
        await notify(own, 'samples', [params.id]);
      });
      return toMetric((await needMetrics(db, [params.id])).get(params.id)!, now);
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/factors',
    access: 'viewer',
    summary: 'Equivalence factors with their values by date.',
    answer: '[{ id, name, unit, source, values: [{ from: date, value }] }]',
    handle: ({ app }) => listFactors(app.pool),
  }),
  endpoint({
    method: 'post',
    path: '/api/factors',
    access: 'analyst',
    summary: 'Adds an equivalence factor, or changes the one named by id.',
    answer: '{ id }. 422 BAD_INPUT when the name is taken.',
    body: factorSchema.concat(yup.object({ id: idText().nullable().default(null) })).noUnknown(),
    handle: async ({ app, body }) => {
      const id = await changeAndNotify(app.pool, 'samples', async (db) => {
        const written = await writeFactor(db, body as Parameters<typeof writeFactor>[1]);
        if (written === undefined) {
          throw new BeaconError('BAD_INPUT', `There is already a factor named "${body.name}".`, 'name');
        }
        return written;
      });
      return { id };
    },
  }),
];

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
