import * as yup from 'yup';
import { toldLine } from '../intake/balance';
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

/** So many lines of each kind come with an intake; its file of the balance has all. */
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

/** What became of a column, and why. */
const toldColumn = shape({ heading: text(), part: oneOf(COLUMN_PARTS), note: text() });

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
  /** The balance of its lines and what became of its columns; empty for files brought in before these were kept. */
  notes: shape({ balance: balanceSchema.optional(), columns: yup.array(toldColumn).optional() }),
  metrics: list(shape({ metricId: text(), name: text(), assetName: text(), added: amount() })),
};
const intakeWithoutLines = shape(intakeFields);
export type IntakeWithoutLines = TypeOf<typeof intakeWithoutLines>;

const intake = named('Intake', shape({ ...intakeFields, lines: list(toldLine) }));
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
  /** Values stored already that the file gives otherwise. */
  corrected: amount(),
});
/** What storing a file would do to a metric that is there. */
export type MetricEffect = TypeOf<typeof metricEffect>;

const finishOrder = yup
  .object({
    /** How many parts were sent; if one is missing nothing is done. */
    batches: countedNumber().required(),
    balance: balanceSchema.required(),
    columns: yup.array(toldColumn).max(10_000).default([]),
    made: madeSchema.default({ assets: [], metrics: [] }),
    /** What becomes of stored values that the file gives otherwise. */
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
    summary: 'Lists the newest files that were brought in.',
    answer: json(list(intakeWithoutLines), 'at most 30'),
  },
  'GET /api/intakes/:id': {
    access: 'viewer',
    summary: 'One intake with the balance of its lines.',
    answer: json(intake, `at most ${LINES_SHOWN} lines of each kind`),
  },
  'GET /api/intakes/:id/balance.csv': {
    access: 'viewer',
    summary: 'What became of every line and column of an intake, as a file.',
    answer: content(
      'text/csv',
      'file, kind, line, column, value, reason; counts first, then columns, then lines; cells that a spreadsheet would run are escaped',
    ),
  },
  'GET /api/intake-mappings': {
    access: 'analyst',
    summary: 'How a file of this shape was read last time.',
    query: yup.object({ shape: yup.string().length(64).required() }).noUnknown(),
    answer: json(keptMapping.nullable(), 'null = none was'),
  },
  'POST /api/intakes': {
    access: 'analyst',
    summary: 'Begins to bring in a file. Nothing reaches the store before it is finished.',
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
      'Hands over one part of the file: head { seq, metricIds, told }, columns "t 0", "v 0", …; a metric that is still to be made is called new-0, new-1 … The same number again replaces the part.',
    content: [BYTES],
    limit: PART_BYTES,
    answer: nothing,
    errors: {
      409: `${NOT_READING}, and when values meet that were not combined`,
      422: 'BAD_INPUT names a bad sample',
    },
  },
  'GET /api/intakes/:id/check': {
    access: 'analyst',
    summary: 'What storing the parts that have arrived would change; nothing is changed yet.',
    answer: json(
      list(metricEffect),
      'metrics that are there already; corrected = stored values that the file gives otherwise',
    ),
    errors: { 409: NOT_READING },
  },
  'POST /api/intakes/:id/finish': {
    access: 'analyst',
    summary:
      'Brings all parts into the store in one transaction, all or nothing, with the assets and metrics they need, and remembers the mapping.',
    limit: PART_BYTES,
    body: finishOrder,
    answer: json(
      shape({ intake, made: dictionary(text()) }),
      'made: the id of each metric by the name it had in the parts',
    ),
    errors: {
      409: `${NOT_READING}, when a part is missing, and when stored values would change and corrections is "refuse"`,
    },
  },
  'POST /api/intakes/:id/undo': {
    access: 'analyst',
    summary: 'Undoes a finished intake: samples it added go, those it replaced get their former values.',
    answer: json(undone, 'kept = changed since by something else'),
    errors: { 409: 'WRONG_STATE unless it is finished' },
  },
  'DELETE /api/intakes/:id': {
    access: 'analyst',
    summary: 'Cancels an intake that is not finished; nothing of it stays.',
    answer: nothing,
    errors: { 409: NOT_READING },
  },
});
