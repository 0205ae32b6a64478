import type { PushRule, PushToken } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { SEEN_PLANT } from '../db/conditions';
import { all, one, type Queryable } from '../db/database';
import type { Reader } from '../db/reader';

const RULE = `json_build_object('assetLabel', token.asset_label, 'metricLabel', token.metric_label,
    'unknown', token.unknown, 'parentId', token.parent_id::text, 'collisions', token.collisions) as rule`;

/** A token of a plant that is seen; one that writes everywhere is for those who reach every plant. Over `asset_place place`. */
const SEEN = `token.revoked_at is null and ${SEEN_PLANT}`;

export function listTokens(db: Reader): Promise<PushToken[]> {
  return all(
    db,
    `select token.id, token.name, person.name as "createdBy", ${ms('token.created_at', 'createdAt')},
            ${ms('token.last_used_at', 'lastUsedAt')}, token.plant_id as "plantId", place.plant_name as "plantName",
            cardinality(token.metric_ids) as metrics, ${ms('token.ends_at', 'endsAt')}, ${RULE},
            (select count(*)::int from heard_series heard where heard.token_id = token.id and heard.metric_id is null)
              as waiting
     from push_token token join person on person.id = token.created_by
     left join asset_place place on place.asset_id = token.plant_id
     where ${SEEN} order by token.name`,
    [db.asker.sites],
  );
}

export async function addToken(
  db: Queryable,
  token: {
    name: string;
    hash: Buffer;
    createdBy: string;
    at: number;
    plantId?: string | null;
    metricIds?: readonly string[] | null;
    endsAt?: number | null;
  },
): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    `insert into push_token (name, token_hash, created_by, created_at, plant_id, metric_ids, ends_at)
     values ($1, $2, $3, $4, $5, $6, $7) returning id`,
    [
      token.name,
      token.hash,
      token.createdBy,
      moment(token.at),
      token.plantId ?? null,
      token.metricIds ?? null,
      token.endsAt == null ? null : moment(token.endsAt),
    ],
  );
  return row!.id;
}

/** A token of which the caller reaches the plant; undefined = there is none. */
export function findToken(db: Reader, id: string): Promise<{ plantId: string | null } | undefined> {
  return one(
    db,
    `select token.plant_id as "plantId" from push_token token left join asset_place place on place.asset_id = token.plant_id
     where ${SEEN} and token.id = $2`,
    [db.asker.sites, id],
  );
}

/** A token that is valid: how its text is matched, and what it may write. */
interface ValidToken extends Pick<PushToken, 'id' | 'rule' | 'plantId'> {
  readonly metricIds: readonly string[] | null;
}

/** The token with this hash that is not revoked and not past its end; notes that it was used, at most once a minute. */
export async function useToken(db: Queryable, hash: Buffer, at: number): Promise<ValidToken | undefined> {
  const row = await one<ValidToken & { stale: boolean }>(
    db,
    `select id, last_used_at is null or last_used_at < $2::timestamptz - interval '1 minute' as stale, ${RULE},
            plant_id as "plantId", metric_ids as "metricIds"
     from push_token token where token_hash = $1 and revoked_at is null and (ends_at is null or ends_at > $2)`,
    [hash, moment(at)],
  );
  if (row?.stale) {
    await db.query('update push_token set last_used_at = $2 where id = $1', [row.id, moment(at)]);
  }
  return row && { id: row.id, rule: row.rule, plantId: row.plantId, metricIds: row.metricIds };
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
