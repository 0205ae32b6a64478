import * as yup from 'yup';
import { FLAG_KINDS, FLAG_OUTCOMES, FLAG_PRIORITIES } from '../domain/flags';
import { flagEvidenceSchema } from './evidence';
import { idText, momentMs } from './parts';

export const flagSchema = yup
  .object({
    title: yup.string().trim().min(1, 'Say what is to be done').max(200).required('Say what is to be done'),
    note: yup.string().trim().max(2000).default(''),
    kind: yup.string().oneOf(FLAG_KINDS).default('breach'),
    priority: yup.string().oneOf(FLAG_PRIORITIES).default('normal'),
    toPersonId: idText().required('Choose a person'),
    dueAt: momentMs().required('Say by when'),
    alarmId: idText().nullable().default(null),
    metricId: idText().nullable().default(null),
    assetId: idText().required(),
    evidence: flagEvidenceSchema.nullable().default(null),
  })
  .noUnknown();

export const closeFlagSchema = yup
  .object({
    outcome: yup.string().oneOf(FLAG_OUTCOMES, 'Choose an outcome').required('Choose an outcome'),
    note: yup.string().trim().max(2000).default(''),
    causeId: idText().nullable().default(null),
    minutesSpent: yup
      .number()
      .typeError('Give the minutes as a number')
      .integer('Give whole minutes')
      .min(0, 'Time spent must be at least 0')
      .max(60 * 24 * 30, 'That is more than a month')
      .nullable()
      .default(null),
  })
  .noUnknown();

export const flagCommentSchema = yup
  .object({ remark: yup.string().trim().min(1, 'Write something').max(2000).required('Write something') })
  .noUnknown();

export const handOnSchema = yup
  .object({
    toPersonId: idText().required('Choose a person'),
    remark: yup.string().trim().max(2000).default(''),
  })
  .noUnknown();

export const flagCauseSchema = yup
  .object({
    name: yup.string().trim().min(1, 'Give the cause a name').max(120).required('Give the cause a name'),
  })
  .noUnknown();
