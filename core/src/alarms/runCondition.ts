import type { Series } from '../series/series';
import type { Interval } from '../time/interval';
import {
  INITIAL_CONDITION,
  isActive,
  stepPhase,
  takenUpTo,
  type AlarmCondition,
  type ConditionChange,
  type ConditionState,
} from './condition';
import { openHours } from './openHours';
import { makeSignal, recallMs, thresholdOf, type Signal } from './signal';

export interface ConditionRun {
  readonly state: ConditionState;
  readonly changes: readonly ConditionChange[];
}

/**
 * Runs a condition over samples from a given state, and over the time that passed. Live evaluation and Rehearsal
 * both go through here.
 *
 * @param series increasing times; those up to `from.seen` are only looked back to (see recallMs).
 * @param until now, or the end of the window: time that passes without samples counts too. Default: the newest sample.
 */
export function runCondition(
  condition: AlarmCondition,
  series: Series,
  from: ConditionState = INITIAL_CONDITION,
  until = -Infinity,
): ConditionRun {
  const signal = makeSignal(condition, from.memory);
  const { seen } = from;
  const looksBack = recallMs(condition) > 0;
  const signalAt = (i: number): number | typeof SKIP => {
    const old = seen > 0 && series.t[i] <= seen;
    if (old && !looksBack) return SKIP;
    const x = signal.see(series.t[i], series.v[i]);
    return old ? SKIP : x;
  };
  return runSignal(condition, thresholdOf(condition.test), series, from, until, signalAt, signal);
}

/**
 * Runs a condition over a series that begins at its context (see contextStart), as for a rule in force from
 * `inForceFrom` on: what was over by then is not its, what stood then is.
 */
export function runFromContext(
  condition: AlarmCondition,
  series: Series,
  context: number,
  inForceFrom: number,
  until: number,
): ConditionRun {
  // Of silence nothing is known before: it counts from here.
  const start: ConditionState = { phase: 'normal', since: 0, seen: context - 1 };
  const { state, changes } = runCondition(condition, series, start, until);
  let first = changes.findIndex(({ t }) => t > inForceFrom);
  if (first < 0) first = changes.length;
  if (first > 0 && changes[first - 1].kind === 'raise') first--;
  return { state, changes: changes.slice(first) };
}

/** A sample that has been taken in before. */
const SKIP = null;

/** The same with the signal of every sample given by `signalAt`; `signal` tells the shown value and what to remember. */
export function runSignal(
  condition: AlarmCondition,
  threshold: { readonly limit: number; readonly deadband: number },
  { t, v }: Series,
  from: ConditionState,
  until: number,
  signalAt: (i: number) => number | typeof SKIP,
  signal: Pick<Signal, 'shown' | 'memory'>,
): ConditionRun {
  const changes: ConditionChange[] = [];
  const newest = t.length > 0 ? t[t.length - 1] : -Infinity;
  const end = Math.max(until, newest);
  const beginning = from.seen > 0 ? takenUpTo(from) : (t[0] ?? end);
  const timed = condition.test.kind === 'silence' || condition.hours !== null;
  const open = timed ? openHours(condition, Math.min(beginning, end), end) : [];
  let { phase, since, seen } = from;
  let last = from.last ?? NaN;
  let told = from.told ?? 0;
  let at = 0;

  const change = (kind: 'raise' | 'return', when: number): void => {
    phase = kind === 'raise' ? 'active' : 'normal';
    since = when;
    told = when;
    changes.push({ kind, t: when, value: signal.shown(last) });
  };
  /** What time alone does up to `to`: silence is found, the hours end. */
  const pass = (to: number): void => {
    while (at < open.length && open[at].start < to) {
      if (open[at].end > Math.max(seen, told)) inHours(open[at], to);
      if (open[at].end > to) return;
      at++;
    }
  };
  const inHours = (hours: Interval, to: number): void => {
    const { test } = condition;
    if (test.kind === 'silence' && seen > 0 && !isActive({ phase })) {
      const due = Math.max(seen, hours.start) + test.forMs;
      if (due < Math.min(hours.end, to)) change('raise', due);
    }
    if (hours.end > to) return;
    if (isActive({ phase })) change('return', hours.end);
    else if (phase === 'pendingOn') {
      phase = 'normal';
      since = hours.end;
    }
  };

  for (let i = 0; i < t.length; i++) {
    if (Number.isNaN(v[i])) continue;
    const x = signalAt(i);
    if (x === SKIP) continue;
    if (timed) pass(t[i]);
    const gap = seen > 0 && t[i] - seen > condition.maxGapMs;
    last = v[i];
    const watching = !timed || (at < open.length && open[at].start <= t[i]);
    if (watching) {
      const step = stepPhase({ phase, since }, condition, threshold, t[i], x, gap);
      ({ phase, since } = step);
      if (step.change) changes.push({ kind: step.change, t: t[i], value: signal.shown(v[i]) });
    } else if (phase !== 'normal') {
      phase = 'normal';
      since = t[i];
    }
    seen = t[i];
    told = 0;
  }
  if (timed) pass(end);
  const memory = signal.memory();
  return {
    state: {
      phase,
      since,
      seen,
      ...(seen > 0 && !Number.isNaN(last) ? { last } : {}),
      ...(told > seen ? { told } : {}),
      ...(memory ? { memory } : {}),
    },
    changes,
  };
}
