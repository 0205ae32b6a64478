import { HOUR_MS, type Level } from '@vivid-beacon/core';
import { moment, ms } from '../db/columns';
import { all, allPrepared, type Queryable } from '../db/database';
import type { WatchKey } from './sql';

/* What rules over periods keep: the values judged, the metrics these rest on, and what is to be judged next. */

/** A period with the value that is judged; null = too little data. */
export interface ValueOfPeriod {
  readonly end: number;
  readonly value: number | null;
  /** Of an indicator on its own asset. */
  readonly level: Level | null;
}

/** A period waits no longer than this for metrics that have not come to its end, ms. */
export const LONGEST_WAIT_MS = HOUR_MS;

/**
 * Watches whose next period is complete, or whose past periods have changed. A period is complete when every metric
 * in it has come to its end; one that is silent is waited for as long as its longest allowed gap.
 */
export function duePeriods(
  db: Queryable,
  now: number,
  most: number,
): Promise<(WatchKey & { readonly isComplete: boolean })[]> {
  return all(
    db,
    `select rule_id as "ruleId", metric_id as "metricId", complete as "isComplete" from (
     select watch.rule_id, watch.metric_id, watch.due_at, watch.stale_from, watch.due_at <= $1 and not exists (
       select 1 from alarm_watch_input input
       join metric on metric.id = input.input_id and metric.origin = 'samples'
       left join metric_latest newest on newest.metric_id = metric.id
       where input.rule_id = watch.rule_id and input.metric_id = watch.metric_id
         and (newest.t is null or newest.t < watch.due_at
              - case when metric.kind = 'amount' then metric.interval_ms else 0 end * interval '1 millisecond')
         and watch.due_at + least(metric.max_gap_ms, $2::bigint) * interval '1 millisecond' > $1) as complete
     from alarm_watch watch join alarm_rule rule on rule.id = watch.rule_id and rule.in_force
     where watch.due_at <= $1 or watch.stale_from is not null) due
     where complete or stale_from is not null order by due_at limit $3`,
    [moment(now), LONGEST_WAIT_MS, most],
  );
}

/** Notes that samples have come for periods that were judged already, of whatever rests on these metrics. */
export async function markPeriods(
  db: Queryable,
  changed: readonly { readonly metricId: string; readonly from: number }[],
): Promise<void> {
  await allPrepared(
    db,
    'mark_periods',
    `update alarm_watch watch set stale_from = least(watch.stale_from, new.from_at), stale_mark = stale_mark + 1
     from (
       select watch.rule_id, watch.metric_id, min(changed.from_at) as from_at
       from unnest($1::bigint[], $2::timestamptz[]) as changed (input_id, from_at)
       join alarm_watch_input input on input.input_id = changed.input_id
       join alarm_watch watch on watch.rule_id = input.rule_id and watch.metric_id = input.metric_id
       where changed.from_at < watch.judged_to
       group by watch.rule_id, watch.metric_id order by watch.rule_id, watch.metric_id
     ) new
     where watch.rule_id = new.rule_id and watch.metric_id = new.metric_id`,
    [changed.map(({ metricId }) => metricId), changed.map(({ from }) => moment(from))],
  );
}

/** The values judged that end after an instant, in order. */
export function judgedAfter(
  db: Queryable,
  { ruleId, metricId }: WatchKey,
  after: number,
): Promise<ValueOfPeriod[]> {
  return all(
    db,
    `select ${ms('ends_at', 'end')}, value, level from alarm_period
     where rule_id = $1 and metric_id = $2 and ends_at > $3 order by ends_at`,
    [ruleId, metricId, moment(after)],
  );
}

/** Keeps values as they were judged, in place of those before. */
export async function writeJudged(
  db: Queryable,
  { ruleId, metricId }: WatchKey,
  periods: readonly ValueOfPeriod[],
): Promise<void> {
  await db.query(
    `insert into alarm_period (rule_id, metric_id, ends_at, value, level)
     select $1, $2, * from unnest($3::timestamptz[], $4::float8[], $5::text[])
     on conflict (rule_id, metric_id, ends_at) do update set value = excluded.value, level = excluded.level`,
    [
      ruleId,
      metricId,
      periods.map(({ end }) => moment(end)),
      periods.map(({ value }) => value),
      periods.map(({ level }) => level as Level | null),
    ],
  );
}

/**
 * Notes up to where a watch has judged, when its next period ends, and what its values rest on.
 *
 * @param mark the mark that stood when the values were read: samples that came since leave it stale.
 */
export async function saveJudged(
  db: Queryable,
  { ruleId, metricId }: WatchKey,
  judged: {
    readonly to: number;
    readonly nextEnd: number;
    readonly inputs: readonly string[];
    readonly mark: number;
  },
): Promise<void> {
  await db.query(
    `update alarm_watch set judged_to = $3, due_at = $4, problem = null,
            stale_from = case when stale_mark = $5 then null else stale_from end
     where rule_id = $1 and metric_id = $2`,
    [ruleId, metricId, moment(judged.to), moment(judged.nextEnd), judged.mark],
  );
  await db.query(
    `delete from alarm_watch_input where rule_id = $1 and metric_id = $2 and input_id <> all($3::bigint[])`,
    [ruleId, metricId, judged.inputs],
  );
  await db.query(
    `insert into alarm_watch_input (rule_id, metric_id, input_id) select $1, $2, unnest($3::bigint[])
     on conflict do nothing`,
    [ruleId, metricId, judged.inputs],
  );
}

/** Notes why a watch cannot judge, and when to try again. */
export async function saveProblem(
  db: Queryable,
  { ruleId, metricId }: WatchKey,
  problem: string,
  again: number,
): Promise<void> {
  await db.query(
    `update alarm_watch set problem = $3, due_at = $4, stale_from = null where rule_id = $1 and metric_id = $2`,
    [ruleId, metricId, problem, moment(again)],
  );
}
