import {
  highestRole,
  rolesFrom,
  type Formats,
  type PageOf,
  type Person,
  type Rights,
  type Role,
} from '@vivid-beacon/core';
import { moment } from '../db/columns';
import { Conditions, findPage } from '../db/conditions';
import { allPrepared, one, type Queryable } from '../db/database';
import type { PageRange } from '../db/pages';
import type { Reader } from '../db/reader';

/** Somebody with what they may do where. */
export interface PersonWithRights extends Person {
  readonly rights: Rights;
}

export interface SignInAccount extends PersonWithRights {
  readonly email: string;
  /** null = they have not chosen a password yet. */
  readonly passwordHash: string | null;
}

/** What somebody may do where, as a column named `rights`. Over `person`. */
export const RIGHTS = `jsonb_build_object('everywhere', person.role_everywhere, 'plants', coalesce(
    (select jsonb_object_agg(site.plant_id::text, site.role) from person_site site where site.person_id = person.id),
    '{}'::jsonb)) as rights`;

const PERSON = `person.id, person.name, person.role`;
const ENABLED = 'person.disabled_at is null';

/** The account with this address, unless it is disabled. */
export function findAccount(db: Queryable, email: string): Promise<SignInAccount | undefined> {
  return one(
    db,
    `select ${PERSON}, email, ${RIGHTS}, password_hash as "passwordHash" from person
     where lower(email) = lower($1) and ${ENABLED}`,
    [email],
  );
}

/** Somebody who is signed in. */
export interface FoundPerson extends PersonWithRights {
  /** ms; 0 = never. */
  readonly rightsChangedAt: number;
  /** Whether they have to set up a second factor first. */
  readonly secondFactorDue: boolean;
  readonly startAt: string;
  /** null = as their device has it. */
  readonly formats: Formats | null;
}

/** Somebody who may sign in; read with every request. */
export async function findPerson(db: Queryable, id: string): Promise<FoundPerson | undefined> {
  const text = `select ${PERSON}, ${RIGHTS}, coalesce(extract(epoch from rights_changed_at) * 1000, 0)::float8 as "rightsChangedAt",
    second_factor_required and otp_secret is null as "secondFactorDue",
    coalesce(start_at, '/') as "startAt", formats
    from person where person.id = $1 and ${ENABLED}`;
  return (await allPrepared<FoundPerson>(db, 'find_person', text, [id]))[0];
}

/** Filter of people. */
export interface PeopleFilter {
  /** Words that must all stand in the name. */
  readonly words: readonly string[];
  /** With at least this role, */
  readonly least: Role;
  /** at this plant; undefined = at any that the asker sees. */
  readonly plantId: string | undefined;
}

/** People who may sign in, by name: those who share a plant with the asker. */
export function pageOfPeople(
  db: Reader,
  { words, least, plantId }: PeopleFilter,
  page: PageRange,
): Promise<PageOf<Person>> {
  const roles = rolesFrom(least);
  const plants = plantId === undefined ? db.asker.sites : [plantId];
  const conditions = new Conditions(null).plain(ENABLED).words(words, ['person.name']);
  if (plants === null) conditions.and(roles, (at) => `person.role = any(${at}::text[])`);
  else {
    conditions.and(
      roles,
      (at) => `(person.role_everywhere = any(${at}::text[]) or exists (select 1 from person_site site
         where site.person_id = person.id and site.role = any(${at}::text[]) and site.plant_id = any(${conditions.value(plants)}::bigint[])))`,
    );
  }
  return findPage(
    db,
    {
      from: 'person',
      id: 'person.id',
      select: `select ${PERSON} from person`,
      conditions,
      order: 'person.name collate natural_order, person.id',
    },
    page,
  );
}

export async function countPeople(db: Queryable): Promise<number> {
  return (await one<{ n: number }>(db, 'select count(*)::int as n from person'))!.n;
}

export interface NewPerson {
  readonly email: string;
  readonly name: string;
  readonly rights: Rights;
  /** null = they choose one with an invitation. */
  readonly passwordHash: string | null;
  readonly at: number;
}

/** Adds an account. @returns undefined when there is one with this address. */
export async function addAccount(db: Queryable, person: NewPerson): Promise<string | undefined> {
  const added = await one<{ id: string }>(
    db,
    `insert into person (email, name, role, role_everywhere, password_hash, created_at) values ($1, $2, $3, $4, $5, $6)
     on conflict (lower(email)) do nothing returning id`,
    [
      person.email,
      person.name,
      highestRole(person.rights) ?? 'viewer',
      person.rights.everywhere,
      person.passwordHash,
      moment(person.at),
    ],
  );
  if (added) await writeSites(db, added.id, person.rights);
  return added?.id;
}

/** Adds an account; the same address again changes nothing and gives the account that is there. */
export async function addPerson(db: Queryable, person: NewPerson): Promise<string> {
  return (await addAccount(db, person)) ?? (await accountIdOf(db, person.email))!;
}

async function accountIdOf(db: Queryable, email: string): Promise<string | undefined> {
  return (await one<{ id: string }>(db, 'select id from person where lower(email) = lower($1)', [email]))?.id;
}

/** Sets what somebody may do where. In the caller's transaction. */
export async function writeRights(db: Queryable, id: string, rights: Rights, at: number): Promise<void> {
  await db.query('update person set role = $2, role_everywhere = $3, rights_changed_at = $4 where id = $1', [
    id,
    highestRole(rights) ?? 'viewer',
    rights.everywhere,
    moment(at),
  ]);
  await writeSites(db, id, rights);
}

async function writeSites(db: Queryable, id: string, { plants }: Rights): Promise<void> {
  await db.query('delete from person_site where person_id = $1 and not plant_id = any($2::bigint[])', [
    id,
    Object.keys(plants),
  ]);
  await db.query(
    `insert into person_site (person_id, plant_id, role)
     select $1::bigint, * from unnest($2::bigint[], $3::text[])
     on conflict (person_id, plant_id) do update set role = excluded.role where person_site.role <> excluded.role`,
    [id, Object.keys(plants), Object.values(plants)],
  );
}
