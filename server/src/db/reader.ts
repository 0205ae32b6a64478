import type { Person, Role } from '@vivid-beacon/core';
import type { Queryable } from './database';

/** Who asks: what they may see follows from this one value, which travels with every read. */
export interface Asker {
  /** null = the server itself. */
  readonly personId: string | null;
  readonly role: Role;
  /** Plants they may see; null = all. */
  readonly sites: readonly string[] | null;
}

/** What the server does by itself: alarms, notices, what comes in. */
export const THE_SERVER: Asker = { personId: null, role: 'administrator', sites: null };

/** Somebody who is not signed in sees no plant. */
export const NOBODY: Asker = { personId: null, role: 'viewer', sites: [] };

/** A signed-in person. Everybody sees every plant as yet: rights by site are to be filled in here. */
export function askerOf({ id, role }: Pick<Person, 'id' | 'role'>): Asker {
  return { personId: id, role, sites: null };
}

/** A way to the database that knows who asks. Assets, metrics and all that hangs on them are read through one only. */
export interface Reader {
  readonly query: Queryable['query'];
  readonly asker: Asker;
}

export function readAs(db: Queryable, asker: Asker): Reader {
  const reader: Reader = { query: db.query.bind(db) as Queryable['query'], asker };
  return reader;
}

/** Reads as the server itself does. */
export function readAsServer(db: Queryable): Reader {
  return readAs(db, THE_SERVER);
}
