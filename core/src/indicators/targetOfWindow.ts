import { workingTime } from '../calendar/workingCalendar';
import { type WorkingCalendar } from '../schemas/calendar';
import { ADDS_UP } from '../domain/metric';
import type { Measure } from '../domain/measure';
import type { ReferencePeriod } from '../domain/reference';
import { overlapMs, type Interval } from '../time/interval';
import { intersectionOf, lengthOf } from '../time/intervals';
import { plusPeriods, startOfDate } from '../time/periodStart';
import type { PeriodTarget, Proration } from './definition';

/** Whether a measure adds up over time, so that its targets can be prorated. */
export function addsUp(measure: Measure): boolean {
  return measure.per === null && ADDS_UP.has(measure.summary);
}

interface Site {
  readonly zone: string;
  readonly calendar: WorkingCalendar;
}

/**
 * The target of a window from targets typed in by period.
 *
 * A measure that adds up: of each period the share that lies in the window, by calendar time or by working time of the
 * site, so that a month to date has the target of the days that have passed; `none` takes a period whole as soon as
 * the window touches it. Others, as means and ratios: the mean of the periods, weighted by the time they share with
 * the window.
 *
 * @param window up to now where it is unfinished. @returns null when some part of it has no target.
 */
export function targetOfWindow(
  targets: readonly PeriodTarget[],
  period: ReferencePeriod,
  window: Interval,
  adds: boolean,
  prorate: Proration,
  site: Site,
): number | null {
  const touched = targets
    .map(({ start, value }) => ({ ...periodOf(start, period, site.zone), value }))
    .filter((each) => overlapMs(each, window) > 0);
  const covered = touched.reduce((sum, each) => sum + overlapMs(each, window), 0);
  if (touched.length === 0 || covered < window.end - window.start) return null;
  if (!adds) {
    const weighted = touched.reduce((sum, each) => sum + each.value * overlapMs(each, window), 0);
    return weighted / covered;
  }
  return touched.reduce((sum, each) => sum + each.value * shareOf(each, window, prorate, site), 0);
}

/**
 * A fixed target, prorated for the elapsed part of the window.
 *
 * @param whole the whole window, with its future part. @param passed its elapsed part.
 */
export function fixedTarget(
  value: number,
  prorate: Proration,
  whole: Interval,
  passed: Interval,
  adds: boolean,
  site: Site,
): number {
  return adds && passed.end < whole.end ? value * shareOf(whole, passed, prorate, site) : value;
}

function periodOf(start: string, period: ReferencePeriod, zone: string): Interval {
  const from = startOfDate(start, zone);
  return { start: from, end: plusPeriods(from, 1, period, zone) };
}

function shareOf(period: Interval, window: Interval, prorate: Proration, { zone, calendar }: Site): number {
  if (prorate === 'none') return 1;
  if (prorate === 'working') {
    const working = workingTime(calendar, period, zone);
    const whole = lengthOf(working);
    // A period without working time has its target spread evenly.
    if (whole > 0) return lengthOf(intersectionOf(working, [window])) / whole;
  }
  return overlapMs(period, window) / (period.end - period.start);
}

/** A change against a reference; `percent` is null where it would mean nothing. */
export interface Change {
  readonly by: number;
  readonly percent: number | null;
}

/**
 * Value less base, and that in percent of the size of the base, so that of a negative base up is still more. A base of
 * zero has no percentage, and neither has a change from below zero to above or back: 150 % of −10 would be said of 5.
 * Our own rule, no source.
 * @example changeOf(110, 100) // => { by: 10, percent: 10 }
 */
export function changeOf(value: number | null, base: number | null): Change | null {
  if (value === null || base === null) return null;
  const by = value - base;
  return { by, percent: base === 0 || value * base < 0 ? null : (100 * by) / Math.abs(base) };
}
