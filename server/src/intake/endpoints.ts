import { intakesApi, LINES_SHOWN } from '@vivid-beacon/core/src/api/intakes';
import { type KeptMapping, BeaconError, type Person } from '@vivid-beacon/core';
import { balanceText } from '@vivid-beacon/core/src/intakeFiles';
import { withTransaction, type Queryable } from '../db/database';
import { endpoints, SENT } from '../http/endpoint';
import { needMetrics } from '../metrics/metrics';
import { keptSince } from '../arrivals/readPush';
import { checkIntake, finishIntake, valuesCollide } from './finish';
import { isMade } from './made';
import { readPart } from './readPart';
import {
  addIntake,
  addLines,
  closeIntake,
  dropParts,
  findIntake,
  findMapping,
  listIntakes,
  listLines,
  lockIntake,
  putPart,
  rememberMapping,
  type IntakeRow,
} from './sql';
import { undoIntake } from './undo';

const LINES_IN_FILE = 1_000_000;

/** The intake, if it is still being read and is this person's. */
async function needOpen(db: Queryable, id: string, person: Person): Promise<IntakeRow> {
  const intake = await lockIntake(db, id);
  if (!intake || intake.startedById !== person.id) {
    throw new BeaconError('NOT_FOUND', 'This intake does not exist or belongs to somebody else.');
  }
  if (intake.status !== 'reading') {
    throw new BeaconError(
      'WRONG_STATE',
      `This intake is ${intake.status === 'done' ? 'finished' : intake.status} already.`,
    );
  }
  return intake;
}

/** Plans for the next file of this shape: what was new now is there then, what got no value is new again. */
function withMadeMetrics(
  plans: KeptMapping['plans'],
  made: ReadonlyMap<string, string>,
): KeptMapping['plans'] {
  return Object.fromEntries(
    Object.entries(plans).flatMap(([key, each]) => {
      const plan = each as { readonly to?: unknown; readonly metricId?: unknown } | null;
      if (plan?.to !== 'existing' || !String(plan.metricId).startsWith('new-')) return [[key, each]];
      const metricId = made.get(String(plan.metricId));
      return metricId === undefined ? [] : [[key, { ...plan, metricId }]];
    }),
  );
}

export const intakeEndpoints = endpoints(intakesApi, {
  'GET /api/intakes': ({ app }) => listIntakes(app.pool),

  'GET /api/intakes/:id': async ({ app, params }) => {
    const intake = await findIntake(app.pool, params.id, LINES_SHOWN);
    if (!intake) throw new BeaconError('NOT_FOUND', 'This intake does not exist.');
    return intake;
  },

  'GET /api/intakes/:id/balance.csv': async ({ app, params, response }) => {
    const intake = await findIntake(app.pool, params.id, 0);
    if (!intake) throw new BeaconError('NOT_FOUND', 'This intake does not exist.');
    const { balance = null, columns = [] } = intake.notes;
    const lines = await listLines(app.pool, params.id, LINES_IN_FILE);
    const text = balanceText({ file: intake.fileName, balance, columns, lines, before: false });
    response.setHeader('Content-Type', 'text/csv; charset=utf-8');
    response.setHeader('Content-Disposition', `attachment; filename="balance-${params.id}.csv"`);
    response.end(text);
    return SENT;
  },

  'GET /api/intake-mappings': async ({ app, query }) => (await findMapping(app.pool, query.shape)) ?? null,

  'POST /api/intakes': async ({ app, body, person }) => ({
    id: await addIntake(app.pool, { ...body, startedBy: person.id, at: app.now() }),
  }),

  'POST /api/intakes/:id/parts': async ({ app, db, params, request, person }) => {
    const part = await readPart(request.body, app.now());
    const metrics = await needMetrics(
      db,
      part.metricIds.filter((id) => !isMade(id)),
    );
    const closed = [...metrics.values()].find(({ origin }) => origin !== 'samples');
    if (closed) {
      throw new BeaconError('BAD_INPUT', `${closed.name} is a ${closed.origin} metric and takes no samples.`);
    }
    for (const { metricId, dayStart } of part.days) {
      if (isMade(metricId)) continue;
      const { name, retentionDays } = metrics.get(metricId)!;
      if (dayStart < keptSince(retentionDays, app.now())) {
        throw new BeaconError(
          'BAD_INPUT',
          `${name} keeps samples for ${retentionDays} days only; older ones came.`,
        );
      }
    }
    await withTransaction(app.pool, async (db) => {
      const intake = await needOpen(db, params.id, person);
      if (part.conflict && intake.collisions === 'refuse') throw valuesCollide(part.conflict.t);
      await putPart(db, intake.id, part.seq, part.days);
      if (part.told.length > 0) await addLines(db, intake.id, part.seq, part.told);
    });
  },

  'GET /api/intakes/:id/check': ({ app, params, person }) =>
    withTransaction(app.pool, async (db) => checkIntake(db, await needOpen(db, params.id, person))),

  'POST /api/intakes/:id/finish': async ({ app, params, body, person }) => {
    const made = await withTransaction(app.pool, async (db) => {
      const intake = await needOpen(db, params.id, person);
      const ids = await finishIntake(db, intake, body, app.now());
      if (body.remember) {
        const { remember } = body;
        await rememberMapping(db, {
          ...remember,
          plans: withMadeMetrics(remember.plans, ids),
          fileName: intake.fileName,
          personId: person.id,
          at: app.now(),
        });
      }
      return ids;
    });
    return {
      intake: (await findIntake(app.pool, params.id, LINES_SHOWN))!,
      made: Object.fromEntries(made),
    };
  },

  'POST /api/intakes/:id/undo': ({ app, params, person }) =>
    withTransaction(app.pool, async (db) => {
      const intake = await lockIntake(db, params.id);
      if (!intake) throw new BeaconError('NOT_FOUND', 'This intake does not exist.');
      if (intake.status !== 'done') {
        throw new BeaconError(
          'WRONG_STATE',
          `Only a finished intake can be undone; this one is ${intake.status}.`,
        );
      }
      return undoIntake(db, intake.id, person.id, app.now());
    }),

  'DELETE /api/intakes/:id': async ({ app, params, person }) => {
    await withTransaction(app.pool, async (db) => {
      const intake = await needOpen(db, params.id, person);
      await dropParts(db, intake.id);
      await closeIntake(db, intake.id, 'cancelled', app.now(), { rows: 0, refused: 0, notes: {} });
    });
  },
});
