import { BeaconError, newTokenSchema } from '@vivid-beacon/core';
import { endpoint } from '../http/endpoint';
import { addToken, listTokens, revokeToken } from './sql';
import { makeToken } from './tokenOfRequest';

export const tokenEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/push-tokens',
    access: 'analyst',
    summary: 'Lists the push tokens in use; never the tokens themselves.',
    answer: '[{ id, name, createdAt, createdBy, lastUsedAt }]',
    handle: ({ app }) => listTokens(app.pool),
  }),
  endpoint({
    method: 'post',
    path: '/api/push-tokens',
    access: 'analyst',
    summary: 'Makes a push token. It is shown in this answer only.',
    answer: '{ id, token }',
    body: newTokenSchema,
    handle: async ({ app, body, person }) => {
      const { token, hash } = makeToken();
      const id = await addToken(app.pool, { name: body.name, hash, createdBy: person.id, at: app.now() });
      return { id, token };
    },
  }),
  endpoint({
    method: 'delete',
    path: '/api/push-tokens/:id',
    access: 'analyst',
    summary: 'Revokes a push token; what sends with it is refused from now on.',
    answer: 'Nothing (204).',
    handle: async ({ app, params }) => {
      if (!(await revokeToken(app.pool, params.id, app.now()))) {
        throw new BeaconError('NOT_FOUND', 'This token does not exist or is revoked already.');
      }
    },
  }),
];
