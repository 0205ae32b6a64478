import { all, type Queryable } from '../db/database';

/** A session as it is kept. Times in ms. */
export interface KeptSession {
  readonly sid: string;
  readonly startedAt: number;
  readonly seenAt: number;
  readonly agent: string;
  readonly address: string;
}

/** Sessions of a person that have not ended, the last used first. */
export function sessionsOf(db: Queryable, personId: string): Promise<KeptSession[]> {
  return all(
    db,
    `select sid, (sess ->> 'startedAt')::float8 as "startedAt", (sess ->> 'seenAt')::float8 as "seenAt",
            sess ->> 'agent' as agent, sess ->> 'address' as address
     from session where sess ->> 'personId' = $1 and expire > now() order by 3 desc, sid`,
    [personId],
  );
}

/**
 * Ends sessions of a person.
 *
 * @param except the id of one that stays. @param only the id of the one to end.
 * @returns ids of those that ended.
 */
export async function endSessions(
  db: Queryable,
  personId: string,
  { except = null, only = null }: { readonly except?: string | null; readonly only?: string | null } = {},
): Promise<string[]> {
  const rows = await all<{ sid: string }>(
    db,
    `delete from session where sess ->> 'personId' = $1 and ($2::text is null or sid <> $2) and ($3::text is null or sid = $3)
     returning sid`,
    [personId, except, only],
  );
  return rows.map(({ sid }) => sid);
}
