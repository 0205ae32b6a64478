import { flagCausesApi } from '@vivid-beacon/core/src/api/flags';
import { BeaconError } from '@vivid-beacon/core';
import { endpoints } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { addCause, listCauses, removeCause } from './sql';

export const flagCauseEndpoints = endpoints(flagCausesApi, {
  'GET /api/flag-causes': ({ app }) => listCauses(app.pool),

  'POST /api/flag-causes': async ({ app, body }) => {
    return changeAndNotify(
      app.pool,
      'flags',
      async (db) => {
        const cause = await addCause(db, body.name);
        if (!cause) throw new BeaconError('WRONG_STATE', `"${body.name}" is on the list already.`, 'name');
        return cause;
      },
      ({ id }) => [id],
    );
  },

  'DELETE /api/flag-causes/:id': async ({ app, params }) => {
    await changeAndNotify(
      app.pool,
      'flags',
      async (db) => {
        if (!(await removeCause(db, params.id, app.now()))) {
          throw new BeaconError('NOT_FOUND', 'This cause is not on the list.');
        }
      },
      () => [params.id],
    );
  },
});
