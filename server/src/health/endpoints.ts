import { healthApi } from '@vivid-beacon/core/src/api/server';
import { BeaconError } from '@vivid-beacon/core';
import { endpoints } from '../http/endpoint';

export const healthEndpoints = endpoints(healthApi, {
  'GET /api/health': async ({ app }) => {
    try {
      await app.pool.query('select 1');
    } catch {
      throw new BeaconError('NOT_READY', 'The database does not answer.');
    }
    return { ok: true };
  },
});
