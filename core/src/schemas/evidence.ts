import { named } from './shape';
import * as yup from 'yup';
import { momentMs } from './parts';

/** A path within the app: one slash in front, so that it leads nowhere else. */
const APP_PATH = /^\/(?![/\\])[^\s\\]*$/;
const MAX_NUMBERS = 60;

export const flagEvidenceSchema = named(
  'FlagEvidence',
  yup
    .object({
      title: yup.string().trim().max(300).required(),
      address: yup
        .string()
        .max(2000)
        .defined()
        .test(
          'path',
          'The address of the evidence must be a path of this app',
          (x) => x === '' || APP_PATH.test(x!),
        ),
      window: yup
        .object({ start: momentMs().required(), end: momentMs().required() })
        .noUnknown()
        .nullable()
        .default(null)
        .test('order', 'The stretch of time must end after it starts', (x) => x === null || x.end > x.start),
      numbers: yup
        .array(
          yup
            .object({ name: yup.string().max(200).required(), text: yup.string().max(200).defined() })
            .noUnknown()
            .required(),
        )
        .max(MAX_NUMBERS)
        .required(),
    })
    .noUnknown(),
);
