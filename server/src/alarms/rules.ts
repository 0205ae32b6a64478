import {
  DAY_MS,
  INITIAL_CONDITION,
  rehearse,
  runCondition,
  type AlarmRule,
  type Rehearsal,
} from '@vivid-beacon/core';
import { withTransaction, type Pool, type Queryable } from '../db/database';
import { notify } from '../live/notify';
import { needMetrics } from '../metrics/metrics';
import { readSeries } from '../samples/readSeries';
import { conditionOf } from './evaluate';
import { retireRule } from './retire';
import { addAlarm, addEvent, addRule } from './sql';

export type RuleDraft = Omit<AlarmRule, 'id' | 'inForce' | 'inForceFrom' | 'aside' | 'latching'> & {
  readonly latching?: boolean;
};

const CURVE_POINTS = 25;

/** A rehearsal, with the range of values it ran over (null without samples). */
export interface RehearsalAnswer extends Rehearsal {
  readonly samples: number;
  readonly range: readonly [number, number] | null;
}

/** Runs a draft on the last `days` of samples, and a curve of other limits beside it. */
export async function rehearseRule(
  db: Queryable,
  draft: RuleDraft,
  days: number,
  now: number,
): Promise<RehearsalAnswer> {
  const metric = (await needMetrics(db, [draft.metricId])).get(draft.metricId)!;
  const window = { start: now - days * DAY_MS, end: now };
  const series = (await readSeries(db, [metric.id], window.start, window.end)).get(metric.id)!;
  const condition = conditionOf(draft, metric.maxGapMs);
  if (series.t.length === 0) return { ...rehearse(condition, series, window), samples: 0, range: null };
  const low = series.v.reduce((a, b) => Math.min(a, b));
  const high = series.v.reduce((a, b) => Math.max(a, b));
  const from = Math.min(draft.limit, low);
  const to = Math.max(draft.limit, high);
  const limits = Array.from(
    { length: CURVE_POINTS },
    (_, i) => from + ((to - from) * i) / (CURVE_POINTS - 1),
  );
  return { ...rehearse(condition, series, window, limits), samples: series.t.length, range: [low, high] };
}

/**
 * Puts a rule in force from `inForceFrom` on. Its condition starts from the newest sample, so that a
 * limit already passed raises an alarm at once.
 *
 * @param replaces a rule that goes out of force with it; null = none.
 */
export async function putInForce(
  pool: Pool,
  draft: RuleDraft,
  personId: string,
  inForceFrom: number,
  replaces: string | null = null,
): Promise<string> {
  return withTransaction(pool, async (db) => {
    if (replaces !== null) await retireRule(db, replaces, personId, inForceFrom);
    const metric = (await needMetrics(db, [draft.metricId])).get(draft.metricId)!;
    // Far enough back for the delay to have run; what was over before then is not this rule's.
    const from = inForceFrom - Math.max(draft.onDelayMs, metric.maxGapMs) * 2;
    const past = (await readSeries(db, [metric.id], from, inForceFrom + 1)).get(metric.id)!;
    const run = runCondition(conditionOf(draft, metric.maxGapMs), past, INITIAL_CONDITION);
    const ruleId = await addRule(db, {
      ...draft,
      latching: draft.latching ?? false,
      inForceFrom,
      createdBy: personId,
      condition: run.state,
    });
    const last = run.changes.at(-1);
    if (last?.kind === 'raise') {
      const id = await addAlarm(db, {
        ruleId,
        state: 'unacknowledged',
        raisedAt: last.t,
        raisedValue: last.value,
        returnedAt: null,
      });
      await addEvent(db, { alarmId: id, at: last.t, kind: 'raised', value: last.value });
      await notify(db, 'alarms', [id]);
    }
    return ruleId;
  });
}
