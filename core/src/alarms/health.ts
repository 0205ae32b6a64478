import { amount, amountOrNull, list, oneOf, shape, text, type TypeOf, named } from '../schemas/shape';
import { quantile } from '../stats/stats';
import { DAY_MS, MINUTE_MS } from '../time/lengths';
import { VALUE_LEVELS } from '../bands/targetBand';
import { intervalSchema, type Interval } from '../time/interval';
import type { AlarmPriority } from './priorities';

/** One time an alarm was raised. Times in ms. */
export interface Annunciation {
  readonly ruleId: string;
  readonly priority: AlarmPriority;
  readonly raisedAt: number;
  /** null while it is active. */
  readonly returnedAt: number | null;
  readonly acknowledgedAt: number | null;
}

const ruleShare = shape({
  ruleId: text(),
  count: amount(),
  /** Share of all alarms, 0 to 1. */
  share: amount(),
});
/** Alarms of one rule among all, for the list of the most frequent. */
export type RuleShare = TypeOf<typeof ruleShare>;

export const alarmHealthSchema = named(
  'AlarmHealth',
  shape({
    window: intervalSchema,
    operators: amount(),
    count: amount(),
    /** Alarms per operator, averaged over the window. */
    perTenMinutes: amount(),
    perDay: amount(),
    /** Most alarms per operator in ten minutes that begin on a whole ten minutes, and when. */
    peak: shape({ count: amount(), at: amountOrNull() }),
    /** Share of the ten-minute periods with more than ten alarms per operator, 0 to 1. */
    busyShare: amount(),
    floods: list(intervalSchema),
    /** Share of the window spent in flood, 0 to 1. */
    floodShare: amount(),
    /** Rules that came three times or more within a minute. */
    chattering: list(text()),
    /** Alarms that returned within a minute without being acknowledged. */
    fleeting: amount(),
    /** Alarms that had been active for more than a day at the end of the window. */
    stale: amount(),
    /** At most ten, most frequent first. */
    topTen: list(ruleShare),
    topTenShare: amount(),
    /** Share of the alarms of each priority, 0 to 1; all 0 without alarms. */
    byPriority: shape({ high: amount(), medium: amount(), low: amount() }),
    /** From raised to acknowledged, ms; null = none acknowledged. */
    toAcknowledge: shape({ median: amount(), p95: amount() }).nullable(),
    /** Alarms that were never acknowledged, active or not. */
    neverAcknowledged: amount(),
  }),
);
export type AlarmHealth = TypeOf<typeof alarmHealthSchema>;

const TEN_MINUTES = 10 * MINUTE_MS;
const FLOOD_BEGINS = 10;
const FLOOD_ENDS = 5;
const CHATTER = 3;
const FLEETING_MS = MINUTE_MS;
const STALE_MS = DAY_MS;
const TOP = 10;

/**
 * The load that the alarms of a stretch of time put on operators.
 *
 * Rates per operator and ten minutes, floods (begin with more than 10 alarms per operator in ten minutes, end
 * with fewer than 5), chattering, fleeting and stale alarms, most frequent alarms: after the performance
 * metrics of ANSI/ISA-18.2-2016, clause 16, and EEMUA 191 (both from memory). That a chattering alarm comes
 * three times within a minute, a fleeting one returns within a minute, and a stale one stands for more than a day:
 * common practice, no source.
 *
 * @param alarms raised inside the window, in any order. @param operators people who answer alarms at the same
 * time.
 * @throws {RangeError} for an empty window or fewer than one operator.
 */
export function alarmHealth(
  alarms: readonly Annunciation[],
  window: Interval,
  operators: number,
): AlarmHealth {
  const length = window.end - window.start;
  if (!(length > 0)) throw new RangeError('alarmHealth: the window must end after it starts');
  if (!(operators >= 1)) throw new RangeError('alarmHealth: there must be at least one operator');
  const raised = alarms.map(({ raisedAt }) => raisedAt).sort((a, b) => a - b);
  const periods = countPeriods(raised, window).map((count) => count / operators);
  const peakAt = periods.indexOf(Math.max(0, ...periods));
  const peak = periods[peakAt] ?? 0;
  const floods = floodsOf(periods, window);
  const inFlood = floods.reduce((sum, { start, end }) => sum + end - start, 0);
  const shares = ruleShares(alarms);
  const topTen = shares.slice(0, TOP);
  const waits = alarms
    .filter(({ acknowledgedAt }) => acknowledgedAt !== null)
    .map(({ raisedAt, acknowledgedAt }) => Math.max(0, acknowledgedAt! - raisedAt));
  const perMs = alarms.length / operators / length;
  return {
    window,
    operators,
    count: alarms.length,
    perTenMinutes: perMs * TEN_MINUTES,
    perDay: perMs * DAY_MS,
    peak: { count: peak, at: peak > 0 ? window.start + peakAt * TEN_MINUTES : null },
    busyShare: periods.filter((count) => count > FLOOD_BEGINS).length / periods.length,
    floods,
    floodShare: inFlood / length,
    chattering: chatteringRules(alarms),
    fleeting: alarms.filter(isFleeting).length,
    stale: alarms.filter(
      ({ raisedAt, returnedAt }) =>
        raisedAt < window.end - STALE_MS && (returnedAt === null || returnedAt > window.end),
    ).length,
    topTen,
    topTenShare: topTen.reduce((sum, { share }) => sum + share, 0),
    byPriority: priorityShares(alarms),
    toAcknowledge: waits.length > 0 ? { median: quantile(waits, 0.5), p95: quantile(waits, 0.95) } : null,
    neverAcknowledged: alarms.length - waits.length,
  };
}

function priorityShares(alarms: readonly Annunciation[]): Record<AlarmPriority, number> {
  const share = (wanted: AlarmPriority): number =>
    alarms.length === 0 ? 0 : alarms.filter(({ priority }) => priority === wanted).length / alarms.length;
  return { high: share('high'), medium: share('medium'), low: share('low') };
}

function countPeriods(raised: readonly number[], { start, end }: Interval): number[] {
  const counts = new Array<number>(Math.ceil((end - start) / TEN_MINUTES)).fill(0);
  for (const t of raised) if (t >= start && t < end) counts[Math.floor((t - start) / TEN_MINUTES)]++;
  return counts;
}

function floodsOf(periods: readonly number[], { start, end }: Interval): Interval[] {
  const floods: Interval[] = [];
  let began: number | null = null;
  periods.forEach((count, i) => {
    if (began === null && count > FLOOD_BEGINS) began = i;
    else if (began !== null && count < FLOOD_ENDS) {
      floods.push({ start: start + began * TEN_MINUTES, end: start + i * TEN_MINUTES });
      began = null;
    }
  });
  if (began !== null) floods.push({ start: start + began * TEN_MINUTES, end });
  return floods;
}

function ruleShares(alarms: readonly Annunciation[]): RuleShare[] {
  const counts = new Map<string, number>();
  for (const { ruleId } of alarms) counts.set(ruleId, (counts.get(ruleId) ?? 0) + 1);
  return [...counts]
    .map(([ruleId, count]) => ({ ruleId, count, share: count / alarms.length }))
    .sort((a, b) => b.count - a.count || Number(a.ruleId) - Number(b.ruleId));
}

function chatteringRules(alarms: readonly Annunciation[]): string[] {
  const times = new Map<string, number[]>();
  for (const { ruleId, raisedAt } of alarms) {
    const known = times.get(ruleId);
    if (known) known.push(raisedAt);
    else times.set(ruleId, [raisedAt]);
  }
  return [...times]
    .filter(([, each]) => {
      const sorted = each.sort((a, b) => a - b);
      return sorted.some((t, i) => i >= CHATTER - 1 && t - sorted[i - CHATTER + 1] <= MINUTE_MS);
    })
    .map(([ruleId]) => ruleId);
}

function isFleeting({ raisedAt, returnedAt, acknowledgedAt }: Annunciation): boolean {
  return (
    returnedAt !== null &&
    returnedAt - raisedAt <= FLEETING_MS &&
    (acknowledgedAt === null || acknowledgedAt > returnedAt)
  );
}

const HEALTH_FIGURES = [
  'perDay',
  'perTenMinutes',
  'peak',
  'busyShare',
  'floodShare',
  'topTenShare',
  'chattering',
  'stale',
  'highShare',
  'mediumShare',
] as const;

/** A figure of alarm health against its published guideline. */
export const healthCheckSchema = shape({
  key: oneOf(HEALTH_FIGURES),
  value: amount(),
  /** Up to `good` is as recommended, up to `most` is manageable. In the unit of the value. */
  good: amount(),
  most: amount(),
  level: oneOf(VALUE_LEVELS),
});
export type HealthCheck = TypeOf<typeof healthCheckSchema>;

/**
 * What is acceptable: about 150 alarms a day and operator (300 at most), 1 in ten minutes (2 at most), 10 in the worst
 * ten minutes, under 1 % of periods above ten, under 1 % of time in flood, 1 to 5 % of the load from the ten most
 * frequent, no chattering, under 5 stale, about 5 % of high and 15 % of medium priority. ANSI/ISA-18.2-2016, table of performance metrics, and EEMUA 191 (from memory).
 */
const GUIDELINES: readonly {
  readonly key: HealthCheck['key'];
  readonly good: number;
  readonly most: number;
}[] = [
  { key: 'perDay', good: 150, most: 300 },
  { key: 'perTenMinutes', good: 1, most: 2 },
  { key: 'peak', good: 10, most: 10 },
  { key: 'busyShare', good: 0.01, most: 0.01 },
  { key: 'floodShare', good: 0.01, most: 0.01 },
  { key: 'topTenShare', good: 0.01, most: 0.05 },
  { key: 'chattering', good: 0, most: 0 },
  { key: 'stale', good: 4, most: 4 },
  { key: 'highShare', good: 0.05, most: 0.1 },
  { key: 'mediumShare', good: 0.15, most: 0.3 },
];

/** Fewer alarms than this give no meaningful shares by priority; common practice, no source. */
const LEAST_ALARMS_FOR_PRIORITY = 20;

/** With fewer rules than this, the share of the ten most frequent means nothing. */
const LEAST_RULES_FOR_SHARE = 200;

/**
 * Compares each figure with its guideline; a value exactly on the guideline meets it.
 *
 * @param rules how many rules are in force: with few of them the share of the ten most frequent is left out,
 * as are shares by priority of few alarms.
 */
export function checkHealth(health: AlarmHealth, rules: number): HealthCheck[] {
  const values: Readonly<Record<HealthCheck['key'], number>> = {
    ...health,
    peak: health.peak.count,
    chattering: health.chattering.length,
    highShare: health.byPriority.high,
    mediumShare: health.byPriority.medium,
  };
  const tells = (key: HealthCheck['key']): boolean => {
    if (key === 'topTenShare') return rules >= LEAST_RULES_FOR_SHARE;
    if (key === 'highShare' || key === 'mediumShare') return health.count >= LEAST_ALARMS_FOR_PRIORITY;
    return true;
  };
  return GUIDELINES.filter(({ key }) => tells(key)).map(({ key, good, most }) => {
    const value = values[key];
    const level = value <= good ? 'clear' : value <= most ? 'caution' : 'breach';
    return { key, value, good, most, level };
  });
}

/** Lengths of the window, in days, that alarm health offers. */
export const HEALTH_DAYS = [1, 7, 30] as const;
