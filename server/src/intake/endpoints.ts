import * as yup from 'yup';
import { BeaconError, EARLIEST_TIME, finite, idText, type Person } from '@vivid-beacon/core';
import { withTransaction, type Queryable } from '../db/database';
import { endpoint } from '../http/endpoint';
import { needMetrics } from '../metrics/metrics';
import { finishIntake } from './finish';
import {
  addIntake,
  addRefusals,
  closeIntake,
  dropBatches,
  findIntake,
  listIntakes,
  lockIntake,
  putBatch,
  type BatchPart,
  type IntakeRow,
} from './sql';

/** Larger files are refused with a clear word; they come with the streaming import. */
export const MOST_FILE_BYTES = 100_000_000;
const MOST_BATCH_ROWS = 20_000;
const BATCH_BYTES = 8_000_000;
const REFUSALS_SHOWN = 500;
const DAY_MS = 86_400_000;

const batchSchema = yup
  .object({
    seq: yup.number().integer().min(0).max(1_000_000).required(),
    parts: yup
      .array(
        yup
          .object({
            metricId: idText().required(),
            t: yup
              .array(yup.number().integer().min(EARLIEST_TIME).required())
              .max(MOST_BATCH_ROWS)
              .required(),
            v: yup.array(finite().required()).max(MOST_BATCH_ROWS).required(),
          })
          .noUnknown()
          .test(
            'same-length',
            '${path}: t and v must be of equal length',
            ({ t, v }) => t.length === v.length,
          ),
      )
      .max(200)
      .required(),
    refusals: yup
      .array(
        yup
          .object({
            line: yup.number().integer().min(1).required(),
            column: yup.string().max(200).defined(),
            value: yup.string().max(200).defined(),
            reason: yup.string().max(200).defined(),
          })
          .noUnknown(),
      )
      .max(MOST_BATCH_ROWS)
      .default([]),
  })
  .noUnknown();

/** The intake, if it is still being read and is this person's. */
async function needOpen(db: Queryable, id: string, person: Person): Promise<IntakeRow> {
  const intake = await lockIntake(db, id);
  if (!intake || intake.startedById !== person.id) {
    throw new BeaconError('NOT_FOUND', 'This intake does not exist or belongs to somebody else.');
  }
  if (intake.status !== 'reading') {
    throw new BeaconError(
      'WRONG_STATE',
      `This intake is ${intake.status === 'done' ? 'finished' : 'cancelled'} already.`,
    );
  }
  return intake;
}

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
    method: 'post',
    path: '/api/intakes',
    access: 'analyst',
    summary: 'Begins to bring in a file. Nothing reaches the store before it is finished.',
    answer: '{ id }. 413 TOO_LARGE for a file over 100 MB.',
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
    handle: async ({ app, body, person }) => {
      if (body.fileSize > MOST_FILE_BYTES) {
        throw new BeaconError(
          'TOO_LARGE',
          'A file may have at most 100 MB. Split it and bring in the parts one after another.',
          'fileSize',
        );
      }
      return { id: await addIntake(app.pool, { ...body, startedBy: person.id, at: app.now() }) };
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/intakes/:id/batches',
    access: 'analyst',
    summary: 'Hands over one part of the file: columns by metric, and the rows refused in it.',
    answer: 'Nothing (204). The same number again replaces the part.',
    body: batchSchema,
    limit: BATCH_BYTES,
    handle: async ({ app, params, body, person }) => {
      const parts = body.parts as BatchPart[];
      await needMetrics(app.pool, [...new Set(parts.map(({ metricId }) => metricId))]);
      const latest = app.now() + DAY_MS;
      if (parts.some(({ t }) => t.some((each) => each > latest))) {
        throw new BeaconError('BAD_INPUT', 'A sample lies more than a day in the future.', 'parts');
      }
      await withTransaction(app.pool, async (db) => {
        const intake = await needOpen(db, params.id, person);
        await putBatch(db, intake.id, body.seq, parts);
        if (body.refusals.length > 0) await addRefusals(db, intake.id, body.refusals);
      });
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/intakes/:id/finish',
    access: 'analyst',
    summary: 'Brings all parts into the store in one transaction, all or nothing.',
    answer: 'Intake with counts. 409 WRONG_STATE when a part is missing.',
    body: yup
      .object({
        batches: yup.number().integer().min(0).required(),
        rows: yup.number().integer().min(0).required(),
        refused: yup.number().integer().min(0).required(),
      })
      .noUnknown(),
    handle: async ({ app, params, body, person }) => {
      await withTransaction(app.pool, async (db) => {
        const intake = await needOpen(db, params.id, person);
        await finishIntake(db, intake, body, app.now());
      });
      return findIntake(app.pool, params.id, REFUSALS_SHOWN);
    },
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
        await dropBatches(db, intake.id);
        await closeIntake(db, intake.id, 'cancelled', app.now(), 0, 0);
      });
    },
  }),
];
