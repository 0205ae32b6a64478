import type { RemovalEffect, Restorable } from '@vivid-beacon/core';
import { SEEN_PLANT } from '../db/conditions';
import { all } from '../db/database';
import type { Reader } from '../db/reader';

/** Names that are told of each kind. */
const TOLD = 5;

/** Where a document names something: "$.**.metricId". $2 is what is removed. */
const named = (document: string, path: string): string =>
  `jsonb_path_exists(${document}, '${path} ? (@ == $id)', jsonb_build_object('id', $2::text))`;

const indicators = (kind: RemovalEffect['kind'], path: string): string =>
  `select '${kind}' as kind, indicator.name || ', ' || asset.name as name, indicator.asset_id, null::text[] as seen_by from indicator
   join indicator_version version on version.indicator_id = indicator.id and version.version = indicator.version
   join asset on asset.id = indicator.asset_id
   where indicator.removed_at is null and ${named('version.definition', path)}`;

const boards = (kind: RemovalEffect['kind'], path: string): string =>
  `select '${kind}' as kind, board.title as name, null::bigint as asset_id, board.seen_by from board
   where board.removed_at is null and ${named('board.document', path)}`;

/** Kind, name and asset of everything that rests on what is removed, $2; a board belongs to no asset and has keys instead. */
const RESTS: Readonly<Record<'metric' | Restorable, readonly string[]>> = {
  metric: [
    `select 'rule' as kind, rule.name, metric.asset_id, null::text[] as seen_by from alarm_rule rule join metric on metric.id = rule.metric_id
     where rule.in_force and rule.stage_of is null and exists (
       select 1 from alarm_watch watch
       where watch.rule_id = rule.id and (watch.metric_id = $2 or watch.suppress_metric = $2))`,
    `select 'derived' as kind, metric.name || ', ' || asset.name as name, metric.asset_id, null::text[] from derived_metric derived
     join metric on metric.id = derived.metric_id and metric.removed_at is null
     join asset on asset.id = metric.asset_id
     where ${named('derived.bindings', '$.*.metricId')}`,
    indicators('indicator', '$.**.metricId'),
    boards('board', '$.**.metricId'),
    `select 'flag' as kind, flag.title as name, flag.asset_id, null::text[] from flag where flag.metric_id = $2 and flag.closed_at is null`,
  ],
  asset: [boards('narrowed', '$.scope.assetIds[*]')],
  board: [indicators('leads', '$.boardId')],
  indicator: [
    `select 'rule' as kind, rule.name, metric.asset_id, null::text[] as seen_by from alarm_rule rule join metric on metric.id = rule.metric_id
     where rule.in_force and rule.stage_of is null and rule.over ->> 'indicatorId' = $2::text`,
    boards('board', '$.**.indicatorId'),
  ],
};

/** What rests on something and changes when it is removed, by kind. All is counted; names are those the asker may see. */
export function effectsOfRemoval(
  db: Reader,
  what: 'metric' | Restorable,
  id: string,
): Promise<RemovalEffect[]> {
  return all(
    db,
    `select kind, count(*)::int as total, coalesce((array_agg(name order by name collate natural_order)
              filter (where case when follows.seen_by is null then ${SEEN_PLANT}
                             else $3::text[] is null or follows.seen_by && $3::text[] end))[1:${TOLD}], '{}') as names
     from (${RESTS[what].join('\nunion all\n')}) follows left join asset_place place using (asset_id) group by kind
     order by array_position(array['rule', 'derived', 'indicator', 'board', 'flag', 'narrowed', 'leads'], kind)`,
    [db.asker.sites, id, db.asker.keys],
  );
}
