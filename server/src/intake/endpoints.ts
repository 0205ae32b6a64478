import * as yup from 'yup';
import { BeaconError, type Person, countedNumber, wholeNumber } from '@vivid-beacon/core';
import { balanceText } from '@vivid-beacon/core/src/intakeFiles';
import { withTransaction, type Queryable } from '../db/database';
import { endpoint } from '../http/endpoint';
import { needMetrics } from '../metrics/metrics';
import { keptSince } from '../samples/readPush';
import { balanceSchema } from './balanceSchema';
import { checkIntake, CORRECTION_CHOICES, finishIntake, valuesMeet, type CorrectionChoice } from './finish';
import { isMade, madeSchema } from './made';
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

const PART_BYTES = 10_000_000;
const LINES_SHOWN = 500;
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

const mappingSchema = yup
  .object({
    shape: yup
      .string()
      .matches(/^[0-9a-f]{64}$/, 'shape must be SHA-256 in hex')
      .required(),
    correct: yup.object().required(),
    plans: yup.mixed<object>().required(),
    zone: yup.string().max(60).required(),
  })
  .noUnknown();

/** Plans for the next file of this shape: what was new now is there then, what got no value is new again. */
function withMadeMetrics(plans: object, made: ReadonlyMap<string, string>): object {
  return Object.fromEntries(
    Object.entries(plans).flatMap(([key, plan]: [string, { to?: unknown; metricId?: unknown }]) => {
      if (plan?.to !== 'existing' || !String(plan.metricId).startsWith('new-')) return [[key, plan]];
      const metricId = made.get(String(plan.metricId));
      return metricId === undefined ? [] : [[key, { ...plan, metricId }]];
    }),
  );
}

export const intakeEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/intakes',
    access: 'viewer',
    summary: 'Lists the newest files that were brought in.',
    answer: '[Intake without lines], at most 30',
    handle: ({ app }) => listIntakes(app.pool),
  }),
  endpoint({
    method: 'get',
    path: '/api/intakes/:id',
    access: 'viewer',
    summary: 'One intake with the balance of its lines.',
    answer: `Intake with lines [{ kind, line, column, value, reason }], at most ${LINES_SHOWN} of each kind`,
    handle: async ({ app, params }) => {
      const intake = await findIntake(app.pool, params.id, LINES_SHOWN);
      if (!intake) throw new BeaconError('NOT_FOUND', 'This intake does not exist.');
      return intake;
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/intakes/:id/balance.csv',
    access: 'viewer',
    summary: 'What became of every line and column of an intake, as a file.',
    answer:
      'text/csv: file, kind, line, column, value, reason; counts first, then columns, then lines; cells that a spreadsheet would run are escaped',
    handle: async ({ app, params, response }) => {
      const intake = await findIntake(app.pool, params.id, 0);
      if (!intake) throw new BeaconError('NOT_FOUND', 'This intake does not exist.');
      const { balance = null, columns = [] } = intake.notes;
      const lines = await listLines(app.pool, params.id, LINES_IN_FILE);
      const text = balanceText({ file: intake.fileName, balance, columns, lines, before: false });
      response.setHeader('Content-Type', 'text/csv; charset=utf-8');
      response.setHeader('Content-Disposition', `attachment; filename="balance-${params.id}.csv"`);
      response.end(text);
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/intake-mappings',
    access: 'analyst',
    summary: 'How a file of this shape was read last time.',
    answer: '{ correct, plans, zone, fileName, usedAt } or null',
    query: yup.object({ shape: yup.string().length(64).required() }).noUnknown(),
    handle: async ({ app, query }) => (await findMapping(app.pool, query.shape)) ?? null,
  }),
  endpoint({
    method: 'post',
    path: '/api/intakes',
    access: 'analyst',
    summary: 'Begins to bring in a file. Nothing reaches the store before it is finished.',
    answer: '{ id }',
    body: yup
      .object({
        fileName: yup.string().trim().min(1).max(300).required(),
        fileSize: wholeNumber().min(1, 'The file is empty (0 bytes).').required(),
        fileHash: yup
          .string()
          .matches(/^[0-9a-f]{64}$/, 'fileHash must be SHA-256 in hex')
          .required(),
        layout: yup.object().required(),
        collisions: yup
          .string()
          .oneOf(['refuse', 'last'] as const)
          .default('refuse'),
      })
      .noUnknown(),
    handle: async ({ app, body, person }) => ({
      id: await addIntake(app.pool, { ...body, startedBy: person.id, at: app.now() }),
    }),
  }),
  endpoint({
    method: 'post',
    path: '/api/intakes/:id/parts',
    access: 'analyst',
    summary:
      'Hands over one part of the file as application/octet-stream: head { seq, metricIds, told }, columns "t 0", "v 0", …; a metric that is still to be made is called new-0, new-1 …',
    answer: 'Nothing (204). The same number again replaces the part. 422 BAD_INPUT names a bad sample.',
    bytes: ['application/octet-stream'],
    limit: PART_BYTES,
    handle: async ({ app, db, params, request, person }) => {
      const part = await readPart(request.body, app.now());
      const metrics = await needMetrics(
        db,
        part.metricIds.filter((id) => !isMade(id)),
      );
      const closed = [...metrics.values()].find(({ origin }) => origin !== 'samples');
      if (closed) {
        throw new BeaconError(
          'BAD_INPUT',
          `${closed.name} is a ${closed.origin} metric and takes no samples.`,
        );
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
        if (part.conflict && intake.collisions === 'refuse') throw valuesMeet(part.conflict.t);
        await putPart(db, intake.id, part.seq, part.days);
        if (part.told.length > 0) await addLines(db, intake.id, part.seq, part.told);
      });
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/intakes/:id/check',
    access: 'analyst',
    summary: 'What storing the parts that have arrived would change; nothing is changed yet.',
    answer:
      '[{ metricId, name, assetName, plantName, samples, unchanged, corrected }], metrics that are there already; corrected = stored values that the file gives otherwise',
    handle: ({ app, params, person }) =>
      withTransaction(app.pool, async (db) => checkIntake(db, await needOpen(db, params.id, person))),
  }),
  endpoint({
    method: 'post',
    path: '/api/intakes/:id/finish',
    access: 'analyst',
    summary:
      'Brings all parts into the store in one transaction, all or nothing, with the assets and metrics they need, and remembers the mapping.',
    answer:
      '{ intake: Intake with counts, made: { "new-0": metric id } }. 409 WRONG_STATE when a part is missing, or when stored values would change and corrections is "refuse".',
    limit: PART_BYTES,
    body: yup
      .object({
        batches: countedNumber().required(),
        balance: balanceSchema.required(),
        columns: yup.array().max(10_000).default([]),
        made: madeSchema.default({ assets: [], metrics: [] }),
        corrections: yup
          .string()
          .oneOf([...CORRECTION_CHOICES])
          .default('refuse'),
        remember: mappingSchema.nullable().default(null),
      })
      .noUnknown(),
    handle: async ({ app, params, body, person }) => {
      const made = await withTransaction(app.pool, async (db) => {
        const intake = await needOpen(db, params.id, person);
        const corrections = body.corrections as CorrectionChoice;
        const ids = await finishIntake(db, intake, { ...body, corrections }, app.now());
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
      return { intake: await findIntake(app.pool, params.id, LINES_SHOWN), made: Object.fromEntries(made) };
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/intakes/:id/undo',
    access: 'analyst',
    summary: 'Undoes a finished intake: samples it added go, those it replaced get their former values.',
    answer:
      '{ removed, restored, kept }; kept = changed since by something else. 409 WRONG_STATE unless it is finished.',
    handle: ({ app, params, person }) =>
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
  }),
  endpoint({
    method: 'delete',
    path: '/api/intakes/:id',
    access: 'analyst',
    summary: 'Cancels an intake that is not finished; nothing of it stays.',
    answer: 'Nothing (204).',
    handle: async ({ app, params, person }) => {
      await withTransaction(app.pool, async (db) => {
        const intake = await needOpen(db, params.id, person);
        await dropParts(db, intake.id);
        await closeIntake(db, intake.id, 'cancelled', app.now(), { rows: 0, refused: 0, notes: {} });
      });
    },
  }),
];
