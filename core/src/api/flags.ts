import * as yup from 'yup';
import { flagEntity } from '../domain/flags';
import {
  closeFlagSchema,
  flagCauseSchema,
  flagCommentSchema,
  flagSchema,
  handOnSchema,
} from '../schemas/flags';
import { flagListSchema } from '../schemas/lists';
import { fromAndTo, idList } from '../schemas/parts';
import { amount, list, oneOf, shape, text, type TypeOf } from '../schemas/shape';
import { pageOf } from './assets';
import { contracts, json, nothing } from './contract';

const MAX_METRICS = 50;

const flagEvent = shape({
  id: text(),
  at: amount(),
  kind: oneOf(['handed', 'inHand', 'comment', 'handedOn', 'closed', 'reopened'] as const),
  personName: text(),
  remark: text(),
});
/** One thing that happened to a flag. */
export type FlagEvent = TypeOf<typeof flagEvent>;

const flagCause = shape({ id: text(), name: text() });
export type FlagCause = TypeOf<typeof flagCause>;

/** The input for handing out a flag. */
export type FlagInput = TypeOf<typeof flagSchema>;
export type FlagClosing = TypeOf<typeof closeFlagSchema>;

const THEIRS = 'NOT_ALLOWED, unless its taker, its giver or an analyst asks';

export const flagsApi = contracts({
  'GET /api/flags': {
    access: 'viewer',
    summary:
      'Flags: open ones, most urgent first, or closed ones, newest first; of everybody, or those taken or handed out by the caller.',
    query: flagListSchema,
    answer: json(pageOf(flagEntity)),
  },
  'GET /api/flags/on-time': {
    access: 'viewer',
    summary: `Flags on up to ${MAX_METRICS} metrics (ids with commas) that touch a stretch of time, ms.`,
    query: yup.object({ metricIds: idList(MAX_METRICS).required(), ...fromAndTo() }).noUnknown(),
    answer: json(list(flagEntity)),
  },
  'GET /api/flags/:id': {
    access: 'viewer',
    summary: 'One flag with its history.',
    answer: json(shape({ flag: flagEntity, events: list(flagEvent) })),
  },
  'POST /api/flags': {
    access: 'operator',
    summary:
      'Hands a flag to a person: from an alarm, from a stretch of a trend, or on its own. The numbers of the alarm are stored as evidence.',
    body: flagSchema,
    answer: json(flagEntity),
  },
});

export const flagStepsApi = contracts({
  'POST /api/flags/:id/in-hand': {
    access: 'operator',
    summary: 'Takes an open flag in hand: its taker, its giver, or an analyst may.',
    answer: json(flagEntity),
    errors: { 403: THEIRS, 409: 'WRONG_STATE when it is in hand or closed already' },
  },
  'POST /api/flags/:id/comments': {
    access: 'operator',
    summary: 'Adds a comment to a flag.',
    body: flagCommentSchema,
    answer: json(flagEntity),
  },
  'POST /api/flags/:id/taker': {
    access: 'operator',
    summary: 'Hands a flag on to another person: its taker, its giver, or an analyst may.',
    body: handOnSchema,
    answer: json(flagEntity),
    errors: { 403: THEIRS, 409: 'WRONG_STATE when it is closed' },
  },
  'POST /api/flags/:id/outcome': {
    access: 'operator',
    summary: 'Closes a flag with outcome, cause and minutes spent: its taker, its giver, or an analyst may.',
    body: closeFlagSchema,
    answer: json(flagEntity),
    errors: { 403: THEIRS, 409: 'WRONG_STATE when it is closed already' },
  },
  'DELETE /api/flags/:id/outcome': {
    access: 'operator',
    summary: 'Opens a closed flag again: its taker, its giver, or an analyst may.',
    answer: json(flagEntity),
    errors: { 403: THEIRS, 409: 'WRONG_STATE when it is not closed' },
  },
});

export const flagCausesApi = contracts({
  'GET /api/flag-causes': {
    access: 'viewer',
    summary: "The organisation's list of causes.",
    answer: json(list(flagCause)),
  },
  'POST /api/flag-causes': {
    access: 'analyst',
    everywhere: true,
    summary: 'Adds a cause to the list.',
    body: flagCauseSchema,
    answer: json(flagCause),
    errors: { 409: 'WRONG_STATE when it is on the list already' },
  },
  'DELETE /api/flag-causes/:id': {
    access: 'analyst',
    everywhere: true,
    summary: 'Removes a cause from the list; flags that name it keep it.',
    answer: nothing,
  },
});
