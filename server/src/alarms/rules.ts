import { historyStart, isActive, needsModel, runWithHistory } from '@vivid-beacon/core/src/alarming';
import { readAs, readAsServer, SERVER_CALLER, type Caller } from '../db/reader';
import { calendarOf } from '../calendars/sql';
import { withTransaction, type Pool, type Queryable } from '../db/database';
import { notify } from '../live/notify';
import { enqueueAlarmNotices } from './alarmNotices';
import { metricsById, type MetricRow } from '../metrics/sql';
import { readContext } from '../readings/readContext';
import { END_OF_TIME, readSeries } from '../samples/readSeries';
import { conditionOf } from './condition';
import { newestStates } from './newestStates';
import { pastHere, type RulePast } from './rulePast';
import { saveJudged, writeJudged } from './periodSql';
import { levelsOfPeriods, seriesOfPeriods, shownOf } from './readPeriods';
import { endWatch, retireRule } from './retire';
import { addRule, lockScopedRules, metricsInScope, type RuleParts } from './rulesSql';
import { addAlarm, addEvent } from './sql';
import { suppressionAround } from './suppression';
import { watchedMetrics } from './watched';
import { addWatch, lockOrphanedWatches, lockWatchesOfRule, metricOfSameAsset } from './watchSql';

type ParsedRule = RuleParts & { readonly inForceFrom: number };

/**
 * Puts a rule in force from `inForceFrom` on. Its condition starts from the newest samples, so that a limit already
 * passed raises an alarm at once.
 *
 * @param options `replaces`: a rule that goes out of force with it. `past` reads what has been; default: here.
 * `asker`: who may see the metrics; default: the server.
 */
export async function putInForce(
  pool: Pool,
  rule: RuleParts,
  personId: string,
  inForceFrom: number,
  {
    replaces = null,
    past = pastHere(pool, inForceFrom),
    asker = SERVER_CALLER,
  }: { replaces?: string | null; past?: RulePast; asker?: Caller } = {},
): Promise<string> {
  return withTransaction(pool, async (db) => {
    if (replaces !== null) await retireRule(db, replaces, personId, inForceFrom);
    const context = readContext(readAs(db, asker), inForceFrom);
    const metrics = await watchedMetrics(context, rule);
    const shown = rule.over && (await shownOf(context, { ...rule, over: rule.over }));
    const common = { inForceFrom, createdBy: personId, shown };
    const id = await addRule(db, { ...rule, ...common, stageOf: null });
    const stages: [string, RuleParts][] = [[id, rule]];
    if (rule.caution) {
      const stage = { ...rule, ...rule.caution, level: 'caution', caution: null } as const;
      stages.push([await addRule(db, { ...stage, ...common, stageOf: id }), stage]);
    }
    for (const [ruleId, stage] of stages) {
      for (const metric of metrics) {
        await startWatch(db, past, ruleId, { ...stage, inForceFrom }, metric, inForceFrom);
      }
    }
    await notify(db, 'alarms', []);
    return id;
  });
}

/** Starts watching one metric with a rule at `from`. */
async function startWatch(
  db: Queryable,
  past: RulePast,
  ruleId: string,
  rule: ParsedRule,
  metric: MetricRow,
  from: number,
): Promise<void> {
  const { id: metricId, kind, maxGapMs, zone } = metric;
  const model = needsModel(rule.test)
    ? await past.learn({ test: rule.test, metric: { id: metricId, kind, maxGapMs, zone }, until: from })
    : null;
  const calendar = await calendarOf(db, metric.plantId);
  const context = historyStart(conditionOf(rule, metric, calendar, model), from);
  const judged =
    rule.over &&
    (await past.periods({ metricId, over: rule.over, hours: rule.hours, start: context, end: from }));
  const levelAt = judged ? levelsOfPeriods(judged.periods) : undefined;
  const condition = conditionOf(rule, metric, calendar, model, levelAt);
  const recent = judged
    ? seriesOfPeriods(judged.periods)
    : (await readSeries(db, [metricId], context, END_OF_TIME)).get(metricId)!;
  const run = runWithHistory(condition, recent, context, from, from);
  const suppressMetric = rule.suppress ? await suppressMetricOf(db, rule, metric.id) : null;
  const suppressing = { suppress: rule.suppress, suppressMetric };
  const newest = (await newestStates(db, [suppressing])).get(suppressMetric ?? '');
  const suppressed = (await suppressionAround(db, suppressing, from, from))(newest?.t ?? from);
  await addWatch(db, {
    ruleId,
    metricId: metric.id,
    condition: run.state,
    model,
    suppressMetric,
    suppressed,
  });
  if (judged) {
    const key = { ruleId, metricId };
    await writeJudged(db, key, judged.periods);
    await saveJudged(db, key, { ...judged, to: from, mark: 0 });
  }
  const last = run.changes.at(-1);
  if (!isActive(run.state) || last?.kind !== 'raise') return;
  const value = Number.isNaN(last.value) ? null : last.value;
  const id = await addAlarm(db, {
    ruleId,
    metricId: metric.id,
    state: suppressed ? 'suppressed' : 'unacknowledged',
    raisedAt: last.t,
    raisedValue: value,
    returnedAt: null,
  });
  await addEvent(db, { alarmId: id, at: last.t, kind: 'raised', value, unheard: suppressed });
  if (!suppressed) await enqueueAlarmNotices(db, id, 'breach', from, from);
  await notify(db, 'alarms', [id]);
}

/** The state that suppresses a rule on a metric: the one named, or the one of the same name on the metric's own asset. */
async function suppressMetricOf(db: Queryable, rule: ParsedRule, metricId: string): Promise<string | null> {
  if (rule.under === null) return rule.suppress!.metricId;
  return metricOfSameAsset(db, metricId, rule.suppress!.metricId);
}

/**
 * Updates the metrics that rules over a scope watch: new ones are added, removed ones dropped. @returns how
 * many watches began or ended.
 */
export async function keepScopes(
  pool: Pool,
  now: number,
  past: RulePast = pastHere(pool, now),
): Promise<number> {
  return withTransaction(pool, async (db) => {
    let changed = 0;
    for (const rule of await lockScopedRules(db)) {
      const wanted = new Set(await metricsInScope(db, { ...rule, under: rule.under! }));
      const watches = await lockWatchesOfRule(db, rule.id);
      for (const watch of watches) {
        if (wanted.delete(watch.metricId)) continue;
        await endWatch(db, watch, null, now);
        changed++;
      }
      const rows = await metricsById(readAsServer(db), [...wanted]);
      for (const metric of rows.values()) await startWatch(db, past, rule.id, rule, metric, now);
      changed += rows.size;
    }
    for (const watch of await lockOrphanedWatches(db)) {
      const rest = await lockWatchesOfRule(db, watch.ruleId);
      // It went with the rule whose Caution it was.
      if (rest.length === 0) continue;
      if (rest.length > 1) await endWatch(db, watch, null, now);
      else await retireRule(db, watch.ruleId, null, now);
      changed++;
    }
    if (changed > 0) await notify(db, 'alarms', []);
    return changed;
  });
}
