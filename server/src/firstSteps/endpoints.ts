import { firstStepsApi } from '@vivid-beacon/core/src/api/firstSteps';
import { endpoints } from '../http/endpoint';
import { putStepsAway, readFirstSteps } from './sql';

export const firstStepsEndpoints = endpoints(firstStepsApi, {
  'GET /api/first-steps': ({ db, person }) => readFirstSteps(db, person.id),

  'PUT /api/first-steps': async ({ app, person, body }) => {
    await putStepsAway(app.pool, person.id, body.away);
  },
});
