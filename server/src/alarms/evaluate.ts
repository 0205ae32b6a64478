import {
  isActive,
  nextAlarmState,
  runCondition,
  type AlarmCondition,
  type ConditionChange,
} from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { notify } from '../live/notify';
import { metricsById } from '../metrics/sql';
import { readSeries } from '../samples/readSeries';
import type { MergeResult } from '../samples/store';
import {
  addAlarm,
  addEvent,
  alarmsOfRule,
  lockRulesOf,
  lockStandingAlarm,
  saveAlarmProcess,
  saveCondition,
  type RuleRow,
} from './sql';

/** Later than any sample, in ms. */
const END_OF_TIME = 9e12;

/** The condition of a rule, as core takes it. */
export function conditionOf(
  rule: Pick<RuleRow, 'side' | 'limit' | 'deadband' | 'onDelayMs' | 'offDelayMs'>,
  maxGapMs: number,
): AlarmCondition {
  const { side, limit, deadband, onDelayMs, offDelayMs } = rule;
  return { side, limit, deadband, onDelayMs, offDelayMs, maxGapMs };
}

/**
 * Evaluates the rules of metrics whose samples changed, in the transaction that changed them.
 *
 * New samples go on from where a rule's condition stood. When a sample came late or was corrected, the
 * condition is run again over everything since the rule came into force, so that it stands as if all had
 * come once and in order; what people saw and did stays in the history.
 */
export async function evaluateAlarms(db: Queryable, results: readonly MergeResult[]): Promise<void> {
  const changed = results.filter((result) => result.changedFrom !== null);
  if (changed.length === 0) return;
  const rules = await lockRulesOf(
    db,
    changed.map(({ metricId }) => metricId),
  );
  if (rules.length === 0) return;
  const metrics = await metricsById(
    db,
    rules.map((rule) => rule.metricId),
  );
  const touched: string[] = [];
  for (const rule of rules) {
    const condition = conditionOf(rule, metrics.get(rule.metricId)!.maxGapMs);
    const from = changed.find(({ metricId }) => metricId === rule.metricId)!.changedFrom!;
    const late = from <= rule.condition.seen;
    touched.push(
      ...(late ? await evaluateAgain(db, rule, condition) : await evaluateOn(db, rule, condition)),
    );
  }
  if (touched.length > 0) await notify(db, 'alarms', [...new Set(touched)]);
}

async function evaluateOn(db: Queryable, rule: RuleRow, condition: AlarmCondition): Promise<string[]> {
  const after = Math.max(rule.condition.seen + 1, rule.inForceFrom);
  const fresh = (await readSeries(db, [rule.metricId], after, END_OF_TIME)).get(rule.metricId)!;
  const { state, changes } = runCondition(condition, fresh, rule.condition);
  const touched: string[] = [];
  for (const change of changes) touched.push(...(await applyChange(db, rule, change)));
  await saveCondition(db, rule.id, state);
  return touched;
}

async function applyChange(db: Queryable, rule: RuleRow, change: ConditionChange): Promise<string[]> {
  const standing = await lockStandingAlarm(db, rule.id);
  if (change.kind === 'raise') {
    const id =
      standing?.id ??
      (await addAlarm(db, {
        ruleId: rule.id,
        // Of a rule that is set aside it is recorded, and nobody is called.
        state: rule.aside?.kind ?? 'unacknowledged',
        raisedAt: change.t,
        raisedValue: change.value,
        returnedAt: null,
      }));
    if (standing) await saveAlarmProcess(db, id, nextAlarmState(standing.state, 'raise'), null);
    await addEvent(db, { alarmId: id, at: change.t, kind: 'raised', value: change.value });
    return [id];
  }
  if (!standing) return [];
  const circumstances = { latching: rule.latching, active: false };
  await saveAlarmProcess(db, standing.id, nextAlarmState(standing.state, 'return', circumstances), change.t);
  await addEvent(db, { alarmId: standing.id, at: change.t, kind: 'returned', value: change.value });
  return [standing.id];
}

/** Runs a rule afresh over all samples since it came into force and brings its alarms in line. */
async function evaluateAgain(db: Queryable, rule: RuleRow, condition: AlarmCondition): Promise<string[]> {
  const all = await readSeries(db, [rule.metricId], rule.inForceFrom, END_OF_TIME);
  const { state, changes } = runCondition(condition, all.get(rule.metricId)!);
  const touched: string[] = [];

  const recorded = await alarmsOfRule(db, rule.id, rule.inForceFrom);
  for (const episode of finishedEpisodes(changes)) {
    const known = recorded.some(
      (alarm) => alarm.raisedAt <= episode.end.t && (alarm.returnedAt ?? Infinity) >= episode.start.t,
    );
    if (!known) touched.push(await recordFoundEpisode(db, rule, episode));
  }

  const standing = await lockStandingAlarm(db, rule.id);
  const stood = standing !== undefined && standing.returnedAt === null;
  const stands = isActive(state);
  if (stood !== stands) {
    const kind = stands ? 'raise' : 'return';
    // The alarm that stood may never have been raised in the corrected data: then it returns where it began.
    const change = changes.findLast((each) => each.kind === kind) ?? {
      kind,
      t: standing?.raisedAt ?? state.seen,
      value: all.get(rule.metricId)!.v.at(-1) ?? 0,
    };
    const t = stands ? change.t : Math.max(change.t, standing!.raisedAt);
    const ids = await applyChange(db, rule, { ...change, t });
    for (const alarmId of ids) {
      await addEvent(db, {
        alarmId,
        at: t,
        kind: 'recalculated',
        remark: 'Late or corrected samples changed this alarm.',
      });
    }
    touched.push(...ids);
  }
  await saveCondition(db, rule.id, state);
  return touched;
}

interface Episode {
  readonly start: ConditionChange;
  readonly end: ConditionChange;
}

function finishedEpisodes(changes: readonly ConditionChange[]): Episode[] {
  const episodes: Episode[] = [];
  for (let i = 0; i + 1 < changes.length; i += 2) episodes.push({ start: changes[i], end: changes[i + 1] });
  return episodes;
}

/** An alarm that only late samples show: it is over, and no person has seen it. */
async function recordFoundEpisode(db: Queryable, rule: RuleRow, { start, end }: Episode): Promise<string> {
  const standing = await lockStandingAlarm(db, rule.id);
  const id = await addAlarm(db, {
    ruleId: rule.id,
    state: standing || rule.aside ? 'normal' : 'returnedUnacknowledged',
    raisedAt: start.t,
    raisedValue: start.value,
    returnedAt: end.t,
  });
  await addEvent(db, { alarmId: id, at: start.t, kind: 'raised', value: start.value });
  await addEvent(db, { alarmId: id, at: end.t, kind: 'returned', value: end.value });
  await addEvent(db, {
    alarmId: id,
    at: end.t,
    kind: 'recalculated',
    remark: 'Found in samples that came late.',
  });
  return id;
}
