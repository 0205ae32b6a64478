import type { Series } from '../series/series';
import type { Interval } from '../time/interval';
import type { AlarmCondition } from './condition';
import { runCondition } from './runCondition';

/** One time a rule would have fired. `end` is null if it had not returned by the end of the window. */
export interface RehearsedAlarm {
  readonly start: number;
  readonly end: number | null;
}

export interface Rehearsal {
  readonly window: Interval;
  readonly alarms: readonly RehearsedAlarm[];
  /** Longest time it would have stood, ms. */
  readonly longestMs: number;
  /** Share of the window it would have stood, 0 to 1. */
  readonly share: number;
  /** How often each of `limits` would have fired, all else equal. */
  readonly curve: readonly { readonly limit: number; readonly fires: number }[];
}

/**
 * Runs an alarm rule on past samples with the same code as live evaluation.
 *
 * @param limits other limits to try, for the curve of how often the rule would fire.
 */
export function rehearse(
  condition: AlarmCondition,
  series: Series,
  window: Interval,
  limits: readonly number[] = [],
): Rehearsal {
  const alarms: { start: number; end: number | null }[] = [];
  for (const change of runCondition(condition, series).changes) {
    if (change.kind === 'raise') alarms.push({ start: change.t, end: null });
    else alarms[alarms.length - 1].end = change.t;
  }
  const lengths = alarms.map(({ start, end }) => (end ?? window.end) - start);
  const total = lengths.reduce((a, b) => a + b, 0);
  return {
    window,
    alarms,
    longestMs: Math.max(0, ...lengths),
    share: total / (window.end - window.start),
    curve: limits.map((limit) => ({
      limit,
      fires: runCondition({ ...condition, limit }, series).changes.filter((c) => c.kind === 'raise').length,
    })),
  };
}
