import { firstAtOrAfter, type Series } from '../series/series';
import { slackOf } from '../stats/decimal';
import type { Interval } from '../time/interval';
import { silentAfterMs } from './alarmTest';
import {
  INITIAL_CONDITION,
  isActive,
  takenUpTo,
  type AlarmCondition,
  type ConditionChange,
  type ConditionState,
} from './condition';
import { openHours } from './openHours';
import { signalOf, thresholdOf, type Signal, type Threshold } from './signal';

export interface ConditionRun {
  readonly state: ConditionState;
  readonly changes: readonly ConditionChange[];
}

/**
 * Runs a condition over samples and elapsed time, beginning in a given state. Live evaluation and Rehearsal
 * both use it.
 *
 * @param series increasing times; samples up to `from.seen` serve as history only (see lookBackMs). NaN
 * values change nothing.
 * @param until now, or the end of the window; time without samples counts too. Default: the newest sample.
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
 * Runs a condition over a series that includes its history (see historyStart), for a rule in force from
 * `inForceFrom` on: alarms that had ended by then are dropped, an active one is kept.
 */
export function runWithHistory(
  condition: AlarmCondition,
  series: Series,
  context: number,
  inForceFrom: number,
  until: number,
): ConditionRun {
  // Silence is counted from here, because nothing is known about the time before.
  const start: ConditionState = { phase: 'normal', since: 0, seen: context - 1 };
  const { state, changes } = runCondition(condition, series, start, until);
  let first = changes.findIndex(({ t }) => t > inForceFrom);
  if (first < 0) first = changes.length;
  if (first > 0 && changes[first - 1].kind === 'raise') first--;
  return { state, changes: changes.slice(first) };
}

/**
 * The same with a precomputed signal, so that another limit can be tried on it.
 *
 * Raised at the first sample that finds the limit passed for at least the on-delay, returned likewise. One
 * loop over columns, because a rehearsal runs it over millions of samples.
 */
export function runSignal(
  condition: AlarmCondition,
  threshold: Threshold,
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
  const silentAfter = silentAfterMs(test);
  const timed = silentAfter !== null || condition.hours !== null;
  const open = timed ? openHours(condition, Math.min(beginning, end), end) : [];
  // Values equal to a limit in decimals are on it.
  const slack = slackOf(threshold.limit, threshold.deadband);
  const over = threshold.includesLimit
    ? threshold.limit - Math.max(slack, Number.MIN_VALUE)
    : threshold.limit + slack;
  const back =
    threshold.includesLimit && threshold.deadband === 0 ? over : threshold.limit - threshold.deadband + slack;
  let active = isActive(from);
  let waiting = from.phase === 'pendingOn' || from.phase === 'pendingOff';
  let { since, seen } = from;
  let last = from.last ?? NaN;
  let told = from.told ?? 0;
  let held = from.held ?? NaN;
  let at = 0;

  const turn = (to: boolean, when: number): void => {
    active = to;
    waiting = false;
    since = when;
    changes.push({ kind: to ? 'raise' : 'return', t: when, value: last });
  };
  /** Whether hours begin between two samples while the value of the earlier one holds on the bad side. */
  const opensOnBad = ({ start }: Interval): boolean =>
    silentAfter === null &&
    !active &&
    !waiting &&
    held > over &&
    start > Math.max(seen, told) &&
    start - seen <= maxGapMs;
  /** Applies what time alone changes up to `to`: silence, and hours that open and end. */
  const pass = (to: number): void => {
    while (at < open.length && open[at].start < to) {
      if (open[at].end > Math.max(seen, told)) inHours(open[at], to);
      if (open[at].end > to) return;
      at++;
    }
  };
  const inHours = (hours: Interval, to: number): void => {
    if (opensOnBad(hours)) {
      told = hours.start;
      since = hours.start;
      if (onDelayMs === 0) turn(true, hours.start);
      else waiting = true;
    }
    if (silentAfter !== null && seen > 0 && !active) {
      const due = Math.max(seen, hours.start) + silentAfter;
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
      // Most samples change nothing, so skip to the next that does.
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
    if (!Number.isNaN(x[i])) held = x[i];
    if (timed && !(at < open.length && open[at].start <= when)) {
      // Outside the hours the test cannot trip.
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
  const calm = !active && !waiting;
  const wakeAt = (): number | null => {
    if (calm && silentAfter !== null) return seen > 0 ? seen + silentAfter : null;
    if (condition.hours === null) return null;
    // The hours may end at any time.
    if (!calm) return 0;
    if (!(held > over) || seen <= 0) return null;
    const next = openHours(condition, seen, seen + maxGapMs).find(
      ({ start }) => start > Math.max(seen, told),
    );
    return next && next.start - seen <= maxGapMs ? next.start : null;
  };
  const wake = wakeAt();
  return {
    state: {
      phase: active ? (waiting ? 'pendingOff' : 'active') : waiting ? 'pendingOn' : 'normal',
      since,
      seen,
      ...(seen > 0 && !Number.isNaN(last) ? { last } : {}),
      ...(told > seen ? { told } : {}),
      ...(wake === null ? {} : { wakeAt: wake }),
      ...(condition.hours !== null && !Number.isNaN(held) ? { held } : {}),
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
