import { accountsApi, type Account, type InvitationLink } from '@vivid-beacon/core/src/api/people';
import { BeaconError, searchWords, type Rights } from '@vivid-beacon/core';
import { withTransaction, type Queryable } from '../db/database';
import { endpoints, type Call } from '../http/endpoint';
import { dropUnreachableNotices } from '../notices/sql';
import { makeToken } from '../tokens/tokenOfRequest';
import {
  addInvitation,
  findOneAccount,
  lockAdministrators,
  notPlants,
  pageOfAccounts,
  renameAccount,
  writeDisabled,
} from './accountSql';
import { rightsChanged, signOutOf } from './ended';
import { addAccount, writeRights } from './sql';

const HOUR_MS = 3_600_000;

async function needAccount(db: Queryable, id: string, now: number): Promise<Account> {
  const account = await findOneAccount(db, id, now);
  if (!account) throw new BeaconError('NOT_FOUND', 'This account does not exist.');
  return account;
}

function addressTaken(email: string): BeaconError {
  return new BeaconError('BAD_INPUT', `There is an account with the address ${email} already.`, 'email');
}

async function checkPlants(db: Queryable, { plants }: Rights): Promise<void> {
  const [missing] = await notPlants(db, Object.keys(plants));
  if (missing === undefined) return;
  throw new BeaconError('BAD_INPUT', `There is no plant ${missing} any more.`, 'rights.plants');
}

/** @throws {BeaconError} WRONG_STATE when this person is the last who can administer people. */
async function refuseLast(db: Queryable, id: string, what: string): Promise<void> {
  const administrators = await lockAdministrators(db);
  if (!administrators.includes(id) || administrators.length > 1) return;
  throw new BeaconError(
    'WRONG_STATE',
    `This is the last account that can administer people. ${what} after another has become administrator everywhere.`,
  );
}

/** A link for a person to choose their password. In the caller's transaction. */
async function invite(
  db: Queryable,
  { app, person }: Pick<Call, 'app' | 'person'>,
  personId: string,
  hours: number,
): Promise<InvitationLink> {
  const { token, hash } = makeToken('');
  const at = app.now();
  const endsAt = at + hours * HOUR_MS;
  await addInvitation(db, { tokenHash: hash, personId, createdBy: person.id, at, endsAt });
  return { path: `/welcome#${token}`, endsAt };
}

export const accountEndpoints = endpoints(accountsApi, {
  'GET /api/accounts': ({ app, query: { search, state, ...page } }) =>
    pageOfAccounts(app.pool, { words: searchWords(search), state }, page, app.now()),

  'GET /api/accounts/:id': ({ app, params }) => needAccount(app.pool, params.id, app.now()),

  'POST /api/accounts': async (call) => {
    const { name, email, rights, holdsForH } = call.body;
    return withTransaction(call.app.pool, async (db) => {
      await checkPlants(db, rights);
      const id = await addAccount(db, { name, email, rights, passwordHash: null, at: call.app.now() });
      if (id === undefined) throw addressTaken(email);
      return { id, link: await invite(db, call, id, holdsForH) };
    });
  },

  'PUT /api/accounts/:id': async ({ app, params, body }) => {
    const { rights } = body;
    await withTransaction(app.pool, async (db) => {
      if (rights.everywhere !== 'administrator') await refuseLast(db, params.id, 'Change its rights');
      const before = await needAccount(db, params.id, app.now());
      await checkPlants(db, rights);
      if (!(await renameAccount(db, params.id, body))) throw addressTaken(body.email);
      if (sameRights(before.rights, rights)) return;
      await writeRights(db, params.id, rights, app.now());
      await dropUnreachableNotices(db, params.id);
      await rightsChanged(db, [params.id]);
    });
    return needAccount(app.pool, params.id, app.now());
  },

  'PUT /api/accounts/:id/disabled': async ({ app, params, body }) => {
    await withTransaction(app.pool, async (db) => {
      if (body.disabled) await refuseLast(db, params.id, 'Disable it');
      await needAccount(db, params.id, app.now());
      await writeDisabled(db, params.id, body.disabled ? app.now() : null);
      if (!body.disabled) return;
      await signOutOf(db, params.id);
      await dropUnreachableNotices(db, params.id);
    });
    return needAccount(app.pool, params.id, app.now());
  },

  'POST /api/accounts/:id/invitation': (call) =>
    withTransaction(call.app.pool, async (db) => {
      const { state } = await needAccount(db, call.params.id, call.app.now());
      if (state === 'disabled') {
        throw new BeaconError('WRONG_STATE', 'This account is disabled. Enable it first.');
      }
      return invite(db, call, call.params.id, call.body.holdsForH);
    }),

  'DELETE /api/accounts/:id/sessions': async ({ app, params }) => {
    await needAccount(app.pool, params.id, app.now());
    await withTransaction(app.pool, (db) => signOutOf(db, params.id));
  },
});

function sameRights(a: Rights, b: Rights): boolean {
  const list = ({ plants }: Rights): string =>
    Object.entries(plants)
      .map(([id, role]) => `${id} ${role}`)
      .sort()
      .join();
  return a.everywhere === b.everywhere && list(a) === list(b);
}
