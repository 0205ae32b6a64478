import { promisify } from 'node:util';
import type { Request, Response } from 'express';
import { providerApi } from '@vivid-beacon/core/src/api/signIn';
import { BeaconError, type SignInProblem } from '@vivid-beacon/core';
import { withTransaction } from '../db/database';
import { from } from '../db/origin';
import type { AppContext, Departure, ProvidedPerson, Provider } from '../http/appContext';
import { endpoints, SENT, type Sent } from '../http/endpoint';
import { lockSecondFactor } from '../people/secondFactorSql';
import { beginSession } from '../people/session';
import { findAccount, findPerson, type FoundPerson } from '../people/sql';
import { noteSignIn, signInOrigin } from '../trail/notes';
import { linkIdentity, personOfIdentity, unlinkIdentities } from '../people/identitySql';
import { SignInRefused } from './provider';

const COOKIE = 'vivid-beacon-departure';
const PATH = '/api/sign-in';
/** Whoever takes longer at the provider begins again. */
const AWAY_MS = 10 * 60_000;

/** What a browser keeps, sealed, while it is at the provider. */
interface KeptDeparture extends Departure {
  readonly to: string;
  readonly at: number;
}

function providerOf(app: AppContext): Provider {
  if (app.provider) return app.provider;
  throw new BeaconError('NOT_FOUND', 'No provider is set here to sign in with.');
}

const returnAddress = (app: AppContext): string => `${app.publicUrl()}${PATH}/return`;

function keep(app: AppContext, response: Response, departure: KeptDeparture): void {
  response.cookie(COOKIE, app.seal.close(JSON.stringify(departure)).toString('base64url'), {
    httpOnly: true,
    // The provider sends the browser back from another site.
    sameSite: 'lax',
    secure: app.publicUrl().startsWith('https:'),
    maxAge: AWAY_MS,
    path: PATH,
  });
}

/** What was kept, and works once. */
function takeKept(app: AppContext, request: Request, response: Response): KeptDeparture {
  const { [COOKIE]: sealed } = request.cookies as Readonly<Record<string, string | undefined>>;
  response.clearCookie(COOKIE, { path: PATH });
  const text = sealed && app.seal.open(Buffer.from(sealed, 'base64url'));
  const kept = text ? (JSON.parse(text) as KeptDeparture) : null;
  if (!kept || Date.now() - kept.at > AWAY_MS) throw new SignInRefused('expired');
  return kept;
}

function sendOn(response: Response, to: string): Sent {
  response.redirect(303, to);
  return SENT;
}

/** To the sign-in page, which says why not. The provider's own words stay in the log. */
function sendBack(app: AppContext, response: Response, error: unknown): Sent {
  if (!(error instanceof SignInRefused)) throw error;
  const { name, code } = (error.cause ?? {}) as { name?: string; code?: string };
  app.log.warn({ problem: error.problem, name, code }, 'sign-in by the provider refused');
  const problem: SignInProblem = error.problem;
  return sendOn(response, `/?signIn=${problem}`);
}

/**
 * Whose account here it is: the one it was linked with, else the one with this address, which it is linked with from now on.
 * @throws {SignInRefused} unknown, taken
 */
async function accountFor(app: AppContext, request: Request, provided: ProvidedPerson): Promise<string> {
  const known = await personOfIdentity(app.pool, provided);
  if (known !== undefined) return known;
  const account = provided.email === null ? undefined : await findAccount(app.pool, provided.email);
  if (!account) throw new SignInRefused('unknown');
  const linked = await from(signInOrigin(app, request, account), () =>
    withTransaction(app.pool, (db) => linkIdentity(db, account.id, provided, app.now())),
  );
  if (linked) return account.id;
  await noteSignIn(app, request, 'signInRefused', account);
  throw new SignInRefused('taken');
}

/**
 * Whoever has a second factor here is asked for one wherever they sign in.
 * @throws {SignInRefused} secondFactor
 */
async function needFactors(
  app: AppContext,
  request: Request,
  person: FoundPerson,
  { severalFactors }: ProvidedPerson,
): Promise<void> {
  if (severalFactors) return;
  const { secret } = await withTransaction(app.pool, (db) => lockSecondFactor(db, person.id));
  if (secret === null) return;
  await noteSignIn(app, request, 'signInRefused', person);
  throw new SignInRefused('secondFactor');
}

export const providerEndpoints = endpoints(providerApi, {
  'GET /api/sign-in/start': async ({ app, query, response }) => {
    const provider = providerOf(app);
    try {
      const { address, departure } = await provider.leave(returnAddress(app));
      keep(app, response, { ...departure, to: query.to, at: Date.now() });
      return sendOn(response, address);
    } catch (error) {
      return sendBack(app, response, error);
    }
  },

  'GET /api/sign-in/return': async ({ app, request, response }) => {
    const provider = providerOf(app);
    try {
      const kept = takeKept(app, request, response);
      // The address as the provider was told it: behind a proxy the request has another.
      const { search } = new URL(request.originalUrl, app.publicUrl());
      const provided = await provider.comeBack(new URL(`${returnAddress(app)}${search}`), kept);
      const id = await accountFor(app, request, provided);
      await needFactors(app, request, (await findPerson(app.pool, id))!, provided);
      const person = await beginSession({ app, request }, id);
      await noteSignIn(app, request, 'signedIn', person);
      // A browser follows as soon as it has the headers, which may be before the session is kept.
      await promisify(request.session.save.bind(request.session))();
      return sendOn(response, kept.to);
    } catch (error) {
      return sendBack(app, response, error);
    }
  },

  'DELETE /api/accounts/:id/provider': async ({ app, params }) => {
    const done = await withTransaction(app.pool, (db) => unlinkIdentities(db, params.id));
    if (!done) throw new BeaconError('NOT_FOUND', 'This person does not sign in with the provider.');
  },
});
