import Papa from 'papaparse';
import * as yup from 'yup';
import { BeaconError, type Person } from '@vivid-beacon/core';
import { withTransaction, type Queryable } from '../db/database';
import { endpoint } from '../http/endpoint';
import { needMetrics } from '../metrics/metrics';
import { keptSince } from '../samples/readPush';
import { finishIntake } from './finish';
import { readPart } from './readPart';
import {
  addIntake,
  addRefusals,
  closeIntake,
  dropParts,
  findIntake,
  findMapping,
  listIntakes,
  listRefusals,
  lockIntake,
  putPart,
  rememberMapping,
  type IntakeRow,
} from './sql';
import { undoIntake } from './undo';

const PART_BYTES = 10_000_000;
const REFUSALS_SHOWN = 500;
const REFUSALS_IN_FILE = 1_000_000;

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
    layout: yup.object().required(),
    plans: yup.mixed<object>().required(),
    zone: yup.string().max(60).required(),
  })
  .noUnknown();

export const intakeEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/intakes',
    access: 'viewer',
    summary: 'Lists the newest files that were brought in.',
    answer: '[Intake without refusals], at most 30',
    handle: ({ app }) => listIntakes(app.pool),
  }),
  endpoint({
    method: 'get',
    path: '/api/intakes/:id',
    access: 'viewer',
    summary: 'One intake with its refused rows.',
    answer: `Intake with refusals [{ line, column, value, reason }], at most ${REFUSALS_SHOWN}`,
    handle: async ({ app, params }) => {
      const intake = await findIntake(app.pool, params.id, REFUSALS_SHOWN);
      if (!intake) throw new BeaconError('NOT_FOUND', 'This intake does not exist.');
      return intake;
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/intakes/:id/refusals.csv',
    access: 'viewer',
    summary: 'The refused rows of an intake as a file.',
    answer: 'text/csv: file, line, column, value, reason; cells that a spreadsheet would run are escaped',
    handle: async ({ app, params, response }) => {
      const intake = await findIntake(app.pool, params.id, 0);
      if (!intake) throw new BeaconError('NOT_FOUND', 'This intake does not exist.');
      const rows = await listRefusals(app.pool, params.id, REFUSALS_IN_FILE);
      const text = Papa.unparse(
        {
          fields: ['file', 'line', 'column', 'value', 'reason'],
          data: rows.map(({ line, column, value, reason }) => [intake.fileName, line, column, value, reason]),
        },
        { escapeFormulae: true, newline: '\r\n' },
      );
      response.setHeader('Content-Type', 'text/csv; charset=utf-8');
      response.setHeader('Content-Disposition', `attachment; filename="refused-${params.id}.csv"`);
      response.end(`\uFEFF${text}\r\n`);
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/intake-mappings',
    access: 'analyst',
    summary: 'How a file of this shape was read last time.',
    answer: '{ layout, plans, zone } or null',
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
        fileSize: yup.number().integer().min(1, 'The file is empty (0 bytes).').required(),
        fileHash: yup
          .string()
          .matches(/^[0-9a-f]{64}$/, 'fileHash must be SHA-256 in hex')
          .required(),
        layout: yup.object().required(),
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
      'Hands over one part of the file as application/octet-stream: head { seq, metricIds, refusals }, columns "t 0", "v 0", …',
    answer: 'Nothing (204). The same number again replaces the part. 422 BAD_INPUT names a bad sample.',
    bytes: ['application/octet-stream'],
    limit: PART_BYTES,
    handle: async ({ app, params, request, person }) => {
      const part = await readPart(request.body, app.now());
      const metrics = await needMetrics(app.pool, part.metricIds);
      const closed = [...metrics.values()].find(({ origin }) => origin !== 'samples');
      if (closed) {
        throw new BeaconError(
          'BAD_INPUT',
          `${closed.name} is a ${closed.origin} metric and takes no samples.`,
        );
      }
      for (const { metricId, dayStart } of part.days) {
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
        await putPart(db, intake.id, part.seq, part.days);
        if (part.refusals.length > 0) await addRefusals(db, intake.id, part.seq, part.refusals);
      });
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/intakes/:id/finish',
    access: 'analyst',
    summary: 'Brings all parts into the store in one transaction, all or nothing, and remembers the mapping.',
    answer: 'Intake with counts. 409 WRONG_STATE when a part is missing.',
    body: yup
      .object({
        batches: yup.number().integer().min(0).required(),
        rows: yup.number().integer().min(0).required(),
        refused: yup.number().integer().min(0).required(),
        notes: yup.object().default({}),
        remember: mappingSchema.nullable().default(null),
      })
      .noUnknown(),
    handle: async ({ app, params, body, person }) => {
      await withTransaction(app.pool, async (db) => {
        const intake = await needOpen(db, params.id, person);
        await finishIntake(db, intake, body, app.now());
        if (body.remember) {
          await rememberMapping(db, { ...body.remember, personId: person.id, at: app.now() });
        }
      });
      return findIntake(app.pool, params.id, REFUSALS_SHOWN);
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
