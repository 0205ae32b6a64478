import type { Interval } from './interval';
import { plusPeriods, startOfPeriod, DEFAULT_RULES, type PeriodRules } from './periodStart';
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
  const start = plusPeriods(window.start, -count, unit, zone);
  return upToElapsed({ start, end: window.start }, window, now);
}

/**
 * The same window a year before, by the local calendar: the same dates and wall-clock times. Of an unfinished
 * window only as much as has passed.
 */
export function sameWindowLastYear(
  spec: WindowSpec,
  now: number,
  zone: string,
  rules: PeriodRules = DEFAULT_RULES,
): Interval {
  const window = resolveWindow(spec, now, zone, rules);
  if (spec.kind === 'rolling') {
    // A year ago it ended a year ago: on 29 February at noon, on the 28th at noon.
    const end = plusPeriods(now, -1, 'year', zone);
    return resolveWindow(spec, end, zone, rules);
  }
  return upToElapsed(yearBefore(window, zone), window, now);
}

/**
 * The same dates and wall-clock times a year before. 29 February becomes the 28th; what ends as the 29th begins
 * ends with the 28th, so that no stretch becomes empty or loses a day that both years have.
 *
 * @example
 * // 28 February 2028, a day in both years.
 * yearBefore({ start: Date.UTC(2028, 1, 28), end: Date.UTC(2028, 1, 29) }, 'UTC')
 * // => { start: Date.UTC(2027, 1, 28), end: Date.UTC(2027, 2, 1) }
 */
export function yearBefore({ start, end }: Interval, zone: string): Interval {
  const from = plusPeriods(start, -1, 'year', zone);
  const isMidnight = startOfPeriod(end, 'day', zone) === end;
  const to = isMidnight
    ? plusPeriods(plusPeriods(plusPeriods(end, -1, 'day', zone), -1, 'year', zone), 1, 'day', zone)
    : plusPeriods(end, -1, 'year', zone);
  // Into 29 February and out of the day before it: as long as it is.
  return { start: from, end: to > from ? to : from + (end - start) };
}

function upToElapsed(before: Interval, window: Interval, now: number): Interval {
  const elapsed = Math.min(window.end, Math.max(now, window.start)) - window.start;
  const unfinished = window.end > now;
  return { start: before.start, end: unfinished ? Math.min(before.end, before.start + elapsed) : before.end };
}
