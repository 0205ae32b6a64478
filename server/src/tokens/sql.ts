import type { PushRule, PushToken } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

const RULE = `json_build_object('assetLabel', token.asset_label, 'metricLabel', token.metric_label,
    'unknown', token.unknown, 'parentId', token.parent_id::text, 'collisions', token.collisions) as rule`;

export function listTokens(db: Queryable): Promise<PushToken[]> {
  return all(
    db,
    `select token.id, token.name, person.name as "createdBy", ${ms('token.created_at', 'createdAt')},
            ${ms('token.last_used_at', 'lastUsedAt')}, ${RULE},
            (select count(*)::int from heard_series heard where heard.token_id = token.id and heard.metric_id is null)
              as waiting
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

/** A token that is valid, with how its text is matched. */
type ValidToken = Pick<PushToken, 'id' | 'rule'>;

/** The token with this hash that is not revoked; notes that it was used, at most once a minute. */
export async function useToken(db: Queryable, hash: Buffer, at: number): Promise<ValidToken | undefined> {
  const row = await one<ValidToken & { stale: boolean }>(
    db,
    `select id, last_used_at is null or last_used_at < $2::timestamptz - interval '1 minute' as stale, ${RULE}
     from push_token token where token_hash = $1 and revoked_at is null`,
    [hash, moment(at)],
  );
  if (row?.stale) {
    await db.query('update push_token set last_used_at = $2 where id = $1', [row.id, moment(at)]);
  }
  return row && { id: row.id, rule: row.rule };
}

/** Changes how a token's text is matched. @returns false for a token that is gone. */
export async function changeRule(db: Queryable, id: string, rule: PushRule): Promise<boolean> {
  const row = await one(
    db,
    `update push_token set asset_label = $2, metric_label = $3, unknown = $4, parent_id = $5, collisions = $6
     where id = $1 and revoked_at is null returning id`,
    [id, rule.assetLabel, rule.metricLabel, rule.unknown, rule.parentId, rule.collisions],
  );
  return row !== undefined;
}

export async function revokeToken(db: Queryable, id: string, at: number): Promise<boolean> {
  const row = await one(
    db,
    'update push_token set revoked_at = $2 where id = $1 and revoked_at is null returning id',
    [id, moment(at)],
  );
  return row !== undefined;
}
