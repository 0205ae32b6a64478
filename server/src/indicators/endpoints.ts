import { indicatorsApi } from '@vivid-beacon/core/src/api/indicators';
import {
  addsUp,
  BeaconError,
  BUCKET_WORDS,
  wrongMonths,
  type IndicatorDefinition,
  type PeriodTarget,
} from '@vivid-beacon/core';
import { findAsset } from '../assets/sql';
import { withTransaction } from '../db/database';
import { endpoints } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { notify } from '../live/notify';
import {
  definitionReading,
  indicatorsReading,
  indicatorReading,
  indicatorPastReading,
  indicatorPreviewReading,
  suggestedTargetsReading,
  timeByLevelReading,
} from './readings';
import { answerReading, computeReading, type Asked } from '../readings/answerReading';
import { needIndicator } from './history';
import { addIndicator, changeIndicator, nameTaken, removeIndicator, targetsOf, writeTargets } from './sql';

function nameIsTaken({ name }: IndicatorDefinition): BeaconError {
  return new BeaconError('BAD_INPUT', `The asset has an indicator named "${name}" already.`, 'name');
}

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
    throw nameIsTaken(definition);
  }
  // Reads it once, so that nothing is saved that cannot be computed.
  await computeReading({ app, db }, definitionReading, { definition, targets: [] });
}

/** @throws {BeaconError} BAD_INPUT where months set otherwise come to more than their period. */
function refuseMonths(
  { target, measure }: IndicatorDefinition,
  targets: readonly PeriodTarget[],
  zone: string,
): void {
  if (target.kind !== 'periods' || !addsUp(measure)) return;
  const wrong = wrongMonths(targets, target.period, zone);
  if (!wrong) return;
  throw new BeaconError(
    'BAD_INPUT',
    `The months set come to ${wrong.months}, more than the ${wrong.whole} of the ${BUCKET_WORDS[target.period]} from ${wrong.start} on.`,
    'values',
  );
}

export const indicatorEndpoints = endpoints(indicatorsApi, {
  'GET /api/indicators': (call) => answerReading(call, indicatorsReading, call.query),

  'GET /api/indicators/time-by-level': (call) =>
    answerReading(call, timeByLevelReading, { days: call.query.days }),

  'GET /api/indicators/:id': (call) => answerReading(call, indicatorReading, { id: call.params.id }),

  'GET /api/indicators/:id/history': (call) =>
    answerReading(call, indicatorPastReading, { id: call.params.id, periods: call.query.periods }),

  'POST /api/indicators': async ({ app, db, body: definition, person }) => {
    await checkDefinition({ app, db }, definition, null);
    return withTransaction(app.pool, async (db) => {
      const id = await addIndicator(db, definition, person.id, app.now());
      // Somebody else may have taken the name since it was checked.
      if (id === undefined) throw nameIsTaken(definition);
      await notify(db, 'indicators', []);
      return { id };
    });
  },

  'PUT /api/indicators/:id': async ({ app, db, params, body, person }) => {
    const { definition } = body;
    await needIndicator(db, params.id);
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

  'PUT /api/indicators/:id/targets': async ({ app, db, params, body }) => {
    const { id, definition } = await needIndicator(db, params.id);
    const { zone } = (await findAsset(db, definition.assetId))!;
    await withTransaction(app.pool, async (own) => {
      await writeTargets(own, id, body.values);
      refuseMonths(definition, (await targetsOf(own, [id])).get(id)!, zone);
      await notify(own, 'indicators', [id]);
    });
  },

  'DELETE /api/indicators/:id': async ({ app, db, params }) => {
    await needIndicator(db, params.id);
    await changeAndNotify(
      app.pool,
      'indicators',
      async (own) => {
        if (!(await removeIndicator(own, params.id, app.now()))) {
          throw new BeaconError('NOT_FOUND', 'This indicator does not exist.');
        }
      },
      () => [params.id],
    );
  },

  'POST /api/indicators/preview': (call) => {
    const { definition, values } = call.body;
    return answerReading(call, indicatorPreviewReading, {
      definition: definition,
      targets: values.flatMap(({ value, ...each }) => (value === null ? [] : [{ ...each, value }])),
    });
  },

  'POST /api/indicators/suggested-targets': (call) => answerReading(call, suggestedTargetsReading, call.body),
});
