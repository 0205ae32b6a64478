import { pushApi } from '@vivid-beacon/core/src/api/samples';
import { endpoints } from '../http/endpoint';
import { backpressure, DEFAULT_BACKPRESSURE } from './backpressure';
import { takePush } from './takePush';

const gate = backpressure(DEFAULT_BACKPRESSURE);

export const sampleEndpoints = endpoints(
  pushApi,
  {
    'POST /api/samples': ({ app, request, token }) =>
      takePush(app, token, {
        contentType: request.headers['content-type'] ?? '',
        bytes: Buffer.isBuffer(request.body) ? request.body : new Uint8Array(0),
      }),
  },
  { 'POST /api/samples': { first: gate.outer, before: gate.inner } },
);
