import * as yup from 'yup';
import { attributesSchema } from './data';
import { idText, momentMs } from './parts';

/* Shapes of the stop log, the job log and remarks. */

export const REMARK_KINDS = ['reason', 'abnormal', 'note'] as const;
export type RemarkKind = (typeof REMARK_KINDS)[number];

const stopParts = {
  assetId: idText().required('Choose the asset that stopped'),
  start: momentMs().required('Say since when it stopped'),
  end: momentMs()
    .nullable()
    .default(null)
    .test('order', 'A stop must end after it starts', (end, { parent }) => end == null || end > parent.start),
  category: yup.string().trim().max(80).default(''),
  reason: yup.string().trim().min(1, 'Give the reason').max(300).required('Give the reason'),
  note: yup.string().trim().max(2000).default(''),
};
export const stopSchema = yup.object(stopParts).noUnknown();

const MAX_ENTRIES = 5000;
export const stopsSchema = yup
  .object({
    entries: yup
      .array(
        yup
          .object({ key: yup.string().trim().min(1).max(120).nullable().default(null), ...stopParts })
          .noUnknown(),
      )
      .min(1)
      .max(MAX_ENTRIES)
      .required(),
  })
  .noUnknown();

const statusParts = yup
  .object({
    at: momentMs().required('Say since when'),
    status: yup.string().trim().min(1, 'Give the status').max(80).required('Give the status'),
  })
  .noUnknown();

export const jobSchema = yup
  .object({
    assetId: idText().required('Choose the desk'),
    number: yup.string().trim().min(1, 'Give the job a number').max(80).required('Give the job a number'),
    category: yup.string().trim().max(80).default(''),
    customer: yup.string().trim().max(120).default(''),
    owner: yup.string().trim().max(120).default(''),
    fields: attributesSchema.default({}),
    history: yup
      .array(statusParts.required())
      .min(1, 'A job begins with a status')
      .max(200)
      .required()
      .test('order', 'The statuses of a job must follow one another in time', (list) =>
        (list ?? []).every((each, i) => !each || i === 0 || !(each.at <= list![i - 1]?.at)),
      ),
  })
  .noUnknown();

export const jobsSchema = yup
  .object({ jobs: yup.array(jobSchema.required()).min(1).max(MAX_ENTRIES).required() })
  .noUnknown();

export const statusSchema = statusParts;

export const statusKindSchema = yup
  .object({
    status: yup.string().trim().min(1).max(80).required(),
    /** The clock stands while the job is in it, for example while the customer has the ball. */
    stopsClock: yup.boolean().required(),
    endsJob: yup.boolean().required(),
  })
  .noUnknown();

export const statusKindsSchema = yup
  .object({
    kinds: yup.array(statusKindSchema).max(60).required(),
  })
  .noUnknown();

export const stretchRemarkSchema = yup
  .object({
    assetId: idText().required('Choose an asset'),
    start: momentMs().required('Say when it began'),
    end: momentMs()
      .required('Say when it ended')
      .moreThan(yup.ref('start'), 'A remark must end after it starts'),
    kind: yup.string().oneOf(REMARK_KINDS).default('note'),
    text: yup.string().trim().min(1, 'Write the remark').max(2000).required('Write the remark'),
  })
  .noUnknown();
