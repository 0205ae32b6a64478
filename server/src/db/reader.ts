import { heldKeys, plantsWith, type Role, type SignedInPerson } from '@vivid-beacon/core';
import type { Queryable } from './database';

/** The caller: what they may see follows from this one value, which is passed to every read. */
export interface Caller {
  /** null = the server itself. */
  readonly personId: string | null;
  /** The plants that can be reached: those at which they have the role that is asked for; null = all. */
  readonly sites: readonly string[] | null;
  /** What opens boards (core's heldKeys); null = all. */
  readonly keys: readonly string[] | null;
}

/** The server itself: alarms, notices, incoming samples. */
export const SERVER_CALLER: Caller = { personId: null, sites: null, keys: null };

/** Without signing in, no plant is visible. */
export const NOBODY: Caller = { personId: null, sites: [], keys: [] };

/**
 * A signed-in person who asks for something that needs a role: they reach the plants at which they have it, and nothing at
 * others. What only needs to be seen is asked for as a viewer.
 */
export function callerOf(person: Pick<SignedInPerson, 'id' | 'rights'>, needed: Role): Caller {
  return { personId: person.id, sites: plantsWith(person.rights, needed), keys: heldKeys(person) };
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
