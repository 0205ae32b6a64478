import * as yup from 'yup';
import { reportedLine } from '../intake/balance';
import { COLUMN_PARTS } from '../intake/layout';
import { balanceSchema } from '../schemas/balance';
import { madeSchema } from '../schemas/made';
import { countedNumber, wholeNumber } from '../schemas/parts';
import {
  amount,
  checkedBy,
  dictionary,
  list,
  oneOf,
  shape,
  text,
  type TypeOf,
  named,
} from '../schemas/shape';
import { content, contracts, json, nothing } from './contract';
import { BYTES } from './samples';

const PART_BYTES = 10_000_000;
const CORRECTION_CHOICES = ['refuse', 'replace', 'keep'] as const;
export type CorrectionChoice = (typeof CORRECTION_CHOICES)[number];

/** Lines of each kind sent with an intake; the balance file has all of them. */
export const LINES_SHOWN = 500;

/** A document that only the app reads. */
const opaque = () =>
  checkedBy(
    (value): value is Readonly<Record<string, unknown>> =>
      typeof value === 'object' && value !== null && !Array.isArray(value),
    { type: 'object' },
  );
const sha256 = (name: string) =>
  yup
    .string()
    .matches(/^[0-9a-f]{64}$/, `${name} must be SHA-256 in hex`)
    .required();

/** The outcome of a column, with the reason. */
const reportedColumn = shape({ heading: text(), part: oneOf(COLUMN_PARTS), note: text() });

const intakeFields = {
  id: text(),
  fileName: text(),
  status: oneOf(['reading', 'done', 'cancelled', 'undone'] as const),
  startedAt: amount(),
  startedBy: text(),
  rows: amount(),
  added: amount(),
  unchanged: amount(),
  corrected: amount(),
  refusedCount: amount(),
  /**
   * The balance of its lines and the outcome of its columns; empty for files imported before these were
   * stored.
   */
  notes: shape({ balance: balanceSchema.optional(), columns: yup.array(reportedColumn).optional() }),
  metrics: list(shape({ metricId: text(), name: text(), assetName: text(), added: amount() })),
};
const intakeWithoutLines = shape(intakeFields);
export type IntakeWithoutLines = TypeOf<typeof intakeWithoutLines>;

const intake = named('Intake', shape({ ...intakeFields, lines: list(reportedLine) }));
export type Intake = TypeOf<typeof intake>;

const mappingFields = { correct: opaque(), plans: opaque(), zone: yup.string().max(60).required() };
const keptMapping = shape({ ...mappingFields, fileName: text(), usedAt: amount() });
/** How a file of the same shape was read. */
export type KeptMapping = TypeOf<typeof keptMapping>;

const metricEffect = shape({
  metricId: text(),
  name: text(),
  assetName: text(),
  plantName: text(),
  samples: amount(),
  unchanged: amount(),
  /** Stored values that differ in the file. */
  corrected: amount(),
});
/** What storing a file would do to a metric that is there. */
export type MetricEffect = TypeOf<typeof metricEffect>;

const finishOrder = yup
  .object({
    /** Number of parts sent; nothing is done if one is missing. */
    batches: countedNumber().required(),
    balance: balanceSchema.required(),
    columns: yup.array(reportedColumn).max(10_000).default([]),
    made: madeSchema.default({ assets: [], metrics: [] }),
    /** What to do with stored values that differ in the file. */
    corrections: yup.string().oneOf(CORRECTION_CHOICES).default('refuse'),
    remember: yup
      .object({ shape: sha256('shape'), ...mappingFields })
      .noUnknown()
      .nullable()
      .default(null),
  })
  .noUnknown();
export type FinishOrder = TypeOf<typeof finishOrder>;

const undone = shape({ removed: amount(), restored: amount(), kept: amount() });
export type Undone = TypeOf<typeof undone>;

const NOT_READING = 'WRONG_STATE when it is finished, cancelled or undone';

export const intakesApi = contracts({
  'GET /api/intakes': {
    access: 'viewer',
    summary: 'The newest imported files.',
    answer: json(list(intakeWithoutLines), 'at most 30'),
  },
  'GET /api/intakes/:id': {
    access: 'viewer',
    summary: 'One intake with the balance of its lines.',
    answer: json(intake, `at most ${LINES_SHOWN} lines of each kind`),
  },
  'GET /api/intakes/:id/balance.csv': {
    access: 'viewer',
    summary: 'The outcome of every line and column of an intake, as a file.',
    answer: content(
      'text/csv',
      'file, kind, line, column, value, reason; counts first, then columns, then lines; cells that a spreadsheet would run are escaped',
    ),
  },
  'GET /api/intake-mappings': {
    access: 'analyst',
    summary: 'The mapping used last time for a file of this shape.',
    query: yup.object({ shape: yup.string().length(64).required() }).noUnknown(),
    answer: json(keptMapping.nullable(), 'null = none'),
  },
  'POST /api/intakes': {
    access: 'analyst',
    summary: 'Begins an intake. Nothing is stored before it is finished.',
    body: yup
      .object({
        fileName: yup.string().trim().min(1).max(300).required(),
        fileSize: wholeNumber().min(1, 'The file is empty (0 bytes).').required(),
        fileHash: sha256('fileHash'),
        layout: opaque(),
        collisions: yup
          .string()
          .oneOf(['refuse', 'last'] as const)
          .default('refuse'),
      })
      .noUnknown(),
    answer: json(shape({ id: text() })),
  },
  'POST /api/intakes/:id/parts': {
    access: 'analyst',
    summary:
      'Uploads one part of the file: head { seq, metricIds, told }, columns "t 0", "v 0", …; a metric to be created is called new-0, new-1 … Uploading a number again replaces the part.',
    content: [BYTES],
    limit: PART_BYTES,
    answer: nothing,
    errors: {
      409: `${NOT_READING}, and when colliding values were not combined`,
      422: 'BAD_INPUT names a bad sample',
    },
  },
  'GET /api/intakes/:id/check': {
    access: 'analyst',
    summary: 'What storing the uploaded parts would change; nothing is stored yet.',
    answer: json(list(metricEffect), 'existing metrics; corrected = stored values that differ in the file'),
    errors: { 409: NOT_READING },
  },
  'POST /api/intakes/:id/finish': {
    access: 'analyst',
    summary:
      'Stores all parts in one transaction, all or nothing, with the assets and metrics they need, and remembers the mapping.',
    limit: PART_BYTES,
    body: finishOrder,
    answer: json(
      shape({ intake, made: dictionary(text()) }),
      'made: the id of each created metric by its name in the parts',
    ),
    errors: {
      409: `${NOT_READING}, when a part is missing, and when stored values would change and corrections is "refuse"`,
    },
  },
  'POST /api/intakes/:id/undo': {
    access: 'analyst',
    summary: 'Undoes a finished intake: added samples are removed, replaced ones get their former values.',
    answer: json(undone, 'kept = changed since by something else'),
    errors: { 409: 'WRONG_STATE unless it is finished' },
  },
  'DELETE /api/intakes/:id': {
    access: 'analyst',
    summary: 'Cancels an unfinished intake; nothing of it is kept.',
    answer: nothing,
    errors: { 409: NOT_READING },
  },
});
