import type { Alarm, AlarmCount, AlarmState, Interval, PageOf, RaisedAlarm } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { Conditions, findPage, SEEN_PLANT } from '../db/conditions';
import { all, one } from '../db/database';
import type { PageRange } from '../db/pages';
import type { Reader } from '../db/reader';

/* Alarms as people see them. */

// Names are looked up outside the joins, because every joined table multiplies the planning time.
const ALARMS = `
  select alarm.id, coalesce(rule.stage_of, rule.id) as "ruleId", rule.name as "ruleName", alarm.state, rule.level, rule.priority, rule.test, rule.over,
         rule.to_do as "toDo", ${ms('watch.aside_until', 'shelvedUntil')}, watch.aside_reason as "asideReason",
         metric.id as "metricId", metric.name as "metricName", coalesce(rule.value_unit, metric.unit) as unit,
         coalesce(rule.value_decimals, metric.decimals::int) as decimals, place.asset_id as "assetId", (select name from asset where asset.id = place.asset_id) as "assetName",
         place.plant_id as "plantId", place.plant_name as "plantName", place.zone,
         ${ms('alarm.raised_at', 'raisedAt')}, alarm.raised_value as "raisedValue",
         ${ms('alarm.returned_at', 'returnedAt')}, case when rule.over is null then (select v from metric_latest where metric_id = metric.id)
              else (select value from alarm_period judged where judged.rule_id = alarm.rule_id and judged.metric_id = alarm.metric_id
                      and value is not null order by ends_at desc limit 1) end as "latestValue",
         (select name from person where person.id = alarm.acknowledged_by) as "acknowledgedBy", ${ms('alarm.acknowledged_at', 'acknowledgedAt')},
         (select ${ms('max(told.at)', 'at')} from alarm_event told
          where told.alarm_id = alarm.id and told.kind = 'told' and told.at >= alarm.raised_at
            and not exists (select 1 from alarm_event again
              where again.alarm_id = alarm.id and again.kind = 'raised' and again.at > told.at)) as "escalatedAt"
  from alarm
  join alarm_rule rule on rule.id = alarm.rule_id
  left join alarm_watch watch on watch.rule_id = alarm.rule_id and watch.metric_id = alarm.metric_id
  join metric on metric.id = alarm.metric_id
  join asset_place place on place.asset_id = metric.asset_id`;

/** Filter of alarms; absent fields match everything. */
export interface AlarmFilter {
  readonly list: 'standing' | 'over';
  readonly ruleId?: string;
  readonly plantId?: string;
  /** Words that must all occur in the name of the rule or in the names of the metric from the plant down. */
  readonly words?: readonly string[];
}

const SET_ASIDE_LAST = `alarm.state in ('shelved', 'suppressed', 'outOfService')`;
/** Written out so that the database can use the index of each. */
const LISTS = {
  standing: {
    condition: `alarm.state <> 'normal'`,
    order: `${SET_ASIDE_LAST}, rule.level = 'breach' desc, alarm.raised_at desc, alarm.id desc`,
  },
  over: { condition: `alarm.state = 'normal'`, order: 'alarm.raised_at desc, alarm.id desc' },
} as const;

/** Alarms of a rule of any stage. @param rule its id in SQL. */
const stagesOf = (rule: string): string =>
  `alarm.rule_id in (select id from alarm_rule where id = ${rule}::bigint or stage_of = ${rule}::bigint)`;

/** The tables that conditions and order need, without and with words. */
const FROM = `alarm join alarm_rule rule on rule.id = alarm.rule_id join metric on metric.id = alarm.metric_id
  join asset_place place on place.asset_id = metric.asset_id`;
const NAMED = `${FROM} left join metric_title title on title.metric_id = metric.id`;

function conditionsOf(db: Reader, { list, ruleId, plantId, words = [] }: AlarmFilter): Conditions {
  return new Conditions(db)
    .plain(LISTS[list].condition)
    .and(ruleId, (at) => stagesOf(at))
    .and(plantId, (at) => `place.plant_id = ${at}::bigint`)
    .words(words, ['rule.name', 'title.search']);
}

/**
 * A page of alarms: active ones (set aside last, then most serious and newest first), or past ones, newest
 * first.
 */
export function pageOfAlarms(db: Reader, filter: AlarmFilter, page: PageRange): Promise<PageOf<Alarm>> {
  return findPage(
    db,
    {
      from: filter.words?.length ? NAMED : FROM,
      id: 'alarm.id',
      select: ALARMS,
      conditions: conditionsOf(db, filter),
      order: LISTS[filter.list].order,
    },
    page,
  );
}

/** Number of these that are set aside or suppressed. */
export async function countSetAside(db: Reader, filter: AlarmFilter): Promise<number> {
  const { where, values } = conditionsOf(db, filter).plain(SET_ASIDE_LAST);
  const row = await one<{ n: number }>(
    db,
    `select count(*)::int as n from ${filter.words?.length ? NAMED : FROM} ${where}`,
    values,
  );
  return row!.n;
}

/** Active alarms, those in these states before others, then the highest in priority, level and age. */
export function urgentAlarms(
  db: Reader,
  {
    states,
    priorities,
    most,
  }: {
    readonly states: readonly AlarmState[];
    /** The highest first. */
    readonly priorities: readonly string[];
    readonly most: number;
  },
): Promise<Alarm[]> {
  return all(
    db,
    `${ALARMS} where ${SEEN_PLANT} and ${LISTS.standing.condition}
     order by alarm.state = any($2::text[]) desc, array_position($3::text[], rule.priority),
              rule.level = 'breach' desc, alarm.raised_at, alarm.id limit $4`,
    [db.asker.sites, states, priorities, most],
  );
}

/** Number of active alarms by plant, state, level and whether the condition is met. */
export function countStanding(db: Reader): Promise<AlarmCount[]> {
  return all(
    db,
    `select place.plant_id as "plantId", alarm.state, rule.level, alarm.returned_at is null as stands, count(*)::int as n
     from alarm join alarm_rule rule on rule.id = alarm.rule_id join metric on metric.id = alarm.metric_id
     join asset_place place on place.asset_id = metric.asset_id
     where ${SEEN_PLANT} and ${LISTS.standing.condition} group by 1, 2, 3, 4 order by 1, 2, 3, 4`,
    [db.asker.sites],
  );
}

/** Alarms that notified somebody in a stretch of time (ms), including repeated raises; newest first. */
export function alarmsRaisedIn(db: Reader, plantId: string, { start, end }: Interval): Promise<Alarm[]> {
  return all(
    db,
    `${ALARMS} where ${SEEN_PLANT} and place.plant_id = $2 and alarm.id in (
       select alarm_id from alarm_event where kind = 'raised' and not unheard and at >= $3 and at < $4)
     order by alarm.raised_at desc, alarm.id`,
    [db.asker.sites, plantId, moment(start), moment(end)],
  );
}

/** When alarms of given metrics were raised in a stretch of time (ms), in order; the newest where there are very many. */
export async function raisedOnTime(
  db: Reader,
  metricIds: readonly string[],
  { start, end }: Interval,
): Promise<RaisedAlarm[]> {
  const rows = await all<RaisedAlarm>(
    db,
    `select alarm.id, alarm.metric_id as "metricId", ${ms('alarm.raised_at', 'raisedAt')} from alarm
     join metric on metric.id = alarm.metric_id join asset_place place on place.asset_id = metric.asset_id
     where ${SEEN_PLANT} and alarm.metric_id = any($2::bigint[]) and alarm.raised_at >= $3 and alarm.raised_at < $4
     order by alarm.raised_at desc limit 1000`,
    [db.asker.sites, metricIds, moment(start), moment(end)],
  );
  return rows.reverse();
}

export function findAlarm(db: Reader, id: string): Promise<Alarm | undefined> {
  return one(db, `${ALARMS} where ${SEEN_PLANT} and alarm.id = $2`, [db.asker.sites, id]);
}

/** Earlier alarms of the same rule, of any stage, on the same metric. */
export function earlierAlarms(db: Reader, alarm: Alarm, limit: number): Promise<Alarm[]> {
  return all(
    db,
    `${ALARMS} where ${SEEN_PLANT} and ${stagesOf('$2')} and alarm.metric_id = $3 and alarm.raised_at < $4
     order by alarm.raised_at desc limit $5`,
    [db.asker.sites, alarm.ruleId, alarm.metricId, moment(alarm.raisedAt), limit],
  );
}
