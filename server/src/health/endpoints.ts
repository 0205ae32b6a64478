import { BeaconError } from '@vivid-beacon/core';
import { endpoint } from '../http/endpoint';

export const healthEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/health',
    access: 'anybody',
    summary: 'Tells whether the server can reach its database.',
    answer: '{ ok: true }. 503 NOT_READY when it cannot.',
    handle: async ({ app }) => {
      try {
        await app.pool.query('select 1');
      } catch {
        throw new BeaconError('NOT_READY', 'The database does not answer.');
      }
      return { ok: true };
    },
  }),
];
