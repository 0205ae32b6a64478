import { promisify } from 'node:util';
import { BeaconError, signInSchema, type SessionState } from '@vivid-beacon/core';
import { endpoint, type Call } from '../http/endpoint';
import { hashOfSession } from '../live/liveHub';
import { notify, SESSION_ENDED } from '../live/notify';
import { passwordFits } from './passwords';
import { findAccount, listPeople } from './sql';
import { SignInThrottle } from './throttle';

function stateOf(call: Call<unknown, unknown>, person: SessionState['person']): SessionState {
  return {
    person,
    csrfToken: call.app.formTokens.issue(call.request, call.response),
    demoAccounts: person ? [] : call.app.demoAccounts,
  };
}

export const peopleEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/session',
    access: 'anybody',
    summary: 'Tells who is signed in, and gives the form token that every change must send.',
    answer: '{ person: { id, name, role } or null, csrfToken, demoAccounts }',
    handle: async (call) => stateOf(call, call.person ?? null),
  }),
  endpoint({
    method: 'post',
    path: '/api/session',
    access: 'anybody',
    summary: 'Signs in.',
    answer:
      'As GET. 401 WRONG_PASSWORD; 429 TOO_MANY with Retry-After beyond 8 failures of an account or 40 from an address in 15 minutes.',
    body: signInSchema,
    handle: async (call) => {
      const { email, password } = call.body;
      const throttle = new SignInThrottle(call.app.pool);
      const admitted = await throttle.admit(email, call.request.ip ?? '');
      const account = await findAccount(call.app.pool, email);
      if (!(await passwordFits(account?.passwordHash, password)) || !account) {
        throw new BeaconError('WRONG_PASSWORD', 'E-mail address and password do not belong together.');
      }
      await admitted();
      const { session } = call.request;
      await promisify(session.regenerate.bind(session))();
      call.request.session.personId = account.id;
      return stateOf(call, { id: account.id, name: account.name, role: account.role });
    },
  }),
  endpoint({
    method: 'delete',
    path: '/api/session',
    access: 'anybody',
    summary: 'Signs out.',
    answer: 'Nothing (204).',
    handle: async ({ app, request, response }) => {
      const { sessionID } = request;
      await promisify(request.session.destroy.bind(request.session))();
      response.clearCookie('vivid-beacon');
      await notify(app.pool, SESSION_ENDED, [hashOfSession(sessionID)]);
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/people',
    access: 'viewer',
    summary: 'Lists people, to hand flags to.',
    answer: '[{ id, name, role }]',
    handle: ({ app }) => listPeople(app.pool),
  }),
];
