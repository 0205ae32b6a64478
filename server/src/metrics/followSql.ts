import type { RemovalEffect } from '@vivid-beacon/core';
import { all, type Queryable } from '../db/database';

/** Names that are told of each kind. */
const TOLD = 5;

/**
 * What rests on a metric and changes when it is removed, by kind: rules in force that watch it or are suppressed by
 * it, derived metrics and indicators that are computed from it, boards that show it, and open flags about it.
 */
export function followsRemoval(db: Queryable, metricId: string): Promise<RemovalEffect[]> {
  return all(
    db,
    `with follows as (
       select 'rule' as kind, rule.name from alarm_rule rule
       where rule.in_force and rule.stage_of is null and exists (
         select 1 from alarm_watch watch
         where watch.rule_id = rule.id and (watch.metric_id = $1 or watch.suppress_metric = $1))
       union all
       select 'derived', metric.name || ', ' || asset.name from derived_metric derived
       join metric on metric.id = derived.metric_id and metric.removed_at is null
       join asset on asset.id = metric.asset_id
       where jsonb_path_exists(derived.bindings, '$.*.metricId ? (@ == $id)', jsonb_build_object('id', $1::text))
       union all
       select 'indicator', indicator.name || ', ' || asset.name from indicator
       join indicator_version version on version.indicator_id = indicator.id and version.version = indicator.version
       join asset on asset.id = indicator.asset_id
       where indicator.removed_at is null and jsonb_path_exists(
         version.definition, '$.**.metricId ? (@ == $id)', jsonb_build_object('id', $1::text))
       union all
       select 'board', board.title from board
       where jsonb_path_exists(board.document, '$.**.metricId ? (@ == $id)', jsonb_build_object('id', $1::text))
       union all
       select 'flag', flag.title from flag where flag.metric_id = $1 and flag.closed_at is null
     )
     select kind, count(*)::int as total, (array_agg(name order by name collate natural_order))[1:${TOLD}] as names
     from follows group by kind order by array_position(array['rule', 'derived', 'indicator', 'board', 'flag'], kind)`,
    [metricId],
  );
}
