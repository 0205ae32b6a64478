import type { Person, Role } from '@vivid-beacon/core';
import { moment } from '../db/columns';
import { all, allPrepared, one, type Queryable } from '../db/database';

export interface Account extends Person {
  readonly passwordHash: string;
}

export function findAccount(db: Queryable, email: string): Promise<Account | undefined> {
  return one(
    db,
    'select id, name, role, password_hash as "passwordHash" from person where lower(email) = lower($1)',
    [email],
  );
}

export async function findPerson(db: Queryable, id: string): Promise<Person | undefined> {
  const text = 'select id, name, role from person where id = $1';
  return (await allPrepared<Person>(db, 'find_person', text, [id]))[0];
}

export function listPeople(db: Queryable): Promise<Person[]> {
  return all(db, 'select id, name, role from person order by name');
}

export async function countPeople(db: Queryable): Promise<number> {
  return (await one<{ n: number }>(db, 'select count(*)::int as n from person'))!.n;
}

/** Adds an account; the same address again changes nothing and gives the account that is there. */
export async function addPerson(
  db: Queryable,
  person: { email: string; name: string; role: Role; passwordHash: string; at: number },
): Promise<string> {
  const added = await one<{ id: string }>(
    db,
    `insert into person (email, name, role, password_hash, created_at) values ($1, $2, $3, $4, $5)
     on conflict (lower(email)) do nothing returning id`,
    [person.email, person.name, person.role, person.passwordHash, moment(person.at)],
  );
  return added?.id ?? (await findAccount(db, person.email))!.id;
}
