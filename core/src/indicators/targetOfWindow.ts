import { workingTime } from '../calendar/workingCalendar';
import { type WorkingCalendar } from '../schemas/calendar';
import type { ReferencePeriod } from '../domain/reference';
import { overlapMs, type Interval } from '../time/interval';
import { isAbove } from '../stats/decimal';
import { differenceOf, intersectionOf, lengthOf, unionOf } from '../time/intervals';
import { plusPeriods, startOfDate } from '../time/periodStart';
import type { PeriodTarget, Proration } from './definition';

interface Site {
  readonly zone: string;
  readonly calendar: WorkingCalendar;
}

/** A stretch with a target of its own: a period, a month of it, or what is left of it beside its months. */
interface TargetPart {
  readonly spans: readonly Interval[];
  readonly value: number;
}

/** Periods that single months of them can be set apart from. */
const LONGER: ReadonlySet<ReferencePeriod> = new Set([
  'quarter',
  'year',
  'financialQuarter',
  'financialYear',
]);

/** Whether single months of a period can have targets of their own. */
export const hasMonths = (period: ReferencePeriod): boolean => LONGER.has(period);

/**
 * Targets by period with single months set otherwise. Of a total the period keeps its whole: what its months leave is
 * the target of the time between them. Of means and ratios a month simply has another target.
 */
function partsOf(
  targets: readonly PeriodTarget[],
  period: ReferencePeriod,
  zone: string,
  adds: boolean,
): TargetPart[] {
  const own = targets.filter(({ month }) => !month);
  const months = hasMonths(period)
    ? targets
        .filter(({ month }) => month)
        .map(({ start, value }) => ({ span: periodOf(start, 'month', zone), value }))
    : [];
  const parts: TargetPart[] = months.map(({ span, value }) => ({ spans: [span], value }));
  for (const { start, value } of own) {
    const whole = periodOf(start, period, zone);
    const inside = months.filter(({ span }) => overlapMs(span, whole) > 0);
    const rest = differenceOf([whole], unionOf(inside.map(({ span }) => span)));
    const left = adds ? inside.reduce((sum, month) => sum - month.value, value) : value;
    if (rest.length > 0) parts.push({ spans: rest, value: left });
  }
  return parts;
}

/**
 * What is wrong with months set otherwise: together they come to more than the period they lie in; null = nothing.
 */
export function wrongMonths(
  targets: readonly PeriodTarget[],
  period: ReferencePeriod,
  zone: string,
): { readonly start: string; readonly months: number; readonly whole: number } | null {
  if (!hasMonths(period)) return null;
  for (const { start, value } of targets.filter(({ month }) => !month)) {
    const whole = periodOf(start, period, zone);
    const inside = targets.filter(
      ({ month, start: at }) => month && overlapMs(periodOf(at, 'month', zone), whole) > 0,
    );
    const months = inside.reduce((sum, each) => sum + each.value, 0);
    if (inside.length > 0 && value >= 0 && isAbove(months, value)) return { start, months, whole: value };
  }
  return null;
}

/**
 * The target of a window from targets typed in by period.
 *
 * A measure that adds up: of each period the share that lies in the window, by calendar time or by working time of the
 * site, so that a month to date has the target of the days that have passed; `none` takes a period whole as soon as
 * the window touches it. Others, as means and ratios: the mean of the periods, weighted by the time they share with
 * the window. Single months of a longer period may be set otherwise: see partsOf.
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
  const inside = ({ spans }: TargetPart): number => lengthOf(intersectionOf(spans, [window]));
  const touched = partsOf(targets, period, site.zone, adds).filter((part) => inside(part) > 0);
  const covered = touched.reduce((sum, part) => sum + inside(part), 0);
  if (touched.length === 0 || covered < window.end - window.start) return null;
  if (!adds) return touched.reduce((sum, part) => sum + part.value * inside(part), 0) / covered;
  return touched.reduce((sum, { spans, value }) => sum + value * shareOf(spans, window, prorate, site), 0);
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
  return adds && passed.end < whole.end ? value * shareOf([whole], passed, prorate, site) : value;
}

function periodOf(start: string, period: ReferencePeriod, zone: string): Interval {
  const from = startOfDate(start, zone);
  return { start: from, end: plusPeriods(from, 1, period, zone) };
}

function shareOf(
  spans: readonly Interval[],
  window: Interval,
  prorate: Proration,
  { zone, calendar }: Site,
): number {
  if (prorate === 'none') return 1;
  if (prorate === 'working') {
    const hull = { start: spans[0].start, end: spans[spans.length - 1].end };
    const working = intersectionOf(workingTime(calendar, hull, zone), spans);
    const whole = lengthOf(working);
    // A period without working time has its target spread evenly.
    if (whole > 0) return lengthOf(intersectionOf(working, [window])) / whole;
  }
  return lengthOf(intersectionOf(spans, [window])) / lengthOf(spans);
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
