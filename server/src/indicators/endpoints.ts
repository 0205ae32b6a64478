import * as yup from 'yup';
import {
  BeaconError,
  DIRECTIONS,
  hoursSchema,
  measureSchema,
  windowSchema,
  type IndicatorDefinition,
  countedNumber,
} from '@vivid-beacon/core';
import { indicatorSchema, periodTargetsSchema } from '@vivid-beacon/core/src/engine';
import { findAsset } from '../assets/sql';
import { withTransaction } from '../db/database';
import { endpoint } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { notify } from '../live/notify';
import { answerReading, computeReading, type Asked } from '../readings/answerReading';
import { needIndicator, type SuggestAsk } from './history';
import { addIndicator, changeIndicator, nameTaken, removeIndicator, writeTargets } from './sql';

const MOST_PERIODS = 120;

/** What the definition names must be there, and its name free. @throws {BeaconError} BAD_INPUT */
async function checkDefinition(
  { app, db }: Asked,
  definition: IndicatorDefinition,
  id: string | null,
): Promise<void> {
  if (!(await findAsset(db, definition.assetId))) {
    throw new BeaconError('BAD_INPUT', 'This asset does not exist.', 'assetId');
  }
  if (await nameTaken(app.pool, definition, id)) {
    throw new BeaconError(
      'BAD_INPUT',
      `The asset has an indicator named "${definition.name}" already.`,
      'name',
    );
  }
  // Reads it once, so that nothing is saved that cannot be computed.
  await computeReading({ app, db }, 'definition', { definition, targets: [] });
}

export const indicatorEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/indicators',
    access: 'viewer',
    summary: 'Lists the indicators with their present value, target and level.',
    answer:
      '[{ id, version, name, assetName, plantId, ownerName, definition, measure, window, target, band, decimals, reading }]; in the unit of each measure',
    handle: (call) => answerReading(call, 'indicators', null),
  }),
  endpoint({
    method: 'get',
    path: '/api/indicators/time-by-level',
    access: 'viewer',
    summary:
      'How long each indicator was on each level over the last days: by the hour, a total by periods as long as its window; each judged by the definition in force then.',
    answer:
      '[{ id, name, assetId, assetName, metricId, window, plantId, breachMs, cautionMs, nodataMs, clearMs }], ms, longest in breach first',
    query: yup.object({ days: yup.number().integer().min(1).max(90).default(7) }),
    handle: (call) => answerReading(call, 'timeByLevel', { days: call.query.days }),
  }),
  endpoint({
    method: 'get',
    path: '/api/indicators/:id',
    access: 'viewer',
    summary: 'One indicator with every definition it has had and the targets typed in for it.',
    answer: '{ indicator, versions: [{ version, validFrom, by, definition }], targets: [{ start, value }] }',
    handle: (call) => answerReading(call, 'indicator', { id: call.params.id }),
  }),
  endpoint({
    method: 'get',
    path: '/api/indicators/:id/history',
    access: 'viewer',
    summary:
      'The past of an indicator by periods as long as its window, each judged by the definition and the target in force then.',
    answer:
      '{ bucket, zone, periods: [{ start, end, value, coverage, target, level, version }] }, oldest first',
    query: yup.object({ periods: yup.number().integer().min(1).max(MOST_PERIODS).default(30) }).noUnknown(),
    handle: (call) =>
      answerReading(call, 'indicatorPast', { id: call.params.id, periods: call.query.periods }),
  }),
  endpoint({
    method: 'post',
    path: '/api/indicators',
    access: 'analyst',
    summary: 'Adds an indicator.',
    answer: '{ id }. 422 BAD_INPUT when the asset has one of this name, or it cannot be computed.',
    body: indicatorSchema,
    handle: async ({ app, db, body, person }) => {
      const definition = body as unknown as IndicatorDefinition;
      await checkDefinition({ app, db }, definition, null);
      return withTransaction(app.pool, async (db) => {
        const id = await addIndicator(db, definition, person.id, app.now());
        await notify(db, 'indicators', []);
        return { id };
      });
    },
  }),
  endpoint({
    method: 'put',
    path: '/api/indicators/:id',
    access: 'analyst',
    summary:
      'Puts a new definition in force from now on, everywhere the indicator is used. The one before is kept and goes on judging its time.',
    answer: 'Nothing (204). 409 CHANGED_MEANWHILE when `from` is not the version in force any more.',
    body: yup
      .object({ from: countedNumber().required(), definition: indicatorSchema.required() })
      .noUnknown(),
    handle: async ({ app, db, params, body, person }) => {
      const definition = body.definition as unknown as IndicatorDefinition;
      await needIndicator(app.pool, params.id);
      await checkDefinition({ app, db }, definition, params.id);
      await withTransaction(app.pool, async (db) => {
        if (!(await changeIndicator(db, params.id, body.from, definition, person.id, app.now()))) {
          throw new BeaconError(
            'CHANGED_MEANWHILE',
            'Somebody has changed this indicator meanwhile. Read it again.',
          );
        }
        await notify(db, 'indicators', [params.id]);
      });
    },
  }),
  endpoint({
    method: 'put',
    path: '/api/indicators/:id/targets',
    access: 'analyst',
    summary: 'Sets targets by period, also for periods that have not begun; null takes one away.',
    answer: 'Nothing (204).',
    body: periodTargetsSchema,
    handle: async ({ app, params, body }) => {
      const { id } = await needIndicator(app.pool, params.id);
      await withTransaction(app.pool, async (db) => {
        await writeTargets(db, id, body.values);
        await notify(db, 'indicators', [id]);
      });
    },
  }),
  endpoint({
    method: 'delete',
    path: '/api/indicators/:id',
    access: 'analyst',
    summary: 'Takes an indicator off every list. Its definitions stay in the database.',
    answer: 'Nothing (204). 404 NOT_FOUND.',
    handle: async ({ app, params }) => {
      await changeAndNotify(
        app.pool,
        'indicators',
        async (db) => {
          if (!(await removeIndicator(db, params.id, app.now()))) {
            throw new BeaconError('NOT_FOUND', 'This indicator does not exist.');
          }
        },
        () => [params.id],
      );
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/indicators/preview',
    access: 'analyst',
    summary:
      'The present value and the past of a definition that is being written, with `values` as its targets by period; saves nothing.',
    answer: '{ target, band, reading, bucket, zone, periods } as of an indicator and its history',
    body: yup.object({ definition: indicatorSchema.required() }).concat(periodTargetsSchema).noUnknown(),
    handle: (call) => {
      const { definition, values } = call.body;
      return answerReading(call, 'indicatorPreview', {
        definition: definition as unknown as IndicatorDefinition,
        targets: values.flatMap(({ start, value }) => (value === null ? [] : [{ start, value }])),
      });
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/indicators/suggested-targets',
    access: 'analyst',
    summary: 'Targets that the past of a measure suggests, with what each rests on.',
    answer:
      '{ bucket, suggestions: [{ kind: median | quarter | bestSustained, value, values, from, to }] }; none from fewer than 8 periods',
    body: yup
      .object({
        measure: measureSchema.required(),
        window: windowSchema.required(),
        hours: hoursSchema.nullable().default(null),
        direction: yup
          .string()
          .oneOf([...DIRECTIONS])
          .required(),
      })
      .noUnknown(),
    handle: (call) => answerReading(call, 'suggestedTargets', call.body as unknown as SuggestAsk),
  }),
];
