import { DateTime } from 'luxon';
import type { Interval } from './interval';
import { plusPeriods, DEFAULT_RULES, type PeriodRules } from './periodStart';
import { resolveWindow } from './window';
import { type WindowSpec } from './windowSpec';

/**
 * The window to compare with: the period before for calendar windows, the same length before for others.
 * While a window is unfinished only as much of the one before is taken as has passed of this one, so that
 * half a day is never set against a whole one.
 */
export function previousWindow(
  spec: WindowSpec,
  now: number,
  zone: string,
  rules: PeriodRules = DEFAULT_RULES,
): Interval {
  const window = resolveWindow(spec, now, zone, rules);
  if (spec.kind === 'rolling' || spec.kind === 'absolute') {
    return { start: window.start - (window.end - window.start), end: window.start };
  }
  const unit = spec.unit;
  const count = spec.kind === 'toDate' ? 1 : spec.count;
  const start = plusPeriods(DateTime.fromMillis(window.start, { zone }), -count, unit).toMillis();
  return upToElapsed({ start, end: window.start }, window, now);
}

/**
 * The same window a year before, by the local calendar: the same dates and wall-clock times (29 February
 * becomes the 28th). Of an unfinished window only as much as has passed.
 */
export function sameWindowLastYear(
  spec: WindowSpec,
  now: number,
  zone: string,
  rules: PeriodRules = DEFAULT_RULES,
): Interval {
  const window = resolveWindow(spec, now, zone, rules);
  const yearBefore = (t: number): number => DateTime.fromMillis(t, { zone }).minus({ years: 1 }).toMillis();
  return upToElapsed({ start: yearBefore(window.start), end: yearBefore(window.end) }, window, now);
}

function upToElapsed(before: Interval, window: Interval, now: number): Interval {
  const elapsed = Math.min(window.end, Math.max(now, window.start)) - window.start;
  const unfinished = window.end > now;
  return { start: before.start, end: unfinished ? Math.min(before.end, before.start + elapsed) : before.end };
}
