import { firstAtOrAfter, type Series } from '../series/series';
import type { Interval } from '../time/interval';
import {
  INITIAL_CONDITION,
  isActive,
  takenUpTo,
  type AlarmCondition,
  type ConditionChange,
  type ConditionState,
} from './condition';
import { openHours } from './openHours';
import { signalOf, thresholdOf, type Signal } from './signal';

export interface ConditionRun {
  readonly state: ConditionState;
  readonly changes: readonly ConditionChange[];
}

/**
 * Runs a condition over samples from a given state, and over the time that passed. Live evaluation and Rehearsal
 * both go through here.
 *
 * @param series increasing times; those up to `from.seen` are only looked back to (see recallMs). A value of NaN changes nothing.
 * @param until now, or the end of the window: time that passes without samples counts too. Default: the newest sample.
 */
export function runCondition(
  condition: AlarmCondition,
  series: Series,
  from: ConditionState = INITIAL_CONDITION,
  until = -Infinity,
): ConditionRun {
  const first = from.seen > 0 ? firstAtOrAfter(series.t, from.seen + 1) : 0;
  const signal = signalOf(condition, series, from.memory, first);
  return runSignal(condition, thresholdOf(condition.test), series, signal, from, until);
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

/**
 * The same with the signal worked out already, so that another limit can be tried on it.
 *
 * Raised at the first sample that finds the limit passed for at least the on-delay, returned likewise. It is written
 * as one loop over columns, because a rehearsal runs it over millions of samples.
 */
export function runSignal(
  condition: AlarmCondition,
  threshold: { readonly limit: number; readonly deadband: number },
  { t, v }: Series,
  { x, shown, memory }: Signal,
  from: ConditionState,
  until: number,
): ConditionRun {
  const changes: ConditionChange[] = [];
  const newest = t.length > 0 ? t[t.length - 1] : -Infinity;
  const end = Math.max(until, newest);
  const beginning = from.seen > 0 ? takenUpTo(from) : (t[0] ?? end);
  const { onDelayMs, offDelayMs, maxGapMs, test } = condition;
  const timed = test.kind === 'silence' || condition.hours !== null;
  const open = timed ? openHours(condition, Math.min(beginning, end), end) : [];
  const over = threshold.limit;
  const back = threshold.limit - threshold.deadband;
  let active = isActive(from);
  let waiting = from.phase === 'pendingOn' || from.phase === 'pendingOff';
  let { since, seen } = from;
  let last = from.last ?? NaN;
  let told = from.told ?? 0;
  let at = 0;

  const turn = (to: boolean, when: number): void => {
    active = to;
    waiting = false;
    since = when;
    changes.push({ kind: to ? 'raise' : 'return', t: when, value: last });
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
    if (test.kind === 'silence' && seen > 0 && !active) {
      const due = Math.max(seen, hours.start) + test.forMs;
      if (due < Math.min(hours.end, to)) {
        turn(true, due);
        told = due;
      }
    }
    if (hours.end > to) return;
    if (active) {
      turn(false, hours.end);
      told = hours.end;
    } else if (waiting) {
      waiting = false;
      since = hours.end;
    }
  };

  for (let i = from.seen > 0 ? firstAtOrAfter(t, from.seen + 1) : 0; i < t.length; i++) {
    if (!timed && !waiting) {
      // Most samples change nothing: on to the next that does.
      const next = active ? firstAtMost(x, back, i) : firstAbove(x, over, i);
      let k = next - 1;
      while (k >= i && Number.isNaN(v[k])) k--;
      if (k >= i) {
        seen = t[k];
        last = shown[k];
        told = 0;
      }
      i = next;
      if (i === t.length) break;
    }
    if (Number.isNaN(v[i])) continue;
    const when = t[i];
    if (timed) pass(when);
    last = shown[i];
    if (timed && !(at < open.length && open[at].start <= when)) {
      // Outside its hours nothing is found.
      if (active || waiting) since = when;
      active = false;
      waiting = false;
    } else {
      const bad = x[i];
      const wants = active ? bad <= back : bad > over;
      if (wants) {
        // A delay does not run on over a gap.
        if (!waiting || (seen > 0 && when - seen > maxGapMs)) since = when;
        if (when - since >= (active ? offDelayMs : onDelayMs)) turn(!active, when);
        else waiting = true;
      } else if (waiting && !Number.isNaN(bad)) {
        waiting = false;
        since = when;
      }
    }
    seen = when;
    told = 0;
  }
  if (timed) pass(end);
  return {
    state: {
      phase: active ? (waiting ? 'pendingOff' : 'active') : waiting ? 'pendingOn' : 'normal',
      since,
      seen,
      ...(seen > 0 && !Number.isNaN(last) ? { last } : {}),
      ...(told > seen ? { told } : {}),
      ...(memory ? { memory } : {}),
    },
    changes,
  };
}

/** First index from `from` on with x > limit; the length if there is none. */
function firstAbove(x: Float64Array, limit: number, from: number): number {
  let i = from;
  while (i < x.length && !(x[i] > limit)) i++;
  return i;
}

/** First index from `from` on with x ≤ limit; the length if there is none. */
function firstAtMost(x: Float64Array, limit: number, from: number): number {
  let i = from;
  while (i < x.length && !(x[i] <= limit)) i++;
  return i;
}
