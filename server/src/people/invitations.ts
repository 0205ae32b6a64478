import { invitationsApi } from '@vivid-beacon/core/src/api/people';
import { BeaconError } from '@vivid-beacon/core';
import { withTransaction } from '../db/database';
import { endpoints } from '../http/endpoint';
import { hashToken } from '../tokens/tokenOfRequest';
import { findInvitation, useInvitation, writePassword } from './accountSql';
import { signOutOf } from './ended';
import { hashPassword, refuseEasyPassword } from './passwords';
import { beginSession, sessionState } from './session';

function noSuchLink(): BeaconError {
  return new BeaconError(
    'NOT_FOUND',
    'This link was used already, is past its end, or was replaced by another. Ask an administrator for a new one.',
  );
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
    await withTransaction(app.pool, async (db) => {
      // Of two who use it at the same moment, one does.
      if (!(await useInvitation(db, hash, app.now()))) throw noSuchLink();
      await writePassword(db, found.personId, passwordHash);
      await signOutOf(db, found.personId);
    });
    return sessionState(call, await beginSession(call, found.personId));
  },
});
