import type { PushToken } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

export function listTokens(db: Queryable): Promise<PushToken[]> {
  return all(
    db,
    `select token.id, token.name, person.name as "createdBy", ${ms('token.created_at', 'createdAt')},
            ${ms('token.last_used_at', 'lastUsedAt')}
     from push_token token join person on person.id = token.created_by
     where token.revoked_at is null order by token.name`,
  );
}

export async function addToken(
  db: Queryable,
  token: { name: string; hash: Buffer; createdBy: string; at: number },
): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    'insert into push_token (name, token_hash, created_by, created_at) values ($1, $2, $3, $4) returning id',
    [token.name, token.hash, token.createdBy, moment(token.at)],
  );
  return row!.id;
}

/** The token with this hash that is not revoked; notes that it was used, at most once a minute. */
export async function useToken(db: Queryable, hash: Buffer, at: number): Promise<string | undefined> {
  const row = await one<{ id: string; stale: boolean }>(
    db,
    `select id, last_used_at is null or last_used_at < $2::timestamptz - interval '1 minute' as stale
     from push_token where token_hash = $1 and revoked_at is null`,
    [hash, moment(at)],
  );
  if (row?.stale) {
    await db.query('update push_token set last_used_at = $2 where id = $1', [row.id, moment(at)]);
  }
  return row?.id;
}

export async function revokeToken(db: Queryable, id: string, at: number): Promise<boolean> {
  const row = await one(
    db,
    'update push_token set revoked_at = $2 where id = $1 and revoked_at is null returning id',
    [id, moment(at)],
  );
  return row !== undefined;
}
