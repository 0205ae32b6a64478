import type { Queryable } from '../db/database';
import { hashOfSession } from '../live/liveHub';
import { notify, RIGHTS_CHANGED, SESSION_ENDED } from '../live/notify';
import { endSessions } from './sessionSql';

/** Ends sessions of a person with their live connections, on every server. In the caller's transaction. */
export async function signOutOf(
  db: Queryable,
  personId: string,
  which?: Parameters<typeof endSessions>[2],
): Promise<number> {
  const ended = await endSessions(db, personId, which);
  if (ended.length > 0) await notify(db, SESSION_ENDED, ended.map(hashOfSession));
  return ended.length;
}

/** Ends the live connections of people whose rights have changed; their pages come again and are told what they may see now. */
export function rightsChanged(db: Queryable, personIds: readonly string[]): Promise<void> {
  return notify(db, RIGHTS_CHANGED, personIds);
}
