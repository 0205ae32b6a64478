import { invitationsApi } from '@vivid-beacon/core/src/api/people';
import { BeaconError } from '@vivid-beacon/core';
import { withTransaction } from '../db/database';
import { from, type Origin } from '../db/origin';
import { endpoints, type Call } from '../http/endpoint';
import { hashToken } from '../tokens/tokenOfRequest';
import { noteSignIn } from '../trail/notes';
import { findInvitation, consumeInvitation, writePassword, type Invitation } from './accountSql';
import { signOutOf } from './ended';
import { hashPassword, refuseEasyPassword } from './passwords';
import { beginSession, sessionState } from './session';

function noSuchLink(): BeaconError {
  return new BeaconError(
    'NOT_FOUND',
    'This link was used already, is past its end, or was replaced by another. Ask an administrator for a new one.',
  );
}

/** Who holds the link is taken for the person it was made for. */
function invitedOrigin(
  { app, request }: Pick<Call, 'app' | 'request'>,
  { personId, name }: Invitation,
): Origin {
  return {
    person: personId,
    name,
    address: request.ip ?? '',
    request: 'POST /api/invitations',
    at: app.now(),
  };
}

export const invitationEndpoints = endpoints(invitationsApi, {
  'POST /api/invitations/read': async ({ app, body }) => {
    const found = await findInvitation(app.pool, hashToken(body.token), app.now());
    if (!found) throw noSuchLink();
    return { name: found.name, email: found.email, endsAt: found.endsAt };
  },

  'POST /api/invitations': async (call) => {
    const { app, body } = call;
    const hash = hashToken(body.token);
    const found = await findInvitation(app.pool, hash, app.now());
    if (!found) throw noSuchLink();
    refuseEasyPassword(body.password, [found.name, found.email]);
    const passwordHash = await hashPassword(body.password);
    const origin = invitedOrigin(call, found);
    const change = (): Promise<void> =>
      withTransaction(app.pool, async (db) => {
        // Of two who use it at the same moment, one does.
        if (!(await consumeInvitation(db, hash, app.now()))) throw noSuchLink();
        await writePassword(db, found.personId, passwordHash);
        await signOutOf(db, found.personId);
      });
    await from(origin, change);
    const person = await beginSession(call, found.personId);
    await noteSignIn(app, call.request, 'signedIn', person);
    return sessionState(call, person);
  },
});
