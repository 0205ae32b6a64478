import { peopleApi } from '@vivid-beacon/core/src/api/people';
import { promisify } from 'node:util';
import { BeaconError, type SessionState } from '@vivid-beacon/core';
import { endpoints, type Call } from '../http/endpoint';
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

export const peopleEndpoints = endpoints(peopleApi, {
  'GET /api/session': async (call) => stateOf(call, call.person ?? null),

  'POST /api/session': async (call) => {
    const { email, password } = call.body;
    const throttle = new SignInThrottle(call.app.pool);
    const admitted = await throttle.admit(email, call.request.ip ?? '');
    const account = await findAccount(call.app.pool, email);
    if (!(await passwordFits(account?.passwordHash, password)) || !account) {
      throw new BeaconError('WRONG_PASSWORD', 'Wrong e-mail address or password.');
    }
    await admitted();
    const { session } = call.request;
    await promisify(session.regenerate.bind(session))();
    call.request.session.personId = account.id;
    return stateOf(call, { id: account.id, name: account.name, role: account.role });
  },

  'DELETE /api/session': async ({ app, request, response }) => {
    const { sessionID } = request;
    await promisify(request.session.destroy.bind(request.session))();
    response.clearCookie('vivid-beacon');
    await notify(app.pool, SESSION_ENDED, [hashOfSession(sessionID)]);
  },

  'GET /api/people': ({ app }) => listPeople(app.pool),
});
