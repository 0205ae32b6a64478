import { amount, amountOrNull, list, shape, type TypeOf } from '../schemas/shape';
import type { Series } from '../series/series';
import { workingTime } from '../calendar/workingCalendar';
import { intervalSchema, type Interval } from '../time/interval';
import { lengthOf, unionOf } from '../time/intervals';
import { DAY_MS } from '../time/lengths';
import { limitOf, withLimit } from './alarmTest';
import { INITIAL_CONDITION, type AlarmCondition } from './condition';
import { runCondition, runSignal } from './runCondition';
import { readableSignal, signalOf, thresholdOf, type Signal } from './signal';

const rehearsedAlarm = shape({ start: amount(), end: amountOrNull() });
/** An alarm the rule would have raised. `end` is null if it had not returned by the end of the window. */
export type RehearsedAlarm = TypeOf<typeof rehearsedAlarm>;

const rehearsedLimit = shape({ limit: amount(), fires: amount() });
/** A limit with the number of times the rule would have fired, all else equal. */
export type RehearsedLimit = TypeOf<typeof rehearsedLimit>;

export const rehearsalSchema = shape({
  window: intervalSchema,
  alarms: list(rehearsedAlarm),
  /** Longest time it would have been active, ms. */
  longestMs: amount(),
  /** Share of the window with at least one active alarm, 0 to 1. */
  share: amount(),
  /** Alarms raised outside the working hours of the site. */
  outsideHours: amount(),
});
export type Rehearsal = TypeOf<typeof rehearsalSchema>;

/** The same rule with other limits, all else equal. */
export const otherLimitsSchema = shape({
  /** Spread over the range of the signal; empty where the test has no single limit. */
  curve: list(rehearsedLimit),
  /** The tightest limit that fires at most once a week; null if there is none or the test has no limit. */
  onceAWeek: rehearsedLimit.nullable(),
});
export type OtherLimits = TypeOf<typeof otherLimitsSchema>;

const CURVE_POINTS = 25;
/** Bisection steps of the search for a limit: precise to a millionth of the range. */
const HALVINGS = 20;

/** One watched metric with its past samples. */
export interface RehearsedMetric {
  readonly condition: AlarmCondition;
  readonly series: Series;
}

/**
 * Runs an alarm rule on past samples with the same code as live evaluation.
 *
 * @param metrics one per watched metric, all with the same test.
 */
export function rehearse(metrics: readonly RehearsedMetric[], window: Interval): Rehearsal {
  const alarms = metrics.flatMap((metric) => alarmsOf(metric, window)).sort((a, b) => a.start - b.start);
  const stood = alarms.map(({ start, end }) => ({ start, end: end ?? window.end }));
  return {
    window,
    alarms,
    longestMs: stood.reduce((longest, { start, end }) => Math.max(longest, end - start), 0),
    share: lengthOf(unionOf(stood)) / (window.end - window.start),
    outsideHours: metrics.length === 0 ? 0 : outsideHours(metrics[0].condition, window, alarms),
  };
}

function alarmsOf({ condition, series }: RehearsedMetric, window: Interval): RehearsedAlarm[] {
  const alarms: { start: number; end: number | null }[] = [];
  for (const change of runCondition(condition, series, INITIAL_CONDITION, window.end).changes) {
    if (change.kind === 'raise') alarms.push({ start: change.t, end: null });
    else alarms[alarms.length - 1].end = change.t;
  }
  return alarms;
}

function outsideHours(
  { site }: AlarmCondition,
  window: Interval,
  alarms: readonly { start: number }[],
): number {
  const working = workingTime(site.calendar, window, site.zone);
  let at = 0;
  let inside = 0;
  for (const { start } of alarms) {
    while (at < working.length && working[at].end <= start) at++;
    if (at < working.length && working[at].start <= start) inside++;
  }
  return alarms.length - inside;
}

/** A metric with its signal computed once; for another limit only the delays are run again. */
interface Signalled extends RehearsedMetric {
  readonly signal: Signal;
}

function rangeOf(metrics: readonly Signalled[]): { low: number; high: number } {
  let low = Infinity;
  let high = -Infinity;
  for (const {
    signal: { x },
  } of metrics) {
    for (const each of x) {
      if (!Number.isFinite(each)) continue;
      if (each < low) low = each;
      if (each > high) high = each;
    }
  }
  return { low, high };
}

/**
 * Runs a rule with other limits over the same past: how often each would have fired, and which limit fires
 * about once a week.
 */
export function rehearseLimits(metrics: readonly RehearsedMetric[], window: Interval): OtherLimits {
  const nothing = { curve: [], onceAWeek: null };
  const test = metrics[0]?.condition.test;
  const own = test ? limitOf(test) : null;
  if (own === null) return nothing;
  const all = metrics.map(({ condition, series }) => ({
    condition,
    series,
    signal: signalOf(condition, series, undefined, 0),
  }));
  const { low, high } = rangeOf(all);
  if (low > high) return nothing;
  const fires = (limit: number): number => {
    const threshold = thresholdOf(withLimit(test, limit));
    let count = 0;
    for (const { condition, series, signal } of all) {
      const { changes } = runSignal(condition, threshold, series, signal, INITIAL_CONDITION, window.end);
      count += changes.filter(({ kind }) => kind === 'raise').length;
    }
    return count;
  };
  const readable = [low, high].map((each) => readableSignal(test, each));
  const from = Math.min(own, ...readable);
  const to = Math.max(own, ...readable);
  const curve = Array.from({ length: CURVE_POINTS }, (_, i) => {
    const limit = from + ((to - from) * i) / (CURVE_POINTS - 1);
    return { limit, fires: fires(limit) };
  });
  return { curve, onceAWeek: onceAWeek(readable[1], readable[0], window, fires) };
}

/** Bisects between a limit that never fires (`never`) and one that always does (`always`). */
function onceAWeek(
  never: number,
  always: number,
  window: Interval,
  fires: (limit: number) => number,
): RehearsedLimit | null {
  const most = Math.floor((window.end - window.start) / (7 * DAY_MS));
  if (most < 1) return null;
  let best = { limit: never, fires: fires(never) };
  let rare = never;
  let often = always;
  for (let i = 0; i < HALVINGS; i++) {
    const limit = (rare + often) / 2;
    const count = fires(limit);
    if (count > most) often = limit;
    else {
      rare = limit;
      best = { limit, fires: count };
    }
  }
  return best;
}
