import * as yup from 'yup';
import { pageFields, searchText } from '../schemas/lists';
import { idText, momentMs } from '../schemas/parts';
import {
  amount,
  amountOrNull,
  list,
  named,
  shape,
  text,
  textOrNull,
  truth,
  type TypeOf,
} from '../schemas/shape';
import { pageOf } from './assets';
import { content, contracts, json, nothing } from './contract';

const trailEntry = named(
  'TrailEntry',
  shape({
    /** Its number in the trail, from 1. */
    id: text(),
    /** ms. */
    at: amount(),
    /** null = the server itself. */
    personId: textOrNull(),
    /** As they were called then. */
    personName: textOrNull(),
    /** Network address of the request. */
    address: textOrNull(),
    /** "PUT /api/assets/:id". */
    request: textOrNull(),
    /** added, changed or removed; signedIn, signedOut, signInFailed, signInRefused, refused; cut. */
    action: text(),
    /** What it was: the name of a table, or session. */
    subject: text(),
    subjectId: textOrNull(),
    /** What it was called then. */
    name: textOrNull(),
    plantId: textOrNull(),
    plantName: textOrNull(),
    /** Members before and after; of a change only those that differ. Secrets are written as "(secret)". */
    before: yup.mixed<Readonly<Record<string, unknown>>>().nullable().defined(),
    after: yup.mixed<Readonly<Record<string, unknown>>>().nullable().defined(),
    /** SHA-256 over the hash before it and this entry, hexadecimal. */
    hash: text(),
  }),
);
/** One change, sign-in or refusal. */
export type TrailEntry = TypeOf<typeof trailEntry>;

/** What entries of the trail are looked for by. */
const trailFilter = () => ({
  /** Words that must all stand in names, request, or before and after. */
  search: searchText(),
  personId: idText().optional(),
  /** "alarm_rule". */
  subject: yup
    .string()
    .matches(/^[a-z_]{1,40}$/, '${path} is the name of a kind, such as alarm_rule')
    .optional(),
  subjectId: yup.string().max(100).optional(),
  plantId: idText().optional(),
  from: momentMs().optional(),
  to: momentMs().optional(),
});

const trailCheck = shape({
  /** Entries looked at. */
  entries: amount(),
  /** Whether each hash follows from the one before. */
  whole: truth(),
  /** Number of the first entry that does not fit; null = all fit. */
  broken: amountOrNull(),
  /** Hash of the newest entry: written down elsewhere, it proves later that nothing before it was changed. */
  newest: textOrNull(),
});
export type TrailCheck = TypeOf<typeof trailCheck>;

/** Shortest and longest time for which the trail is kept, days. */
export const TRAIL_DAYS = { least: 90, most: 3660, usual: 1095 } as const;

const trailSetting = shape({ days: amount() });

const ADMINISTRATOR = { access: 'administrator', everywhere: true } as const;

export const trailApi = contracts({
  'GET /api/trail': {
    ...ADMINISTRATOR,
    summary:
      'Who changed what, when and from where, with before and after; sign-ins and refusals too. Newest first.',
    query: yup.object({ ...trailFilter(), ...pageFields() }).noUnknown(),
    answer: json(pageOf(trailEntry)),
  },
  'GET /api/trail/subjects': {
    ...ADMINISTRATOR,
    summary: 'Kinds of things in the trail, with how many entries each has.',
    answer: json(list(shape({ subject: text(), entries: amount() }))),
  },
  'GET /api/trail/export': {
    ...ADMINISTRATOR,
    summary: 'The trail as NDJSON, oldest first, one entry a line, with both hashes.',
    query: yup.object(trailFilter()).noUnknown(),
    answer: content('application/x-ndjson', 'one TrailEntry a line, with previousHash besides'),
  },
  'POST /api/trail/check': {
    ...ADMINISTRATOR,
    summary: 'Computes the hashes of the whole trail anew and compares them.',
    answer: json(trailCheck),
  },
  'GET /api/trail/setting': {
    ...ADMINISTRATOR,
    summary: 'For how many days the trail is kept.',
    answer: json(trailSetting),
  },
  'PUT /api/trail/setting': {
    ...ADMINISTRATOR,
    summary: 'Sets for how many days the trail is kept; older entries are cut off every hour.',
    body: yup
      .object({
        days: yup
          .number()
          .integer()
          .min(TRAIL_DAYS.least, `The trail is kept for ${TRAIL_DAYS.least} days at least`)
          .max(TRAIL_DAYS.most, 'The trail is kept for ten years at most')
          .required('Say for how many days'),
      })
      .noUnknown(),
    answer: nothing,
  },
});
