import * as yup from 'yup';
import { attributesSchema } from '../schemas/data';
import {
  jobSchema,
  jobsSchema,
  statusKindSchema,
  statusKindsSchema,
  statusSchema,
  stopSchema,
  stopsSchema,
} from '../schemas/logs';
import { fromAndTo, idText } from '../schemas/parts';
import { amount, amountOrNull, list, shape, text, truth, type TypeOf, named } from '../schemas/shape';
import { contracts, json, nothing } from './contract';

export const stopEntry = named(
  'StopEntry',
  shape({
    id: text(),
    assetId: text(),
    assetName: text(),
    plantName: text(),
    zone: text(),
    start: amount(),
    /** null while it is still stopped. */
    end: amountOrNull(),
    category: text(),
    reason: text(),
    note: text(),
    enteredBy: text(),
  }),
);
/** One entry of the stop log. Times in ms. */
export type StopEntry = TypeOf<typeof stopEntry>;

const stopLog = shape({
  entries: list(stopEntry),
  /** ms stopped by asset and reason; overlapping stops of an asset count once. */
  byReason: list(shape({ reason: text(), stops: amount(), ms: amount() })),
  totalMs: amount(),
  now: amount(),
});
/** Stops of a stretch of time, with their totals. */
export type StopLog = TypeOf<typeof stopLog>;

/** The meaning of a status on a desk. */
export type StatusKind = TypeOf<typeof statusKindSchema>;

const jobEntry = named(
  'JobEntry',
  shape({
    id: text(),
    assetId: text(),
    assetName: text(),
    zone: text(),
    number: text(),
    category: text(),
    customer: text(),
    owner: text(),
    fields: attributesSchema.defined(),
    history: list(shape({ at: amount(), status: text(), by: text() })),
    open: truth(),
    /** Time in our own statuses and in working hours, ms. */
    workingMs: amount(),
    /** From first to last status (or now), ms. */
    elapsedMs: amount(),
  }),
);
/** One entry of the job log. Times in ms. */
export type JobEntry = TypeOf<typeof jobEntry>;

const listAnswer = shape({
  added: amount(),
  changed: amount(),
  /** `index` from 0. */
  refused: list(shape({ index: amount(), reason: text() })),
});
/** The outcome of every entry of a list. */
export type ListAnswer = TypeOf<typeof listAnswer>;

export type StopInput = TypeOf<typeof stopSchema>;
export type JobInput = TypeOf<typeof jobSchema>;

export const logsApi = contracts({
  'GET /api/stops': {
    access: 'viewer',
    summary: 'The stop log of a stretch of time, for an asset and everything below it, or for all.',
    query: yup.object({ assetId: idText().optional(), ...fromAndTo() }).noUnknown(),
    answer: json(stopLog, 'times in ms; overlapping stops of an asset count once'),
  },
  'GET /api/stops/reasons': {
    access: 'viewer',
    summary: 'Reasons used before, the most frequent of the asset first.',
    query: yup.object({ assetId: idText().optional() }).noUnknown(),
    answer: json(list(text()), 'at most 12'),
  },
  'POST /api/stops': {
    access: 'operator',
    summary: 'Enters a stop: start, reason, and end unless it is open.',
    body: stopSchema,
    answer: json(stopEntry),
  },
  'PUT /api/stops/:id': {
    access: 'operator',
    summary: 'Changes or ends a stop.',
    body: stopSchema,
    answer: json(stopEntry),
  },
  'DELETE /api/stops/:id': {
    access: 'operator',
    summary: 'Removes a stop from the log.',
    answer: nothing,
  },
  'POST /api/stops/list': {
    access: 'analyst',
    summary: 'Enters many stops, for example from a file. A stop with an existing key is updated.',
    body: stopsSchema,
    limit: 5_000_000,
    answer: json(listAnswer),
  },
  'GET /api/jobs': {
    access: 'viewer',
    summary: 'The job log: open jobs, and those that changed in the last days.',
    query: yup
      .object({ assetId: idText().optional(), days: yup.number().integer().min(1).max(400).default(30) })
      .noUnknown(),
    answer: json(list(jobEntry), 'workingMs counts our own statuses in working hours only'),
  },
  'POST /api/jobs': {
    access: 'operator',
    summary: 'Enters a job with its first status, or updates the one with this number.',
    body: jobSchema,
    answer: json(jobEntry),
  },
  'POST /api/jobs/list': {
    access: 'analyst',
    summary: 'Enters many jobs with their histories, for example from a file.',
    body: jobsSchema,
    limit: 5_000_000,
    answer: json(listAnswer),
  },
  'POST /api/jobs/:id/statuses': {
    access: 'operator',
    summary: 'Gives a job a new status.',
    body: statusSchema,
    answer: json(jobEntry),
  },
  'GET /api/desks/:id/statuses': {
    access: 'viewer',
    summary: 'The meaning of the statuses of a desk.',
    answer: json(list(statusKindSchema)),
  },
  'PUT /api/desks/:id/statuses': {
    access: 'analyst',
    summary: 'Sets the meaning of the statuses of a desk: which pause the clock, which end a job.',
    body: statusKindsSchema,
    answer: json(list(statusKindSchema)),
  },
});
