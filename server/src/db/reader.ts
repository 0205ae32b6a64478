import type { Person, Role } from '@vivid-beacon/core';
import type { Queryable } from './database';

/** The caller: what they may see follows from this one value, which is passed to every read. */
export interface Caller {
  /** null = the server itself. */
  readonly personId: string | null;
  readonly role: Role;
  /** Plants they may see; null = all. */
  readonly sites: readonly string[] | null;
}

/** The server itself: alarms, notices, incoming samples. */
export const SERVER_CALLER: Caller = { personId: null, role: 'administrator', sites: null };

/** Without signing in, no plant is visible. */
export const NOBODY: Caller = { personId: null, role: 'viewer', sites: [] };

/** A signed-in person. Everybody sees every plant as yet: rights by site are to be filled in here. */
export function callerOf({ id, role }: Pick<Person, 'id' | 'role'>): Caller {
  return { personId: id, role, sites: null };
}

/**
 * Database access that knows the caller. Assets, metrics and everything below them are read through it only.
 */
export interface Reader {
  readonly query: Queryable['query'];
  readonly asker: Caller;
}

export function readAs(db: Queryable, asker: Caller): Reader {
  const reader: Reader = { query: db.query.bind(db) as Queryable['query'], asker };
  return reader;
}

/** Reads as the server itself does. */
export function readAsServer(db: Queryable): Reader {
  return readAs(db, SERVER_CALLER);
}
