import { DAY_MS } from '../time/lengths';
import * as yup from 'yup';
import { SET_ASIDE } from '../alarms/lifecycle';
import { idText, momentMs } from './parts';

export const signInSchema = yup
  .object({
    email: yup.string().trim().email('Give an e-mail address').max(200).required('Give an e-mail address'),
    password: yup.string().min(1).max(200).required('Give a password'),
    /** Six digits of the authenticator app, or a recovery code; needed where the account has a second factor. */
    code: yup.string().trim().min(1).max(60).nullable().default(null),
  })
  .noUnknown();

/** Longest time for which a rule may be shelved at once. */
const MAX_SHELF_MS = 7 * DAY_MS;

export const asideSchema = yup
  .object({
    kind: yup
      .string()
      .oneOf([...SET_ASIDE])
      .required(),
    forMs: yup
      .number()
      .integer()
      .min(60_000, 'A rule is shelved for at least a minute')
      .max(MAX_SHELF_MS, 'A rule is shelved for 7 days at most')
      .nullable()
      .default(null)
      .when('kind', { is: 'shelved', then: (s) => s.required('Say for how long it is shelved') }),
    reason: yup.string().trim().min(1, 'Say why').max(500).required('Say why'),
    /** Of a rule over a scope: only this one of its metrics. */
    metricId: idText().nullable().default(null),
  })
  .noUnknown();

export const remarkSchema = yup.object({ remark: yup.string().trim().max(2000).default('') }).noUnknown();

const MAX_TOKEN_METRICS = 500;

export const newTokenSchema = yup
  .object({
    name: yup.string().trim().min(1, 'Give the token a name').max(120).required('Give the token a name'),
    /** Writes at this plant only; null = everywhere. */
    plantId: idText().nullable().default(null),
    /** Writes these metrics only; null = all of its plants. */
    metricIds: yup
      .array(idText().required())
      .min(1, 'Choose a metric at least, or all')
      .max(MAX_TOKEN_METRICS, `A token can be limited to ${MAX_TOKEN_METRICS} metrics at most`)
      .nullable()
      .default(null),
    /** ms; null = until it is revoked. */
    endsAt: momentMs().nullable().default(null),
  })
  .noUnknown();
