import type { LiveMessage } from '@vivid-beacon/core';
import type { Queryable } from '../db/database';

/** Not for browsers: the sessions with these hashes are over. */
export const SESSION_ENDED = 'sessionEnded';
/** Not for browsers: what these people may see has changed. */
export const RIGHTS_CHANGED = 'rightsChanged';
/** Messages between servers. */
export type HubMessage =
  | LiveMessage
  | { readonly topic: typeof SESSION_ENDED | typeof RIGHTS_CHANGED; readonly ids: readonly string[] };

export const CHANNEL = 'vivid_beacon';
/** A NOTIFY payload holds at most 8,000 bytes; an id has at most 19 digits. */
const IDS_IN_ONE = 300;

/**
 * Tells every server process on this database that things changed. Inside a transaction it is sent on
 * commit and only then.
 */
export async function notify(
  db: Queryable,
  topic: HubMessage['topic'],
  ids: readonly string[],
): Promise<void> {
  for (let i = 0; i < ids.length || i === 0; i += IDS_IN_ONE) {
    const message = { topic, ids: ids.slice(i, i + IDS_IN_ONE) } satisfies HubMessage;
    await db.query('select pg_notify($1, $2)', [CHANNEL, JSON.stringify(message)]);
  }
}
