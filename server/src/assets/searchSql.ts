import type { Asset, AssetRow, PageOf } from '@vivid-beacon/core';
import { moment } from '../db/columns';
import { Conditions, findPage, SEEN_PLANT } from '../db/conditions';
import { all } from '../db/database';
import type { Reader } from '../db/reader';
import type { PageRange } from '../db/pages';
import { ASSET_ROWS } from './sql';

/** Filter of assets; absent fields match everything. */
export interface AssetFilter {
  readonly ids?: readonly string[];
  /** Right below this one; null = plants. */
  readonly parentId?: string | null;
  /** This one and all below it. */
  readonly under?: string;
  /** Words that must all begin a word of its name, kind or facts; numbers must be equal. */
  readonly words?: readonly string[];
  /** Words that must all occur in the names from the plant down. */
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

function conditionsOf(db: Reader, filter: AssetFilter): Conditions {
  const { ids, parentId, under, words = [], inTitle = [] } = filter;
  const conditions = new Conditions(db)
    .and(ids, (at) => `asset.id = any(${at}::bigint[])`)
    .and(parentId ?? undefined, (at) => `asset.parent_id = ${at}::bigint`)
    .and(under && [under], (at) => `place.path @> ${at}::bigint[]`)
    .and(searchOf(words) ?? undefined, (at) => `asset.search @@ to_tsquery('simple', ${at}::text)`)
    .words(inTitle, ['place.title']);
  conditions.plain('asset.removed_at is null');
  return parentId === null ? conditions.plain('asset.parent_id is null') : conditions;
}

/** A page of assets sorted by full name, "Line 2" before "Line 10". */
export function pageOfAssets(db: Reader, filter: AssetFilter, page: PageRange): Promise<PageOf<Asset>> {
  return findPage(
    db,
    {
      from: 'asset join asset_place place on place.asset_id = asset.id',
      id: 'asset.id',
      select: ASSET_ROWS,
      conditions: conditionsOf(db, filter),
      order: 'place.title collate natural_order, asset.id',
    },
    page,
  );
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
            (select count(*) from asset child where child.parent_id = asset.id and child.removed_at is null)::int as children,
            (select count(*) from metric where metric.asset_id = asset.id and metric.removed_at is null)::int as metrics,
            coalesce(above.n, 0) as troubled
     from asset left join above on above.id = asset.id where asset.id = any($1::bigint[])`,
    [ids, moment(now)],
  );
  return new Map(rows.map(({ id, ...facts }) => [id, facts]));
}

const MAX_VALUES = 60;

/** Attributes that assets have, with the values they take in order; of many different ones the first. */
export async function attributeValues(
  db: Reader,
): Promise<{ name: string; values: (string | number)[]; many: boolean }[]> {
  return all(
    db,
    `select name, jsonb_agg(value order by place) filter (where place <= ${MAX_VALUES}) as values,
            count(*) > ${MAX_VALUES} as many
     from (select name, value, row_number() over (
             partition by name order by jsonb_typeof(value), (value #>> '{}') collate natural_order) as place
           from (select distinct on (lower(each.key), lower(each.value::text))
                        min(each.key) over (partition by lower(each.key)) as name, each.value
                 from asset join asset_place place on place.asset_id = asset.id, jsonb_each(asset.attributes) each
                 where ${SEEN_PLANT} and asset.removed_at is null
                 order by lower(each.key), lower(each.value::text), each.value::text) found) numbered
     group by name order by name collate natural_order`,
    [db.asker.sites],
  );
}
