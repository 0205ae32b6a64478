import { amount, amountOrNull, list, shape, type TypeOf } from '../schemas/shape';
import type { Series } from '../series/series';
import { workingTime } from '../calendar/workingCalendar';
import { intervalSchema, type Interval } from '../time/interval';
import { intersectionOf, lengthOf, unionOf } from '../time/intervals';
import { DAY_MS } from '../time/lengths';
import { quantile } from '../stats/stats';
import { isFromBelow, limitOf, silentAfterMs, withLimit } from './alarmTest';
import { INITIAL_CONDITION, type AlarmCondition } from './condition';
import { runCondition, runSignal } from './runCondition';
import { readableSignal, signalOf, thresholdOf, type Signal, type Threshold } from './signal';

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
  /** Time of the window with data of any of the metrics, ms; all of it for a rule that looks for silence. */
  dataMs: amount(),
  /** Share of the time with data with at least one active alarm, 0 to 1. */
  share: amount(),
  /** Alarms raised outside the working hours of the site. */
  outsideHours: amount(),
});
export type Rehearsal = TypeOf<typeof rehearsalSchema>;

/** The same rule with other limits, all else equal. */
export const otherLimitsSchema = shape({
  /** Spread over the range of the signal; empty where the test has no single limit. */
  curve: list(rehearsedLimit),
  /**
   * The limit nearest to everyday values that fires at most once a week, as it is shown, with how often it fires;
   * null if there is none or the test has no limit.
   */
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
  const known = timeWithData(metrics, window);
  const dataMs = lengthOf(known);
  return {
    window,
    alarms,
    longestMs: stood.reduce((longest, { start, end }) => Math.max(longest, end - start), 0),
    dataMs,
    share: dataMs === 0 ? 0 : lengthOf(intersectionOf(unionOf(stood), known)) / dataMs,
    outsideHours: metrics.length === 0 ? 0 : outsideHours(metrics[0].condition, window, alarms),
  };
}

/** When any of the metrics had data: each usable sample holds until the next, at most for the longest allowed gap. */
function timeWithData(metrics: readonly RehearsedMetric[], window: Interval): Interval[] {
  return unionOf(
    metrics.flatMap(({ condition, series: { t, v } }) => {
      if (silentAfterMs(condition.test) !== null) return [window];
      const held: { start: number; end: number }[] = [];
      for (let i = 0; i < t.length; i++) {
        if (Number.isNaN(v[i])) continue;
        const end = Math.min(t[i + 1] ?? window.end, t[i] + condition.maxGapMs, window.end);
        const last = held.at(-1);
        if (last && last.end >= t[i]) last.end = end;
        else held.push({ start: t[i], end });
      }
      return held;
    }),
  );
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
 * Runs a rule with other limits over the same past: how often each would have fired, and which limit fires at
 * most once a week.
 *
 * @param decimals of the limit, so that the limit offered is one that is shown as it is.
 */
export function rehearseLimits(
  metrics: readonly RehearsedMetric[],
  window: Interval,
  decimals: number,
): OtherLimits {
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
  const tried = new Map<number, Outcome>();
  const outcomeOf = (limit: number): Outcome => {
    const known = tried.get(limit);
    if (known) return known;
    const outcome = outcomeWith(all, thresholdOf(withLimit(test, limit)), window);
    tried.set(limit, outcome);
    return outcome;
  };
  const readable = [low, high].map((each) => readableSignal(test, each));
  const from = Math.min(own, ...readable);
  const to = Math.max(own, ...readable);
  const curve = Array.from({ length: CURVE_POINTS }, (_, i) => {
    const limit = from + ((to - from) * i) / (CURVE_POINTS - 1);
    return { limit, fires: outcomeOf(limit).fires };
  });
  const search = {
    never: readable[1],
    always: readable[0],
    everyday: readableSignal(test, medianOf(all)),
    most: Math.floor((window.end - window.start) / (7 * DAY_MS)),
    rounded: roundedAway(isFromBelow(test), decimals),
    step: (isFromBelow(test) ? -1 : 1) / 10 ** decimals,
    outcomeOf,
  };
  return { curve, onceAWeek: onceAWeek(search) };
}

/** What a rule does over a window. */
interface Outcome {
  readonly fires: number;
  /** Share of the window in alarm, added up over the metrics. */
  readonly share: number;
}

function outcomeWith(all: readonly Signalled[], threshold: Threshold, window: Interval): Outcome {
  let fires = 0;
  let active = 0;
  for (const { condition, series, signal } of all) {
    const { changes } = runSignal(condition, threshold, series, signal, INITIAL_CONDITION, window.end);
    let raisedAt: number | null = null;
    for (const { kind, t } of changes) {
      if (kind === 'raise') {
        fires++;
        raisedAt = t;
      } else {
        active += t - raisedAt!;
        raisedAt = null;
      }
    }
    if (raisedAt !== null) active += window.end - raisedAt;
  }
  return { fires, share: active / (window.end - window.start) };
}

/** Most values that the median is taken of. */
const MEDIAN_OF = 10_000;

/** The median of the signals: an everyday value. */
function medianOf(all: readonly Signalled[]): number {
  const total = all.reduce((n, { signal }) => n + signal.x.length, 0);
  const every = Math.max(1, Math.floor(total / MEDIAN_OF));
  const some: number[] = [];
  for (const { signal } of all)
    for (let i = 0; i < signal.x.length; i += every) if (Number.isFinite(signal.x[i])) some.push(signal.x[i]);
  return quantile(some, 0.5);
}

/** Rounds a limit to shown decimals, away from everyday values. */
function roundedAway(fromBelow: boolean, decimals: number): (limit: number) => number {
  const scale = 10 ** decimals;
  return (limit) => {
    const nearest = Math.round(limit * scale);
    // A limit that is round already stays, whatever its last binary digit.
    const steps =
      Math.abs(nearest - limit * scale) < 1e-6
        ? nearest
        : (fromBelow ? Math.floor : Math.ceil)(limit * scale);
    return Number((steps / scale).toFixed(Math.max(0, decimals)));
  };
}

interface LimitSearch {
  /** A limit that never fires, and one that is always passed. */
  readonly never: number;
  readonly always: number;
  readonly everyday: number;
  /** Most alarms allowed. */
  readonly most: number;
  readonly rounded: (limit: number) => number;
  /** The last shown decimal, away from everyday values. */
  readonly step: number;
  readonly outcomeOf: (limit: number) => Outcome;
}

/** Limits tried between everyday values and the one found. */
const NEARER = 24;
/** A limit nearer to everyday values must not be one that stands all the time. */
const MAX_SHARE = 0.1;

/**
 * The limit nearest to everyday values that fires at most so often. With delays and deadbands a tighter limit may
 * fire less often than a looser one, so that after halving the range the limits nearer are tried too.
 */
function onceAWeek({
  never,
  always,
  everyday,
  most,
  rounded,
  step,
  outcomeOf,
}: LimitSearch): RehearsedLimit | null {
  if (most < 1) return null;
  let rare = never;
  let often = always;
  for (let i = 0; i < HALVINGS; i++) {
    const limit = (rare + often) / 2;
    if (outcomeOf(limit).fires > most) often = limit;
    else rare = limit;
  }
  let best = rounded(rare);
  if (outcomeOf(best).fires > most) best = rounded(never);
  // Halving ends just beyond the exact limit, which may be a round one.
  const before = rounded(best - step);
  if (outcomeOf(before).fires <= most) best = before;
  const { fires, share } = outcomeOf(best);
  const isBetter = (limit: number): boolean => {
    const outcome = outcomeOf(limit);
    return outcome.fires <= Math.max(fires, 1) && outcome.share <= Math.max(share, MAX_SHARE);
  };
  const between = (part: number): number => rounded(everyday + (best - everyday) * part);
  const nearer = Array.from({ length: NEARER }, (_, i) => i / NEARER).find(
    (part) => part > 0 && Math.abs(between(part) - best) > 0 && isBetter(between(part)),
  );
  if (nearer !== undefined) best = between(nearer);
  return { limit: best, fires: outcomeOf(best).fires };
}
