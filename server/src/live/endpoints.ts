import { liveApi } from '@vivid-beacon/core/src/api/server';
import { endpoints, SENT } from '../http/endpoint';

export const liveEndpoints = endpoints(liveApi, {
  'GET /api/live': async ({ app, db, request, response }) => {
    await app.live.connect(request, response, db.asker);
    return SENT;
  },
});
