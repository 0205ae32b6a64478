import * as yup from 'yup';
import { countedNumber, fromAndTo, idList } from '../schemas/parts';
import { amount, list, shape, text, type TypeOf } from '../schemas/shape';
import { content, contracts, json } from './contract';

const MAX_ROWS_A_PAGE = 50_000;
const MAX_METRICS = 200;
const FIVE_MB = 5_000_000;
/** Most samples of one push. */
export const MAX_SAMPLES = 10_000;

export const BYTES = 'application/octet-stream';
export const JSON_TYPE = 'application/json';
export const NDJSON = 'application/x-ndjson';
export const OPEN_METRICS = 'application/openmetrics-text';
export const PLAIN = 'text/plain';

export const EXPORT_FORMATS = ['csv', 'xlsx', 'ndjson'] as const;
export type ExportFormat = (typeof EXPORT_FORMATS)[number];

const pushRefusal = shape({ index: amount(), reason: text() });
/** A sample that was not taken; `index` from 0: of samples, in text formats of lines. */
export type PushRefusal = TypeOf<typeof pushRefusal>;

/** `first`: the earlier sample it collided with. */
const pushMeeting = shape({ index: amount(), first: amount(), reason: text() });
export type PushCollision = TypeOf<typeof pushMeeting>;

const pushAnswer = shape({
  added: amount(),
  unchanged: amount(),
  corrected: amount(),
  refused: list(pushRefusal),
  /**
   * Samples that collided with a different value of the same series and time in this push; the token's rule
   * decides which to keep.
   */
  met: list(pushMeeting),
});
/** Answer to a push: the outcome of every sample. */
export type PushAnswer = TypeOf<typeof pushAnswer>;

const NOT_SAMPLES = 'BAD_INPUT for a derived or reference metric: it has no raw samples';

export const pushApi = contracts({
  'POST /api/samples': {
    access: 'token',
    summary:
      `Takes up to ${MAX_SAMPLES} samples: JSON { samples: [{ metric: key, t: ms or ISO time with offset, v: number, q?: good | uncertain | bad, unit? }] } ` +
      `or { series: [{ metric, t: [], v: [], q?: [] }] }; ${NDJSON} with one sample a line; ${OPEN_METRICS} or ${PLAIN} (exposition text), matched by the label metric, by what its series were mapped to, by the rule of the token, or without labels by the name.`,
    content: [JSON_TYPE, NDJSON, OPEN_METRICS, PLAIN],
    limit: FIVE_MB,
    answer: json(
      pushAnswer,
      'index counts samples from 0, in text formats lines; met = colliding values of one series and time in this push. ' +
        'Sending a batch again changes nothing; a new value or quality for an old time corrects it, and the old one is kept. ' +
        'When this is answered, the added samples are stored. Bodies may be gzip.',
    ),
    errors: {
      408: 'TOO_SLOW for a body that takes longer than 10 s',
      413: 'TOO_LARGE for more samples, or 5 MB unpacked',
      429: 'TOO_MANY with Retry-After when too many pushes are in progress',
    },
  },
});

export const samplesApi = contracts({
  'GET /api/metrics/:id/samples': {
    access: 'viewer',
    summary: 'A page of raw samples of a metric by time, including bad ones.',
    query: yup
      .object({
        ...fromAndTo(),
        offset: countedNumber().default(0),
        limit: yup.number().integer().min(1).max(MAX_ROWS_A_PAGE).default(1000),
      })
      .noUnknown(),
    answer: content(
      BYTES,
      'in the layout of core/src/exports/columns.ts: head { total, offset }, columns t (ms), v (NaN = missing), q (0 good, 1 uncertain, 2 bad, 3 implausible)',
    ),
    errors: { 422: NOT_SAMPLES },
  },
  'GET /api/exports/samples': {
    access: 'viewer',
    summary: 'Raw samples of metrics as a file: csv, xlsx or ndjson, streamed.',
    query: yup
      .object({
        metricIds: idList(MAX_METRICS).required(),
        ...fromAndTo(),
        format: yup.string().oneOf(EXPORT_FORMATS).required(),
      })
      .noUnknown(),
    answer: content(
      ['text/csv', 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet', NDJSON],
      'time in UTC and in the zone of the asset, plant, asset, metric, key, value, unit, quality. Formula-like text is escaped in csv.',
    ),
    errors: {
      404: 'NOT_FOUND for a missing metric',
      422: NOT_SAMPLES,
      429: 'TOO_MANY when 8 downloads are waiting',
    },
  },
});
