import { intakesApi, LINES_SHOWN } from '@vivid-beacon/core/src/api/intakes';
import { type KeptMapping, BeaconError, type Person } from '@vivid-beacon/core';
import { balanceText } from '@vivid-beacon/core/src/intakeFiles';
import { withTransaction, type Queryable } from '../db/database';
import { readAs } from '../db/reader';
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
  'GET /api/intakes': ({ db }) => listIntakes(db),

  'GET /api/intakes/:id': async ({ db, params }) => {
    const intake = await findIntake(db, params.id, LINES_SHOWN);
    if (!intake) throw new BeaconError('NOT_FOUND', 'This intake does not exist.');
    return intake;
  },

  'GET /api/intakes/:id/balance.csv': async ({ app, db, params, response }) => {
    const intake = await findIntake(db, params.id, 0);
    if (!intake) throw new BeaconError('NOT_FOUND', 'This intake does not exist.');
    const { balance = null, columns = [] } = intake.notes;
    const lines = await listLines(app.pool, params.id, LINES_IN_FILE);
    const text = balanceText({ file: intake.fileName, balance, columns, lines, before: false });
    response.setHeader('Content-Type', 'text/csv; charset=utf-8');
    response.setHeader('Content-Disposition', `attachment; filename="balance-${params.id}.csv"`);
    response.end(text);
    return SENT;
  },

  'GET /api/intake-mappings': async ({ db, query }) => (await findMapping(db, query.shape)) ?? null,

  'POST /api/intakes': ({ app, body, person }) =>
    withTransaction(app.pool, async (db) => ({
      id: await addIntake(db, { ...body, startedBy: person.id, at: app.now() }),
    })),

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

  'GET /api/intakes/:id/check': ({ app, db, params, person }) =>
    withTransaction(app.pool, async (own) =>
      checkIntake(readAs(own, db.asker), await needOpen(own, params.id, person)),
    ),

  'POST /api/intakes/:id/finish': async ({ app, db, params, body, person }) => {
    const made = await withTransaction(app.pool, async (own) => {
      const intake = await needOpen(own, params.id, person);
      const ids = await finishIntake(readAs(own, db.asker), intake, body, app.now());
      if (body.remember) {
        const { remember } = body;
        await rememberMapping(own, {
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
      intake: (await findIntake(db, params.id, LINES_SHOWN))!,
      made: Object.fromEntries(made),
    };
  },

  'POST /api/intakes/:id/undo': ({ app, db, params, person }) =>
    withTransaction(app.pool, async (own) => {
      const intake = await lockIntake(own, params.id);
      if (!intake || !(await findIntake(db, params.id, 0)))
        throw new BeaconError('NOT_FOUND', 'This intake does not exist.');
      if (intake.status !== 'done') {
        throw new BeaconError(
          'WRONG_STATE',
          `Only a finished intake can be undone; this one is ${intake.status}.`,
        );
      }
      return undoIntake(own, intake.id, person.id, app.now());
    }),

  'DELETE /api/intakes/:id': async ({ app, params, person }) => {
    await withTransaction(app.pool, async (db) => {
      const intake = await needOpen(db, params.id, person);
      await dropParts(db, intake.id);
      await closeIntake(db, intake.id, 'cancelled', app.now(), { rows: 0, refused: 0, notes: {} });
    });
  },
});
