import { BeaconError, flagCauseSchema } from '@vivid-beacon/core';
import { endpoint } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { addCause, listCauses, removeCause } from './sql';

export const flagCauseEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/flag-causes',
    access: 'viewer',
    summary: "The organisation's list of causes.",
    answer: '[{ id, name }]',
    handle: ({ app }) => listCauses(app.pool),
  }),
  endpoint({
    method: 'post',
    path: '/api/flag-causes',
    access: 'analyst',
    summary: 'Adds a cause to the list.',
    answer: '{ id, name }. 409 WRONG_STATE when it is on the list already.',
    body: flagCauseSchema,
    handle: async ({ app, body }) => {
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
  }),
  endpoint({
    method: 'delete',
    path: '/api/flag-causes/:id',
    access: 'analyst',
    summary: 'Takes a cause off the list; flags that name it keep it.',
    answer: 'Nothing (204). 404 NOT_FOUND.',
    handle: async ({ app, params }) => {
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
  }),
];
