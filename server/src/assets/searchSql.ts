import type { Asset, AssetRow } from '@vivid-beacon/core';
import { moment } from '../db/columns';
import { all, one } from '../db/database';
import type { Reader } from '../db/reader';
import { containing, type Page } from '../db/pages';
import { ASSETS } from './sql';

/** Which assets are meant; what is left out does not matter. */
export interface AssetFilter {
  readonly ids?: readonly string[];
  /** Right below this one; null = plants. */
  readonly parentId?: string | null;
  /** This one and all below it. */
  readonly under?: string;
  /** Words of which each must begin a word of its name or kind, or of its facts; a number there must be the same. */
  readonly words?: readonly string[];
  /** Words of which each must stand somewhere in the names from the plant down. */
  readonly inTitle?: readonly string[];
}

const ONLY_DIGITS = /^\d+$/;

/** Words as the database looks for them; null where nothing is left of them that could be looked for. */
function searchOf(words: readonly string[]): string | null {
  const parts = words.flatMap((word) => word.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []);
  if (parts.length === 0) return null;
  return parts
    .map((part) => (ONLY_DIGITS.test(part) ? `('${part}':*A | '${part}':B)` : `'${part}':*`))
    .join(' & ');
}

function conditionsOf(db: Reader, filter: AssetFilter): { where: string; values: unknown[] } {
  const values: unknown[] = [db.asker.sites];
  const conditions: string[] = [];
  const add = (value: unknown, condition: (place: string) => string): void => {
    values.push(value);
    conditions.push(` and ${condition(`$${values.length}`)}`);
  };
  const { ids, parentId, under, words = [], inTitle = [] } = filter;
  if (ids) add(ids, (at) => `asset.id = any(${at}::bigint[])`);
  if (parentId === null) conditions.push(' and asset.parent_id is null');
  else if (parentId !== undefined) add(parentId, (at) => `asset.parent_id = ${at}::bigint`);
  if (under !== undefined) add([under], (at) => `place.path @> ${at}::bigint[]`);
  for (const word of inTitle) add(containing(word), (at) => `place.title ilike ${at}::text`);
  const search = searchOf(words);
  if (search !== null) add(search, (at) => `asset.search @@ to_tsquery('simple', ${at}::text)`);
  return { where: conditions.join(''), values };
}

/** A page of assets in the order of their full names, "Line 2" before "Line 10". */
export function pageOfAssets(db: Reader, filter: AssetFilter, { offset, limit }: Page): Promise<Asset[]> {
  const { where, values } = conditionsOf(db, filter);
  return all(
    db,
    `${ASSETS}${where} order by place.title collate natural_order, asset.id
     offset $${values.length + 1} limit $${values.length + 2}`,
    [...values, offset, limit],
  );
}

export async function countAssets(db: Reader, filter: AssetFilter): Promise<number> {
  const { where, values } = conditionsOf(db, filter);
  const row = await one<{ n: number }>(
    db,
    `select count(*)::int as n from (${ASSETS}${where}) found`,
    values,
  );
  return row!.n;
}

/** What a line of the tree tells besides the asset: how much hangs on it, and how many feeds at or below it need a look. */
export async function factsOfAssets(
  db: Reader,
  ids: readonly string[],
  now: number,
): Promise<Map<string, Pick<AssetRow, 'children' | 'metrics' | 'troubled'>>> {
  const rows = await all<Pick<AssetRow, 'id' | 'children' | 'metrics' | 'troubled'>>(
    db,
    `with troubled as (
       select metric.asset_id, count(*)::int as n from metric_latest latest join metric on metric.id = latest.metric_id
       where latest.silent_at < $2::timestamptz or latest.state <> 'reporting' or latest.ahead_until > $2::timestamptz
       group by metric.asset_id),
     above as (
       select id, sum(n)::int as n from troubled join asset_place place using (asset_id), unnest(place.path) as up (id)
       where id = any($1::bigint[]) group by id)
     select asset.id,
            (select count(*) from asset child where child.parent_id = asset.id)::int as children,
            (select count(*) from metric where metric.asset_id = asset.id and metric.removed_at is null)::int as metrics,
            coalesce(above.n, 0) as troubled
     from asset left join above on above.id = asset.id where asset.id = any($1::bigint[])`,
    [ids, moment(now)],
  );
  return new Map(rows.map(({ id, ...facts }) => [id, facts]));
}

const MOST_VALUES = 60;

/** Attributes that assets have, with the values they take in order; of many different ones the first. */
export async function attributeValues(
  db: Reader,
): Promise<{ name: string; values: (string | number)[]; many: boolean }[]> {
  return all(
    db,
    `select name, jsonb_agg(value order by place) filter (where place <= ${MOST_VALUES}) as values,
            count(*) > ${MOST_VALUES} as many
     from (select name, value, row_number() over (
             partition by name order by jsonb_typeof(value), (value #>> '{}') collate natural_order) as place
           from (select distinct each.key as name, each.value
                 from asset join asset_place place on place.asset_id = asset.id, jsonb_each(asset.attributes) each
                 where ($1::bigint[] is null or place.plant_id = any($1::bigint[]))) found) numbered
     group by name order by name collate natural_order`,
    [db.asker.sites],
  );
}
