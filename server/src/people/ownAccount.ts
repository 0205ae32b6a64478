import { ownAccountApi } from '@vivid-beacon/core/src/api/people';
import { BeaconError } from '@vivid-beacon/core';
import { withTransaction } from '../db/database';
import { endpoints } from '../http/endpoint';
import { hashOfSession } from '../live/liveHub';
import { findOneAccount, passwordOf, writeOwn, writePassword } from './accountSql';
import { signOutOf } from './ended';
import { recoveryLeft } from './secondFactorSql';
import { hashPassword, passwordFits, refuseEasyPassword } from './passwords';
import { beginSession, sessionState } from './session';
import { sessionsOf } from './sessionSql';
import { findPerson } from './sql';
import { SignInThrottle } from './throttle';

export const ownAccountEndpoints = endpoints(ownAccountApi, {
  'GET /api/own-account': async ({ app, person, request }) => {
    const { name, email, rights, secondFactor } = (await findOneAccount(app.pool, person.id, app.now()))!;
    const sessions = await sessionsOf(app.pool, person.id);
    const { startAt, formats } = (await findPerson(app.pool, person.id))!;
    return {
      name,
      email,
      rights,
      startAt,
      formats,
      secondFactor,
      recoveryLeft: await recoveryLeft(app.pool, person.id),
      sessions: sessions.map(({ sid, ...each }) => ({
        ...each,
        // The id itself would let whoever reads it be this person.
        id: hashOfSession(sid),
        current: sid === request.sessionID,
      })),
    };
  },

  'PUT /api/own-account': ({ app, person, body }) =>
    withTransaction(app.pool, (db) => writeOwn(db, person.id, body)),

  'PUT /api/own-account/password': async (call) => {
    const { app, body, person, request } = call;
    const { email, name } = (await findOneAccount(app.pool, person.id, app.now()))!;
    // Somebody at an open page of another must not try passwords without end.
    const admitted = await new SignInThrottle(app.pool).admit(email, request.ip ?? '');
    if (!(await passwordFits(await passwordOf(app.pool, person.id), body.old))) {
      throw new BeaconError('WRONG_PASSWORD', 'This is not your present password.', 'old');
    }
    await admitted();
    refuseEasyPassword(body.new, [name, email]);
    const passwordHash = await hashPassword(body.new);
    await withTransaction(app.pool, async (db) => {
      await writePassword(db, person.id, passwordHash);
      await signOutOf(db, person.id, { except: request.sessionID });
    });
    return sessionState(call, await beginSession(call, person.id));
  },

  'DELETE /api/own-account/sessions/:id': async ({ app, person, params, request }) => {
    const sessions = await sessionsOf(app.pool, person.id);
    const found = sessions.find(({ sid }) => hashOfSession(sid) === params.id && sid !== request.sessionID);
    if (!found) throw new BeaconError('NOT_FOUND', 'This device is signed out already.');
    await withTransaction(app.pool, (db) => signOutOf(db, person.id, { only: found.sid }));
  },

  'DELETE /api/own-account/sessions': async ({ app, person, request }) => {
    await withTransaction(app.pool, (db) => signOutOf(db, person.id, { except: request.sessionID }));
  },
});
