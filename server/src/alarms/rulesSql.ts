import { hasAttributes, type AlarmRule, type Asset, type RuleForm } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';

/** What a person writes of a rule. */
export type RuleParts = Omit<RuleForm, 'replaces'>;

const RULE = `rule.id, rule.name, rule.metric_id as "metricId", rule.under, rule.attributes, rule.test,
  rule.on_delay_ms::float8 as "onDelayMs", rule.off_delay_ms::float8 as "offDelayMs", rule.hours, rule.level,
  rule.priority, rule.suppress, rule.message, rule.to_do as "toDo",
  array(select unnest(rule.told)::text) as told,
  case when rule.escalate_after_ms is not null then jsonb_build_object('afterMs', rule.escalate_after_ms,
    'to', to_jsonb(array(select unnest(rule.escalate_to)::text))) end as escalation,
  rule.latching, rule.in_force as "inForce", ${ms('rule.in_force_from', 'inForceFrom')}`;

/** Rules in force with the metrics they watch. */
export function listRules(db: Queryable): Promise<AlarmRule[]> {
  return all(
    db,
    `select ${RULE}, coalesce((
       select jsonb_agg(jsonb_build_object(
         'metricId', watch.metric_id::text, 'assetName', asset.name, 'suppressed', watch.suppressed,
         'aside', case when watch.aside is not null then jsonb_build_object(
           'kind', watch.aside, 'at', extract(epoch from watch.aside_at) * 1000,
           'until', extract(epoch from watch.aside_until) * 1000,
           'by', (select name from person where id = watch.aside_by), 'reason', watch.aside_reason) end
         ) order by asset.name, watch.metric_id)
       from alarm_watch watch join metric on metric.id = watch.metric_id join asset on asset.id = metric.asset_id
       where watch.rule_id = rule.id), '[]') as watches
     from alarm_rule rule where rule.in_force order by rule.name`,
  );
}

/** A rule, in force or not, locked. */
export function lockRule(db: Queryable, id: string): Promise<Omit<AlarmRule, 'watches'> | undefined> {
  return one(db, `select ${RULE} from alarm_rule rule where rule.id = $1 for no key update`, [id]);
}

/** Rules in force over a scope, locked; those another server works on are left to it. */
// Not "for update": a push that holds a watch and raises its alarm needs the rule's key meanwhile, and both would wait.
export function lockScopedRules(db: Queryable): Promise<Omit<AlarmRule, 'watches'>[]> {
  return all(
    db,
    `select ${RULE} from alarm_rule rule where rule.in_force and rule.under is not null
     order by rule.id for no key update skip locked`,
  );
}

export async function addRule(
  db: Queryable,
  rule: RuleParts & { readonly inForceFrom: number; readonly createdBy: string },
): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    `insert into alarm_rule (name, metric_id, under, test, on_delay_ms, off_delay_ms, hours, level, priority, suppress,
                             message, to_do, told, escalate_after_ms, escalate_to, latching, in_force_from, created_by,
                             attributes)
     values ($1, $2, $3, $4::jsonb, $5, $6, $7::jsonb, $8, $9, $10::jsonb, $11, $12, $13, $14, $15, $16, $17, $18, $19::jsonb)
     returning id`,
    [
      rule.name,
      rule.metricId,
      rule.under,
      JSON.stringify(rule.test),
      rule.onDelayMs,
      rule.offDelayMs,
      rule.hours && JSON.stringify(rule.hours),
      rule.level,
      rule.priority,
      rule.suppress && JSON.stringify(rule.suppress),
      rule.message,
      rule.toDo,
      rule.told,
      rule.escalation?.afterMs ?? null,
      rule.escalation?.to ?? [],
      rule.latching,
      moment(rule.inForceFrom),
      rule.createdBy,
      JSON.stringify(rule.attributes),
    ],
  );
  return row!.id;
}

/** Takes a rule out of force. @returns false when there is none in force. */
export async function endRule(db: Queryable, id: string): Promise<boolean> {
  const row = await one(
    db,
    'update alarm_rule set in_force = false where id = $1 and in_force returning id',
    [id],
  );
  return row !== undefined;
}

/**
 * The metrics that a rule over a scope should watch: of the same name, unit and kind as the one it was written
 * for, on the asset `under` or below it, with samples of their own, and of those with the attributes asked for.
 */
export async function metricsInScope(
  db: Queryable,
  rule: Pick<RuleParts, 'metricId' | 'attributes'> & { readonly under: string },
): Promise<string[]> {
  const rows = await all<{ id: string; attributes: Asset['attributes'] }>(
    db,
    `with recursive below as (
       select id from asset where id = $2
       union all select asset.id from asset join below on asset.parent_id = below.id
     )
     select metric.id, asset.attributes
     from metric join below on below.id = metric.asset_id join asset on asset.id = below.id, metric model
     where model.id = $1 and metric.removed_at is null and metric.origin = 'samples'
       and lower(metric.name) = lower(model.name) and metric.unit = model.unit and metric.kind = model.kind
     order by metric.id`,
    [rule.metricId, rule.under],
  );
  return rows.filter((row) => hasAttributes(row, rule.attributes)).map(({ id }) => id);
}
