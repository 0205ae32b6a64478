import type { Account, Formats, PageOf } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { Conditions, findPage } from '../db/conditions';
import { all, one, type Queryable } from '../db/database';
import type { PageRange } from '../db/pages';
import { LINKED_AT } from './identitySql';
import { RIGHTS } from './sql';

/** An invitation holds until its end, until it is used, or until there is another. Over `invitation`. */
const HOLDS = (now: string): string =>
  `invitation.used_at is null and invitation.ends_at > ${now}::timestamptz`;

/** Has neither chosen a password nor come by the provider yet. */
const INVITED = `(person.password_hash is null and not exists (
  select 1 from person_identity identity where identity.person_id = person.id))`;

const accounts = (now: string): string => `
  select person.id, person.name, person.email, person.role, ${RIGHTS},
         case when person.disabled_at is not null then 'disabled' when ${INVITED} then 'invited'
              else 'active' end as state,
         jsonb_build_object('on', person.otp_secret is not null, 'required', person.second_factor_required) as "secondFactor",
         (select max((sess ->> 'seenAt')::float8) from session where sess ->> 'personId' = person.id::text) as "seenAt",
         (select ${ms('max(invitation.ends_at)', 'endsAt')} from invitation
          where invitation.person_id = person.id and ${HOLDS(now)}) as "invitedUntil", ${LINKED_AT}
  from person`;

const IN_STATE: Readonly<Record<Account['state'], string>> = {
  active: `person.disabled_at is null and not ${INVITED}`,
  invited: `person.disabled_at is null and ${INVITED}`,
  disabled: 'person.disabled_at is not null',
};

/** Accounts by name. @param words each must stand somewhere in name or address. */
export async function pageOfAccounts(
  db: Queryable,
  { words, state }: { readonly words: readonly string[]; readonly state?: Account['state'] },
  page: PageRange,
  now: number,
): Promise<PageOf<Account>> {
  const conditions = new Conditions(null).words(words, ['person.name', 'person.email']);
  if (state) conditions.plain(IN_STATE[state]);
  return findPage(
    db,
    {
      from: 'person',
      id: 'person.id',
      // The moment is ours, never input.
      select: accounts(`'${moment(now).toISOString()}'`),
      conditions,
      order: 'person.name collate natural_order, person.id',
    },
    page,
  );
}

export function findOneAccount(db: Queryable, id: string, now: number): Promise<Account | undefined> {
  return one(db, `${accounts('$2')} where person.id = $1`, [id, moment(now)]);
}

/** @returns false when another account has this address. */
export async function renameAccount(
  db: Queryable,
  id: string,
  { name, email }: { readonly name: string; readonly email: string },
): Promise<boolean> {
  const row = await one(
    db,
    `update person set name = $2, email = $3 where id = $1
       and not exists (select 1 from person other where lower(other.email) = lower($3) and other.id <> $1)
     returning id`,
    [id, name, email],
  );
  return row !== undefined;
}

/** What people change of their own account. */
export async function writeOwn(
  db: Queryable,
  id: string,
  {
    name,
    startAt,
    formats,
  }: { readonly name: string; readonly startAt: string; readonly formats: Formats | null },
): Promise<void> {
  await db.query('update person set name = $2, start_at = $3, formats = $4::jsonb where id = $1', [
    id,
    name,
    startAt,
    formats && JSON.stringify(formats),
  ]);
}

/** @param at null = it can be used again. */
export async function writeDisabled(db: Queryable, id: string, at: number | null): Promise<void> {
  await db.query('update person set disabled_at = $2 where id = $1', [id, at === null ? null : moment(at)]);
}

export async function writePassword(db: Queryable, id: string, passwordHash: string): Promise<void> {
  await db.query('update person set password_hash = $2 where id = $1', [id, passwordHash]);
}

export async function passwordOf(db: Queryable, id: string): Promise<string | null> {
  const row = await one<{ hash: string | null }>(
    db,
    'select password_hash as hash from person where id = $1',
    [id],
  );
  return row?.hash ?? null;
}

/**
 * The people who can administer accounts, locked until the transaction ends, so that two of them who remove one another wait for
 * each other.
 */
export async function lockAdministrators(db: Queryable): Promise<string[]> {
  const rows = await all<{ id: string }>(
    db,
    `select id from person where role_everywhere = 'administrator' and disabled_at is null and password_hash is not null
     order by id for update`,
  );
  return rows.map(({ id }) => id);
}

/** Of these ids, those that are no plants. */
export async function notPlants(db: Queryable, ids: readonly string[]): Promise<string[]> {
  const rows = await all<{ id: string }>(
    db,
    `select given.id from unnest($1::bigint[]) as given (id)
     where not exists (select 1 from asset where asset.id = given.id and asset.parent_id is null and removed_at is null)`,
    [ids],
  );
  return rows.map(({ id }) => id);
}

export interface Invitation {
  readonly personId: string;
  readonly name: string;
  readonly email: string;
  readonly endsAt: number;
}

/** Adds an invitation; earlier ones of the person hold no more. */
export async function addInvitation(
  db: Queryable,
  invitation: { tokenHash: Buffer; personId: string; createdBy: string; at: number; endsAt: number },
): Promise<void> {
  await db.query('delete from invitation where person_id = $1 and used_at is null', [invitation.personId]);
  await db.query(
    `insert into invitation (token_hash, person_id, created_by, created_at, ends_at) values ($1, $2, $3, $4, $5)`,
    [
      invitation.tokenHash,
      invitation.personId,
      invitation.createdBy,
      moment(invitation.at),
      moment(invitation.endsAt),
    ],
  );
}

/** The invitation with this hash, if it holds and its account is not disabled. */
export function findInvitation(
  db: Queryable,
  tokenHash: Buffer,
  now: number,
): Promise<Invitation | undefined> {
  return one(
    db,
    `select person.id as "personId", person.name, person.email, ${ms('invitation.ends_at', 'endsAt')}
     from invitation join person on person.id = invitation.person_id
     where invitation.token_hash = $1 and ${HOLDS('$2')} and person.disabled_at is null`,
    [tokenHash, moment(now)],
  );
}

/** Uses an invitation up. @returns false when somebody else has, or it is past its end. */
export async function consumeInvitation(db: Queryable, tokenHash: Buffer, now: number): Promise<boolean> {
  const row = await one(
    db,
    `update invitation set used_at = $2 where token_hash = $1 and ${HOLDS('$2')} returning person_id`,
    [tokenHash, moment(now)],
  );
  return row !== undefined;
}
