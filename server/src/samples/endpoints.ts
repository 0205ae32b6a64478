import * as yup from 'yup';
import { endpoint } from '../http/endpoint';
import { MOST_SAMPLES, pushSamples } from './push';

const FIVE_MB = 5_000_000;

export const sampleEndpoints = [
  endpoint({
    method: 'post',
    path: '/api/samples',
    access: 'token',
    summary: `Takes up to ${MOST_SAMPLES} samples: { samples: [{ metric: key, t: ms or ISO time with offset, v: number, unit? }] }.`,
    answer:
      '{ added, unchanged, corrected, refused: [{ index, reason }] }. Sending a batch again changes nothing. ' +
      'When this is answered, what was added is stored, once. 413 TOO_LARGE for more samples or 5 MB.',
    body: yup.object({ samples: yup.array().required('samples must be a list') }),
    limit: FIVE_MB,
    handle: ({ app, body, tokenId }) => pushSamples(app, tokenId, body.samples),
  }),
];
