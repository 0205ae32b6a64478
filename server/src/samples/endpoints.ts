import { endpoint } from '../http/endpoint';
import { pushGate, USUAL_GATE } from './gate';
import { MOST_SAMPLES } from './readPush';
import { JSON_TYPE, NDJSON, OPEN_METRICS, PLAIN, takePush } from './takePush';

const FIVE_MB = 5_000_000;
const gate = pushGate(USUAL_GATE);

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
      '413 TOO_LARGE for more samples or 5 MB unpacked; 429 TOO_MANY with Retry-After when too much is on its way; 408 TOO_SLOW for a body that takes longer than 10 s.',
    bytes: [JSON_TYPE, NDJSON, OPEN_METRICS, PLAIN],
    first: gate.outer,
    before: gate.inner,
    limit: FIVE_MB,
    handle: ({ app, request, token }) =>
      takePush(app, token, {
        contentType: request.headers['content-type'] ?? '',
        bytes: Buffer.isBuffer(request.body) ? request.body : new Uint8Array(0),
      }),
  }),
];
