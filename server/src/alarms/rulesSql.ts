import {
  hasAttributes,
  type AlarmRule,
  type Asset,
  type PageOf,
  type RuleInput,
  type WatchedMetric,
} from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { Conditions, findPage, SEEN_PLANT } from '../db/conditions';
import { all, one, type Queryable } from '../db/database';
import type { PageRange } from '../db/pages';
import type { Reader } from '../db/reader';

/** The fields of a rule that a person enters. */
export type RuleParts = Omit<RuleInput, 'replaces'>;

/** What each stage of a rule has of its own. @param of alias of the rule. */
const escalation = (of: string): string =>
  `case when ${of}.escalate_after_ms is not null then jsonb_build_object('afterMs', ${of}.escalate_after_ms,
    'to', to_jsonb(array(select unnest(${of}.escalate_to)::text))) end`;

const RULE = `rule.id, rule.name, rule.metric_id as "metricId", rule.under, rule.attributes, rule.over, rule.test,
  rule.on_delay_ms::float8 as "onDelayMs", rule.off_delay_ms::float8 as "offDelayMs", rule.hours, rule.level,
  rule.priority, rule.suppress, rule.message, rule.to_do as "toDo",
  array(select unnest(rule.told)::text) as told, ${escalation('rule')} as escalation,
  (select jsonb_build_object('test', stage.test, 'priority', stage.priority, 'message', stage.message,
     'toDo', stage.to_do, 'told', to_jsonb(array(select unnest(stage.told)::text)), 'escalation', ${escalation('stage')})
   from alarm_rule stage where stage.stage_of = rule.id) as caution,
  rule.latching, rule.in_force as "inForce", ${ms('rule.in_force_from', 'inForceFrom')}`;

/** A watch's shelving or out-of-service state, as sent to the app. */
const ASIDE = `jsonb_build_object(
  'kind', watch.aside, 'at', extract(epoch from watch.aside_at) * 1000,
  'until', extract(epoch from watch.aside_until) * 1000,
  'by', (select name from person where id = watch.aside_by), 'reason', watch.aside_reason)`;

const FROM = `alarm_rule rule join metric on metric.id = rule.metric_id
  join asset_place place on place.asset_id = metric.asset_id
  left join metric_title title on title.metric_id = metric.id`;
const RULES = `select ${RULE}, coalesce(rule.value_unit, metric.unit) as unit,
  coalesce(rule.value_decimals, metric.decimals::int) as decimals, (
    select jsonb_build_object('metrics', count(*), 'suppressed', count(*) filter (where watch.suppressed),
      'aside', count(watch.aside), 'how', (array_agg(${ASIDE}
        order by watch.aside <> 'outOfService', watch.aside_until, watch.metric_id) filter (where watch.aside is not null))[1],
      'problem', min(watch.problem))
    from alarm_watch watch where watch.rule_id = rule.id) as watched
  from ${FROM}`;

/** Rules in force by name, each with its Caution, if it has two stages. @param words each must stand somewhere in the name of the rule or of its metric from the plant down. */
export function pageOfRules(
  db: Reader,
  words: readonly string[],
  page: PageRange,
): Promise<PageOf<AlarmRule>> {
  return findPage(
    db,
    {
      from: FROM,
      id: 'rule.id',
      select: RULES,
      conditions: new Conditions(db)
        .plain('rule.in_force and rule.stage_of is null')
        .words(words, ['rule.name', 'title.search']),
      order: 'rule.name collate natural_order, rule.id',
    },
    page,
  );
}

/** A rule by its id or by that of its Caution. */
export function findRule(db: Reader, id: string): Promise<AlarmRule | undefined> {
  return one(
    db,
    `${RULES} where ${SEEN_PLANT} and rule.id = coalesce((select stage_of from alarm_rule where id = $2), $2)`,
    [db.asker.sites, id],
  );
}

/** The watches of a rule, ordered by asset name. */
export function watchesOfRule(db: Reader, id: string): Promise<WatchedMetric[]> {
  return all(
    db,
    `select watch.metric_id as "metricId", asset.name as "assetName", watch.suppressed,
       case when watch.aside is not null then ${ASIDE} end as aside
     from alarm_watch watch join metric on metric.id = watch.metric_id join asset on asset.id = metric.asset_id
     join asset_place place on place.asset_id = asset.id
     where ${SEEN_PLANT} and watch.rule_id = $2 order by asset.name collate natural_order, watch.metric_id`,
    [db.asker.sites, id],
  );
}

/** Whether a rule watches a metric at a plant that the asker does not reach. */
export async function watchesElsewhere(db: Reader, id: string): Promise<boolean> {
  if (db.asker.sites === null) return false;
  const row = await one(
    db,
    `select 1 from alarm_watch watch join metric on metric.id = watch.metric_id
     join asset_place place on place.asset_id = metric.asset_id
     where watch.rule_id = $2 and not ${SEEN_PLANT} limit 1`,
    [db.asker.sites, id],
  );
  return row !== undefined;
}

/** How many rules are in force. */
export async function countRules(db: Reader): Promise<number> {
  const row = await one<{ n: number }>(
    db,
    `select count(*)::int as n from ${FROM} where ${SEEN_PLANT} and rule.in_force and rule.stage_of is null`,
    [db.asker.sites],
  );
  return row!.n;
}

/** A rule without what is looked up elsewhere. */
type LockedRule = Omit<AlarmRule, 'watched' | 'unit' | 'decimals'>;

/** A rule, in force or not, locked. */
export function lockRule(db: Queryable, id: string): Promise<LockedRule | undefined> {
  return one(db, `select ${RULE} from alarm_rule rule where rule.id = $1 for no key update`, [id]);
}

/** Rules in force over a scope, locked; rows locked by another server are skipped. */
// Not "for update": a push that holds a watch and raises its alarm needs the rule's key meanwhile, and both would wait.
export function lockScopedRules(db: Queryable): Promise<LockedRule[]> {
  return all(
    db,
    `select ${RULE} from alarm_rule rule where rule.in_force and rule.under is not null
     order by rule.id for no key update skip locked`,
  );
}

export async function addRule(
  db: Queryable,
  rule: RuleParts & {
    readonly inForceFrom: number;
    readonly createdBy: string;
    /** Of what is judged; null = those of the metric. */
    readonly shown: { readonly unit: string; readonly decimals: number } | null;
    /** The rule whose Caution it is; null = a rule of its own. */
    readonly stageOf: string | null;
  },
): Promise<string> {
  const row = await one<{ id: string }>(
    db,
    `insert into alarm_rule (name, metric_id, under, test, on_delay_ms, off_delay_ms, hours, level, priority, suppress,
                             message, to_do, told, escalate_after_ms, escalate_to, latching, in_force_from, created_by,
                             attributes, over, value_unit, value_decimals, stage_of)
     values ($1, $2, $3, $4::jsonb, $5, $6, $7::jsonb, $8, $9, $10::jsonb, $11, $12, $13, $14, $15, $16, $17, $18, $19::jsonb,
             $20::jsonb, $21, $22, $23)
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
      rule.over && JSON.stringify(rule.over),
      rule.shown?.unit ?? null,
      rule.shown?.decimals ?? null,
      rule.stageOf,
    ],
  );
  return row!.id;
}

/** Withdraws a rule with its Caution. @returns false if none is in force. */
export async function endRule(db: Queryable, id: string): Promise<boolean> {
  const row = await one(
    db,
    'update alarm_rule set in_force = false where (id = $1 or stage_of = $1) and in_force returning id',
    [id],
  );
  return row !== undefined;
}

/**
 * The metrics that a rule over a scope should watch: of the same name, unit, kind and origin as the one it was
 * written for, on the asset `under` or below it, and of those with the attributes asked for.
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
     where model.id = $1 and metric.removed_at is null and metric.origin = model.origin
       and lower(metric.name) = lower(model.name) and metric.unit = model.unit and metric.kind = model.kind
     order by metric.id`,
    [rule.metricId, rule.under],
  );
  return rows.filter((row) => hasAttributes(row, rule.attributes)).map(({ id }) => id);
}
