import { randomBytes } from 'node:crypto';
import { secondFactorApi } from '@vivid-beacon/core/src/api/signIn';
import { BeaconError } from '@vivid-beacon/core';
import { withTransaction, type Queryable } from '../db/database';
import { endpoints, type Call } from '../http/endpoint';
import type { AppContext } from '../http/appContext';
import { hashToken } from '../tokens/tokenOfRequest';
import { findOneAccount, passwordOf } from './accountSql';
import { rightsChanged, signOutOf } from './ended';
import { makeOtpSecret, stepOfCode } from './oneTimeCode';
import { passwordFits } from './passwords';
import {
  confirmPending,
  lockSecondFactor,
  removeSecondFactor,
  consumeRecoveryCode,
  writeLastStep,
  writePending,
  writeRequired,
} from './secondFactorSql';
import { beginSession, sessionState } from './session';
import { SignInThrottle } from './throttle';

const RECOVERY_CODES = 10;
const RECOVERY_BYTES = 10;
const CODE = /^\d{6}$/;

/** As it is typed: spaces, dashes and letter case do not matter. */
const recoveryHash = (code: string): Buffer => hashToken(code.replace(/[\s-]+/g, '').toLowerCase());

/** "3f9a1-…": twenty hexadecimal digits in groups of five. */
function makeRecoveryCode(): string {
  return randomBytes(RECOVERY_BYTES)
    .toString('hex')
    .replace(/(.{5})(?=.)/g, '$1-');
}

/**
 * Checks the second factor of somebody whose password was right.
 *
 * @param code six digits, or a recovery code; null = none came.
 * @throws {BeaconError} CODE_NEEDED when there is one and no code came; WRONG_PASSWORD for a wrong one.
 */
export async function checkSecondFactor(
  app: AppContext,
  personId: string,
  code: string | null,
): Promise<void> {
  await withTransaction(app.pool, async (db) => {
    const { secret, lastStep } = await lockSecondFactor(db, personId);
    if (secret === null) return;
    if (code === null)
      throw new BeaconError('CODE_NEEDED', 'Give the code of your authenticator app.', 'code');
    const typed = code.replace(/\s+/g, '');
    if (!CODE.test(typed)) {
      if (await consumeRecoveryCode(db, personId, recoveryHash(code), app.now())) return;
      throw new BeaconError(
        'WRONG_PASSWORD',
        'This is neither a code of six digits nor a recovery code left.',
        'code',
      );
    }
    const opened = app.seal.open(secret);
    if (opened === undefined) {
      throw new BeaconError(
        'WRONG_STATE',
        'The secret of the server has changed, so that codes cannot be checked. Ask an administrator to remove your second factor.',
      );
    }
    await writeLastStep(db, personId, await stepOfCode(opened, typed, { lastStep, now: app.now() }));
  });
}

/** The present password, asked for before the second factor is changed. */
async function needPassword(
  { app, person, request }: Call<unknown, unknown>,
  password: string,
): Promise<string> {
  const { email } = (await findOneAccount(app.pool, person.id, app.now()))!;
  const admitted = await new SignInThrottle(app.pool).admit(email, request.ip ?? '');
  if (!(await passwordFits(await passwordOf(app.pool, person.id), password))) {
    throw new BeaconError('WRONG_PASSWORD', 'This is not your present password.', 'password');
  }
  await admitted();
  return email;
}

async function needAccountOf(db: Queryable, id: string, now: number): Promise<void> {
  if (!(await findOneAccount(db, id, now))) {
    throw new BeaconError('NOT_FOUND', 'This account does not exist.');
  }
}

export const secondFactorEndpoints = endpoints(secondFactorApi, {
  'POST /api/own-account/second-factor': async (call) => {
    const { app, person } = call;
    const email = await needPassword(call, call.body.password);
    const made = makeOtpSecret(email);
    await withTransaction(app.pool, (db) => writePending(db, person.id, app.seal.close(made.secret)));
    return made;
  },

  'PUT /api/own-account/second-factor': async (call) => {
    const { app, person, body, request } = call;
    const codes = Array.from({ length: RECOVERY_CODES }, makeRecoveryCode);
    await withTransaction(app.pool, async (db) => {
      const { pending } = await lockSecondFactor(db, person.id);
      const secret = pending && app.seal.open(pending);
      if (!secret) throw new BeaconError('WRONG_STATE', 'Begin again: there is no secret to confirm.');
      const step = await stepOfCode(secret, body.code.replace(/\s+/g, ''), {
        lastStep: null,
        now: app.now(),
      });
      await confirmPending(db, person.id, step, codes.map(recoveryHash));
      await signOutOf(db, person.id, { except: request.sessionID });
    });
    return { recoveryCodes: codes, session: sessionState(call, await beginSession(call, person.id)) };
  },

  'POST /api/own-account/second-factor/removal': async (call) => {
    const { app, person } = call;
    await needPassword(call, call.body.password);
    await withTransaction(app.pool, async (db) => {
      const { required } = await lockSecondFactor(db, person.id);
      if (required) {
        throw new BeaconError(
          'WRONG_STATE',
          'Your account needs a second factor. You can set it up anew instead.',
        );
      }
      await removeSecondFactor(db, person.id);
    });
  },

  'PUT /api/accounts/:id/second-factor': async ({ app, params, body }) => {
    await needAccountOf(app.pool, params.id, app.now());
    await withTransaction(app.pool, async (db) => {
      await writeRequired(db, params.id, body.required, app.now());
      await rightsChanged(db, [params.id]);
    });
  },

  'DELETE /api/accounts/:id/second-factor': async ({ app, params }) => {
    await needAccountOf(app.pool, params.id, app.now());
    await withTransaction(app.pool, async (db) => {
      await removeSecondFactor(db, params.id);
      // Whoever found the lost device is signed out with it.
      await signOutOf(db, params.id);
    });
  },
});
