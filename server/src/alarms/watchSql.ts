import type {
  AlarmTest,
  AlarmTestKind,
  HoursFilter,
  MetricKind,
  RuleAside,
  RuleOver,
  SuppressWhile,
  WorkingCalendar,
} from '@vivid-beacon/core';
import type { AlarmModel, ConditionState } from '@vivid-beacon/core/src/alarming';
import { moment, ms } from '../db/columns';
import { all, one, type Queryable } from '../db/database';
import type { WatchKey } from './sql';

/** A rule on one metric, with everything its condition needs. */
export interface WatchRow extends WatchKey {
  readonly test: AlarmTest;
  /** Judges the values of periods; null = each sample. */
  readonly over: RuleOver | null;
  readonly onDelayMs: number;
  readonly offDelayMs: number;
  readonly hours: HoursFilter | null;
  readonly latching: boolean;
  /** Whether the rule has recipients. */
  readonly tells: boolean;
  readonly inForceFrom: number;
  readonly inForce: boolean;
  readonly suppress: SuppressWhile | null;
  readonly suppressMetric: string | null;
  readonly suppressed: boolean;
  readonly aside: RuleAside['kind'] | null;
  readonly condition: ConditionState;
  readonly model: AlarmModel | null;
  /** Of a rule over periods: end of the newest one judged, and from when on samples have come for those before. */
  readonly judgedTo: number | null;
  /** When the next one ends. */
  readonly dueAt: number | null;
  readonly staleFrom: number | null;
  readonly staleMark: number;
  readonly kind: MetricKind;
  readonly maxGapMs: number;
  readonly intervalMs: number;
  readonly rollover: number | null;
  readonly zone: string;
  /** Calendar of the plant, if the rule has hours; null = not needed or not set. */
  readonly calendar: WorkingCalendar | null;
}

const WATCH = `select watch.rule_id as "ruleId", watch.metric_id as "metricId", rule.test, rule.over,
    rule.on_delay_ms::float8 as "onDelayMs", rule.off_delay_ms::float8 as "offDelayMs", rule.hours, rule.latching,
    cardinality(rule.told) > 0 as tells,
    ${ms('rule.in_force_from', 'inForceFrom')}, rule.in_force as "inForce", rule.suppress,
    watch.suppress_metric as "suppressMetric", watch.suppressed, watch.aside, watch.condition, watch.model,
    ${ms('watch.judged_to', 'judgedTo')}, ${ms('watch.due_at', 'dueAt')}, ${ms('watch.stale_from', 'staleFrom')}, watch.stale_mark::int as "staleMark",
    metric.kind, metric.max_gap_ms::float8 as "maxGapMs", metric.interval_ms::float8 as "intervalMs", metric.rollover,
    place.zone, case when rule.hours is not null then calendar.document end as calendar
  from alarm_watch watch
  join alarm_rule rule on rule.id = watch.rule_id
  join metric on metric.id = watch.metric_id
  join asset_place place on place.asset_id = metric.asset_id
  left join working_calendar calendar on calendar.plant_id = place.plant_id`;
const IN_ORDER = 'order by watch.rule_id, watch.metric_id for update of watch';

/** Watches in force on the samples of these metrics, locked until the transaction ends. */
export function lockWatchesOf(db: Queryable, metricIds: readonly string[]): Promise<WatchRow[]> {
  return all(
    db,
    `${WATCH} where rule.in_force and rule.over is null and watch.metric_id = any($1::bigint[]) ${IN_ORDER}`,
    [metricIds],
  );
}

/** Watches in force that one of these states suppresses, locked. */
export function lockWatchesSuppressedBy(db: Queryable, metricIds: readonly string[]): Promise<WatchRow[]> {
  return all(db, `${WATCH} where rule.in_force and watch.suppress_metric = any($1::bigint[]) ${IN_ORDER}`, [
    metricIds,
  ]);
}

/** A watch as it stands, not locked. */
export function findWatch(db: Queryable, { ruleId, metricId }: WatchKey): Promise<WatchRow | undefined> {
  return one(db, `${WATCH} where watch.rule_id = $1 and watch.metric_id = $2`, [ruleId, metricId]);
}

/** Watches of rules, in force or not, locked. @param which of them, in SQL; $1 is the rule asked for. */
function lockWatches(
  db: Queryable,
  which: string,
  ruleId: string,
  metricId: string | null,
): Promise<WatchRow[]> {
  return all(
    db,
    `${WATCH} where ${which} and ($2::bigint is null or watch.metric_id = $2::bigint) ${IN_ORDER}`,
    [ruleId, metricId],
  );
}

/** Watches of a rule without those of its Caution, in force or not, locked; `metricId` = only this one. */
export const lockWatchesOfRule = (
  db: Queryable,
  ruleId: string,
  metricId: string | null = null,
): Promise<WatchRow[]> => lockWatches(db, 'watch.rule_id = $1', ruleId, metricId);

/** Watches of a rule and of its Caution, in force or not, locked; `metricId` = only of this one. */
export const lockWatchesOfStages = (
  db: Queryable,
  ruleId: string,
  metricId: string | null = null,
): Promise<WatchRow[]> => lockWatches(db, '(rule.id = $1 or rule.stage_of = $1)', ruleId, metricId);

/** Watches that time alone may change by `now`. Rows locked by another server are skipped. */
export function lockTimedWatches(db: Queryable, now: number): Promise<WatchRow[]> {
  return all(
    db,
    `${WATCH} where rule.in_force and (watch.condition ->> 'wakeAt')::float8 < $1::float8 ${IN_ORDER} skip locked`,
    [now],
  );
}

/** Watches whose shelving has expired, locked; rows locked by another server are skipped. */
export function lockEndedShelves(db: Queryable, now: number): Promise<WatchRow[]> {
  return all(
    db,
    `${WATCH} where watch.aside = 'shelved' and watch.aside_until <= $1 ${IN_ORDER} skip locked`,
    [moment(now)],
  );
}

export async function addWatch(
  db: Queryable,
  watch: WatchKey & {
    readonly condition: ConditionState;
    readonly model: AlarmModel | null;
    readonly suppressMetric: string | null;
    readonly suppressed: boolean;
  },
): Promise<void> {
  await db.query(
    `insert into alarm_watch (rule_id, metric_id, condition, model, suppress_metric, suppressed)
     values ($1, $2, $3::jsonb, $4::jsonb, $5, $6)`,
    [
      watch.ruleId,
      watch.metricId,
      JSON.stringify(watch.condition),
      watch.model && JSON.stringify(watch.model),
      watch.suppressMetric,
      watch.suppressed,
    ],
  );
}

export async function removeWatch(db: Queryable, { ruleId, metricId }: WatchKey): Promise<void> {
  await db.query('delete from alarm_watch where rule_id = $1 and metric_id = $2', [ruleId, metricId]);
}

/** Watches in force on metrics or indicators that were removed, locked. */
export function lockOrphanedWatches(db: Queryable): Promise<WatchRow[]> {
  return all(
    db,
    `${WATCH} where rule.in_force and (metric.removed_at is not null or exists (
       select 1 from indicator where indicator.id = (rule.over ->> 'indicatorId')::bigint and indicator.removed_at is not null))
     ${IN_ORDER} skip locked`,
  );
}

export async function saveCondition(
  db: Queryable,
  { ruleId, metricId }: WatchKey,
  condition: ConditionState,
): Promise<void> {
  await db.query('update alarm_watch set condition = $3::jsonb where rule_id = $1 and metric_id = $2', [
    ruleId,
    metricId,
    JSON.stringify(condition),
  ]);
}

/** The same for many at once. */
export async function saveConditions(
  db: Queryable,
  watches: readonly (WatchKey & { readonly condition: ConditionState })[],
): Promise<void> {
  if (watches.length === 0) return;
  await db.query(
    `update alarm_watch watch set condition = new.condition
     from jsonb_to_recordset($1::jsonb) as new ("ruleId" bigint, "metricId" bigint, condition jsonb)
     where watch.rule_id = new."ruleId" and watch.metric_id = new."metricId"`,
    [JSON.stringify(watches.map(({ ruleId, metricId, condition }) => ({ ruleId, metricId, condition })))],
  );
}

export async function saveSuppressed(
  db: Queryable,
  { ruleId, metricId }: WatchKey,
  suppressed: boolean,
): Promise<void> {
  await db.query('update alarm_watch set suppressed = $3 where rule_id = $1 and metric_id = $2', [
    ruleId,
    metricId,
    suppressed,
  ]);
}

/** Sets a rule aside on a metric, or reinstates it (`aside` = null), and records that. */
export async function saveAside(
  db: Queryable,
  { ruleId, metricId }: WatchKey,
  aside: Pick<RuleAside, 'kind' | 'until' | 'reason'> | null,
  personId: string | null,
  at: number,
): Promise<void> {
  const until = aside?.until == null ? null : moment(aside.until);
  await db.query(
    `update alarm_watch set aside = $3::text, aside_until = $4, aside_reason = $7,
            aside_at = case when $3::text is null then null else $5::timestamptz end,
            aside_by = case when $3::text is null then null else $6::bigint end
     where rule_id = $1 and metric_id = $2`,
    [ruleId, metricId, aside?.kind ?? null, until, moment(at), personId, aside?.reason ?? null],
  );
  await db.query(
    `insert into alarm_rule_event (rule_id, metric_id, at, kind, until, person_id, reason)
     values ($1, $2, $3, $4, $5, $6, $7)`,
    [ruleId, metricId, moment(at), aside?.kind ?? 'putBack', until, personId, aside?.reason ?? null],
  );
}

/** The metric on the asset of `metricId` that is of the same name and kind as `model`; null if there is none. */
export async function metricOfSameAsset(
  db: Queryable,
  metricId: string,
  model: string,
): Promise<string | null> {
  const row = await one<{ id: string }>(
    db,
    `select other.id from metric other, metric watched, metric model
     where watched.id = $1 and model.id = $2 and other.asset_id = watched.asset_id and other.kind = model.kind
       and lower(other.name) = lower(model.name) and other.removed_at is null`,
    [metricId, model],
  );
  return row?.id ?? null;
}

/** How many rules in force look for one of these in each of these metrics; those without any are left out. */
export async function rulesOnMetrics(
  db: Queryable,
  metricIds: readonly string[],
  kinds: readonly AlarmTestKind[],
): Promise<Record<string, number>> {
  const rows = await all<{ metricId: string; n: number }>(
    db,
    `select watch.metric_id as "metricId", count(*)::int as n
     from alarm_watch watch join alarm_rule rule on rule.id = watch.rule_id
     where rule.in_force and rule.stage_of is null and watch.metric_id = any($1::bigint[])
       and rule.test ->> 'kind' = any($2::text[])
     group by watch.metric_id`,
    [metricIds, kinds],
  );
  return Object.fromEntries(rows.map(({ metricId, n }) => [metricId, n]));
}
