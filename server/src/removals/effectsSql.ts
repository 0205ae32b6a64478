import type { RemovalEffect, Restorable } from '@vivid-beacon/core';
import { all, type Queryable } from '../db/database';

/** Names that are told of each kind. */
const TOLD = 5;

/** Where a document names something: "$.**.metricId". */
const named = (document: string, path: string): string =>
  `jsonb_path_exists(${document}, '${path} ? (@ == $id)', jsonb_build_object('id', $1::text))`;

const indicators = (kind: RemovalEffect['kind'], path: string): string =>
  `select '${kind}' as kind, indicator.name || ', ' || asset.name as name from indicator
   join indicator_version version on version.indicator_id = indicator.id and version.version = indicator.version
   join asset on asset.id = indicator.asset_id
   where indicator.removed_at is null and ${named('version.definition', path)}`;

const boards = (kind: RemovalEffect['kind'], path: string): string =>
  `select '${kind}' as kind, board.title as name from board
   where board.removed_at is null and ${named('board.document', path)}`;

/** Kind and name of everything that rests on what is removed, $1. */
const RESTS: Readonly<Record<'metric' | Restorable, readonly string[]>> = {
  metric: [
    `select 'rule' as kind, rule.name from alarm_rule rule
     where rule.in_force and rule.stage_of is null and exists (
       select 1 from alarm_watch watch
       where watch.rule_id = rule.id and (watch.metric_id = $1 or watch.suppress_metric = $1))`,
    `select 'derived' as kind, metric.name || ', ' || asset.name as name from derived_metric derived
     join metric on metric.id = derived.metric_id and metric.removed_at is null
     join asset on asset.id = metric.asset_id
     where ${named('derived.bindings', '$.*.metricId')}`,
    indicators('indicator', '$.**.metricId'),
    boards('board', '$.**.metricId'),
    `select 'flag' as kind, flag.title as name from flag where flag.metric_id = $1 and flag.closed_at is null`,
  ],
  asset: [boards('narrowed', '$.scope.assetIds[*]')],
  board: [indicators('leads', '$.boardId')],
  indicator: [
    `select 'rule' as kind, rule.name from alarm_rule rule
     where rule.in_force and rule.stage_of is null and rule.over ->> 'indicatorId' = $1::text`,
    boards('board', '$.**.indicatorId'),
  ],
};

/** What rests on something and changes when it is removed, by kind. */
export function effectsOfRemoval(
  db: Queryable,
  what: 'metric' | Restorable,
  id: string,
): Promise<RemovalEffect[]> {
  return all(
    db,
    `select kind, count(*)::int as total, (array_agg(name order by name collate natural_order))[1:${TOLD}] as names
     from (${RESTS[what].join('\nunion all\n')}) follows group by kind
     order by array_position(array['rule', 'derived', 'indicator', 'board', 'flag', 'narrowed', 'leads'], kind)`,
    [id],
  );
}
