import * as yup from 'yup';
import {
  BeaconError,
  DAY_MS,
  DIRECTIONS,
  hoursSchema,
  measureSchema,
  MINIMUM_COVERAGE,
  windowSchema,
  type Direction,
  type HoursFilter,
  type IndicatorDefinition,
  type Measure,
  type WindowSpec,
  countedNumber,
} from '@vivid-beacon/core';
import { indicatorSchema, periodTargetsSchema, suggestTargets } from '@vivid-beacon/core/src/engine';
import { findAsset } from '../assets/sql';
import { withTransaction, type Queryable } from '../db/database';
import type { AppContext } from '../http/appContext';
import { endpoint } from '../http/endpoint';
import { notify } from '../live/notify';
import { pastOf } from './history';
import { readDefinition, readIndicator, readIndicatorLosses, readIndicators } from './indicators';
import {
  addIndicator,
  changeIndicator,
  findIndicator,
  listVersions,
  nameTaken,
  removeIndicator,
  targetsOf,
  writeTargets,
} from './sql';

const MOST_PERIODS = 120;

async function needIndicator(db: Queryable, id: string) {
  const row = await findIndicator(db, id);
  if (!row) throw new BeaconError('NOT_FOUND', 'This indicator does not exist.');
  return row;
}

/** What the definition names must be there, and its name free. @throws {BeaconError} BAD_INPUT */
async function checkDefinition(
  app: AppContext,
  definition: IndicatorDefinition,
  id: string | null,
): Promise<void> {
  if (!(await findAsset(app.pool, definition.assetId))) {
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
  await readDefinition(app.pool, definition, [], app.now());
}

export const indicatorEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/indicators',
    access: 'viewer',
    summary: 'Lists the indicators with their present value, target and level.',
    answer:
      '[{ id, version, name, assetName, plantId, ownerName, definition, measure, window, target, band, decimals, reading }]; in the unit of each measure',
    handle: ({ app }) => readIndicators(app.pool, app.now()),
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
    handle: ({ app, query }) => {
      const now = app.now();
      return readIndicatorLosses(app.pool, { start: now - query.days * DAY_MS, end: now }, now);
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/indicators/:id',
    access: 'viewer',
    summary: 'One indicator with every definition it has had and the targets typed in for it.',
    answer: '{ indicator, versions: [{ version, validFrom, by, definition }], targets: [{ start, value }] }',
    handle: async ({ app, params }) => {
      const row = await needIndicator(app.pool, params.id);
      const targets = (await targetsOf(app.pool, [row.id])).get(row.id)!;
      return {
        indicator: await readIndicator(app.pool, row, targets, app.now()),
        versions: await listVersions(app.pool, row.id),
        targets,
      };
    },
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
    handle: async ({ app, params, query }) => {
      const { id } = await needIndicator(app.pool, params.id);
      const versions = await listVersions(app.pool, id);
      const targets = (await targetsOf(app.pool, [id])).get(id)!;
      return pastOf(app.pool, versions, targets, query.periods, app.now());
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/indicators',
    access: 'analyst',
    summary: 'Adds an indicator.',
    answer: '{ id }. 422 BAD_INPUT when the asset has one of this name, or it cannot be computed.',
    body: indicatorSchema,
    handle: async ({ app, body, person }) => {
      const definition = body as unknown as IndicatorDefinition;
      await checkDefinition(app, definition, null);
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
    handle: async ({ app, params, body, person }) => {
      const definition = body.definition as unknown as IndicatorDefinition;
      await needIndicator(app.pool, params.id);
      await checkDefinition(app, definition, params.id);
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
      if (!(await removeIndicator(app.pool, params.id, app.now()))) {
        throw new BeaconError('NOT_FOUND', 'This indicator does not exist.');
      }
      await notify(app.pool, 'indicators', [params.id]);
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
    handle: async ({ app, body }) => {
      const definition = body.definition as unknown as IndicatorDefinition;
      const targets = body.values.flatMap(({ start, value }) => (value === null ? [] : [{ start, value }]));
      const now = app.now();
      const versions = [{ version: 1, validFrom: 0, by: '', definition }];
      return {
        ...(await readDefinition(app.pool, definition, targets, now)),
        ...(await pastOf(app.pool, versions, targets, PREVIEW_PERIODS, now)),
      };
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
    handle: async ({ app, body }) => {
      const now = app.now();
      const definition = {
        measure: body.measure as Measure,
        window: body.window as WindowSpec,
        hours: body.hours as HoursFilter | null,
        judge: { kind: 'target', direction: 'higher', clear: 100, caution: 100 },
        target: { kind: 'none' },
      } as unknown as IndicatorDefinition;
      const versions = [{ version: 1, validFrom: 0, by: '', definition }];
      const { bucket, periods } = await pastOf(app.pool, versions, [], SUGGEST_PERIODS, now);
      const past = periods
        .filter(({ end }) => end <= now)
        .map(({ start, end, value, coverage }) => ({
          start,
          end,
          value: coverage >= MINIMUM_COVERAGE ? value : null,
        }));
      return { bucket, suggestions: suggestTargets(past, body.direction as Direction) };
    },
  }),
];

const PREVIEW_PERIODS = 30;
const SUGGEST_PERIODS = 90;
