import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

interface Identity {
  readonly issuer: string;
  readonly subject: string;
}

/** Somebody who may sign in, by an account of the provider that is known to be theirs. */
export async function personOfIdentity(
  db: Queryable,
  { issuer, subject }: Identity,
): Promise<string | undefined> {
  const row = await one<{ id: string }>(
    db,
    `select person.id from person_identity identity join person on person.id = identity.person_id
     where identity.issuer = $1 and identity.subject = $2 and person.disabled_at is null`,
    [issuer, subject],
  );
  return row?.id;
}

/** @returns false when this person, or this account of the provider, belongs to another. */
export async function linkIdentity(
  db: Queryable,
  personId: string,
  { issuer, subject }: Identity,
  at: number,
): Promise<boolean> {
  const row = await one(
    db,
    `insert into person_identity (issuer, subject, person_id, linked_at) values ($1, $2, $3, $4)
     on conflict do nothing returning person_id`,
    [issuer, subject, personId, moment(at)],
  );
  return row !== undefined;
}

/** @returns false when there was none. */
export async function unlinkIdentities(db: Queryable, personId: string): Promise<boolean> {
  const text = 'delete from person_identity where person_id = $1 returning person_id';
  return (await all(db, text, [personId])).length > 0;
}

/** Since when a person signs in with the provider, as a column named `linkedAt`; null = they do not. Over `person`. */
export const LINKED_AT = `(select ${ms('max(identity.linked_at)', 'at')} from person_identity identity
  where identity.person_id = person.id) as "linkedAt"`;
