import { promisify } from 'node:util';
import { peopleApi } from '@vivid-beacon/core/src/api/people';
import { BeaconError, searchWords } from '@vivid-beacon/core';
import { findAsset } from '../assets/sql';
import { endpoints, type Call } from '../http/endpoint';
import { hashOfSession } from '../live/liveHub';
import { notify, SESSION_ENDED } from '../live/notify';
import { passwordFits } from './passwords';
import { checkSecondFactor } from './secondFactor';
import { beginSession, sessionState } from './session';
import { findAccount, findPerson, pageOfPeople } from './sql';
import { noteSignIn } from '../trail/notes';
import { SignInThrottle } from './throttle';

/** The state of the session; after a change of rights it goes on under a new id. */
async function currentState(call: Call) {
  if (!call.person) return sessionState(call, null);
  const person = (await findPerson(call.app.pool, call.person.id))!;
  const renewed = person.rightsChangedAt > (call.request.session.rightsAt ?? 0);
  return sessionState(call, renewed ? await beginSession(call, person.id) : person);
}

export const peopleEndpoints = endpoints(peopleApi, {
  'GET /api/session': (call) => currentState(call),

  'POST /api/session': async (call) => {
    const { email, password, code } = call.body;
    const throttle = new SignInThrottle(call.app.pool);
    const admitted = await throttle.admit(email, call.request.ip ?? '');
    const account = await findAccount(call.app.pool, email);
    if (!(await passwordFits(account?.passwordHash, password)) || !account) {
      await noteSignIn(call.app, call.request, 'signInFailed', account ?? null);
      throw new BeaconError('WRONG_PASSWORD', 'Wrong e-mail address or password.');
    }
    try {
      await checkSecondFactor(call.app, account.id, code);
    } catch (error) {
      const isWrong = error instanceof BeaconError && error.code === 'WRONG_PASSWORD';
      if (isWrong) await noteSignIn(call.app, call.request, 'signInFailed', account);
      throw error;
    }
    // Only now: a right password with wrong codes counts as tries.
    await admitted();
    const person = await beginSession(call, account.id);
    await noteSignIn(call.app, call.request, 'signedIn', person);
    return sessionState(call, person);
  },

  'DELETE /api/session': async ({ app, person, request, response }) => {
    const { sessionID } = request;
    await promisify(request.session.destroy.bind(request.session))();
    response.clearCookie('vivid-beacon');
    await notify(app.pool, SESSION_ENDED, [hashOfSession(sessionID)]);
    if (person) await noteSignIn(app, request, 'signedOut', person);
  },

  'GET /api/people': async ({ db, query: { search, least, assetId, ...page } }) => {
    const asset = assetId === undefined ? undefined : await findAsset(db, assetId);
    if (assetId !== undefined && !asset) throw new BeaconError('NOT_FOUND', 'This asset does not exist.');
    return pageOfPeople(db, { words: searchWords(search), least, plantId: asset?.plantId }, page);
  },
});
