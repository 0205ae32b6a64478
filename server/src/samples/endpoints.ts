import { BeaconError } from '@vivid-beacon/core';
import { endpoint } from '../http/endpoint';
import { pushSamples } from './push';
import {
  MOST_SAMPLES,
  readJsonPush,
  readNdjsonPush,
  readOpenMetricsPush,
  readPlainPush,
  type SentBatch,
} from './readPush';
import { pushGate, USUAL_GATE } from './gate';

const FIVE_MB = 5_000_000;
const NDJSON = 'application/x-ndjson';
const OPEN_METRICS = 'application/openmetrics-text';
const PLAIN = 'text/plain';

function readBody(contentType: string | undefined, body: unknown, now: number): SentBatch {
  const type = (contentType ?? '').split(';')[0].trim().toLowerCase();
  if (type === NDJSON) return readNdjsonPush(String(body));
  if (type === OPEN_METRICS) return readOpenMetricsPush(String(body), now);
  if (type === PLAIN) return readPlainPush(String(body), now);
  if (type === 'application/json') return readJsonPush(body);
  throw new BeaconError(
    'BAD_INPUT',
    `Send samples as application/json, ${NDJSON}, ${OPEN_METRICS} or ${PLAIN} (exposition text); the content type was "${type}".`,
    'content-type',
  );
}

export const sampleEndpoints = [
  endpoint({
    method: 'post',
    path: '/api/samples',
    access: 'token',
    summary:
      `Takes up to ${MOST_SAMPLES} samples: JSON { samples: [{ metric: key, t: ms or ISO time with offset, v: number, q?: good | uncertain | bad, unit? }] } ` +
      `or { series: [{ metric, t: [], v: [], q?: [] }] }; ${NDJSON} with one sample a line; ${OPEN_METRICS} or ${PLAIN} (exposition text), matched by the label metric, by what its series were mapped to, by the rule of the token, or without labels by the name.`,
    answer:
      '{ added, unchanged, corrected, refused: [{ index, reason }], met: [{ index, first, reason }] }; index counts samples from 0, in text formats lines; met = different values of one series and time in this push. ' +
      'Sending a batch again changes nothing; a new value or quality for an old time corrects it and the old one is kept. ' +
      'When this is answered, what was added is stored, once. Bodies may be gzip. ' +
      '413 TOO_LARGE for more samples or 5 MB unpacked; 429 TOO_MANY with Retry-After when too much is on its way.',
    text: [NDJSON, OPEN_METRICS, PLAIN],
    before: pushGate(USUAL_GATE),
    limit: FIVE_MB,
    handle: ({ app, request, token }) =>
      pushSamples(app, token, readBody(request.headers['content-type'], request.body, app.now())),
  }),
];
