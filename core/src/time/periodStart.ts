import { DateTime } from 'luxon';
import { BeaconError } from '../errors';
import { DAY_MS, HOUR_MS, MINUTE_MS } from './lengths';
import type { WindowUnit } from './windowUnit';
import { zoneClock } from './zoneClock';

/*
 * Where calendar periods begin. Windows, buckets, targets and windows before all come from here, so that they
 * agree also on days without a midnight or with two.
 */

/** What of a working calendar decides where weeks and financial years begin. */
export interface PeriodRules {
  /** 1 = Monday … 7 = Sunday. */
  readonly firstWeekday: number;
  /** First month of the financial year, 1 to 12. */
  readonly financialYearMonth: number;
}

/** Weeks from Monday (ISO 8601), the financial year is the calendar year. */
export const DEFAULT_RULES: PeriodRules = { firstWeekday: 1, financialYearMonth: 1 };

/**
 * Start of the period that holds an instant, ms. Hours are counted from the start of the local day.
 *
 * @param zone IANA name. @throws {BeaconError} BAD_INPUT for an unknown zone.
 * @example startOfPeriod(Date.UTC(2026, 10, 19, 6, 40), 'month', 'Europe/London') // => Date.UTC(2026, 10, 1)
 */
export function startOfPeriod(
  t: number,
  unit: WindowUnit,
  zone: string,
  rules: PeriodRules = DEFAULT_RULES,
): number {
  if (unit === 'minute') return Math.floor(t / MINUTE_MS) * MINUTE_MS;
  const { dayAt, startOfDay } = zoneClock(zone);
  const day = dayAt(t);
  if (unit === 'hour') {
    const start = startOfDay(day);
    return start + Math.floor((t - start) / HOUR_MS) * HOUR_MS;
  }
  return startOfDay(firstDay(day, unit, rules));
}

/**
 * An instant moved by whole units of the local calendar, ms. The start of a period becomes the start of another
 * one; other times keep their time of day, and a month or year ends on its last day where the day is missing.
 *
 * @example plusPeriods(Date.UTC(2026, 0, 31), 1, 'month', 'UTC') // => Date.UTC(2026, 1, 28)
 */
export function plusPeriods(t: number, count: number, unit: WindowUnit, zone: string): number {
  if (unit === 'minute') return t + count * MINUTE_MS;
  const { dayAt, startOfDay, instant, offset } = zoneClock(zone);
  if (unit === 'hour') return plusHours(t, count, zone);
  const day = dayAt(t);
  const moved = movedDay(day, count, unit);
  return startOfDay(day) === t ? startOfDay(moved) : instant(moved + (t + offset(t) - day));
}

/** Start of a local date such as "2026-11-19", ms. @throws {BeaconError} BAD_INPUT for anything else. */
export function startOfDate(date: string, zone: string): number {
  const day = DateTime.fromISO(date, { zone: 'utc' });
  if (!day.isValid || !/^\d{4}-\d\d-\d\d$/.test(date))
    throw new BeaconError('BAD_INPUT', `A date is written as 2026-11-19, got "${date}".`, 'date');
  return zoneClock(zone).startOfDay(day.toMillis());
}

/** The local date that holds an instant. @example dateAt(Date.UTC(2026, 6, 1, 23, 30), 'Europe/London') // => '2026-07-02' */
export function dateAt(t: number, zone: string): string {
  return new Date(zoneClock(zone).dayAt(t)).toISOString().slice(0, 10);
}

/**
 * From the start of an hour to the start of another: a day that is no whole number of hours ends with a shorter
 * one. From any other instant by the length.
 */
function plusHours(t: number, count: number, zone: string): number {
  const { dayAt, startOfDay } = zoneClock(zone);
  let day = dayAt(t);
  if ((t - startOfDay(day)) % HOUR_MS !== 0) return t + count * HOUR_MS;
  let at = t;
  let left = count;
  while (left > 0) {
    const end = startOfDay(day + DAY_MS);
    const hours = Math.ceil((end - at) / HOUR_MS);
    if (left < hours) return at + left * HOUR_MS;
    left -= hours;
    at = end;
    day += DAY_MS;
  }
  while (left < 0) {
    const start = startOfDay(day);
    const hours = (at - start) / HOUR_MS;
    if (-left <= hours) return at + left * HOUR_MS;
    left += Math.ceil(hours);
    day -= DAY_MS;
    at = start;
    // A shorter last hour of the day before counts as one.
    const rest = (at - startOfDay(day)) % HOUR_MS;
    if (rest > 0) {
      at -= rest;
      left += 1;
    }
  }
  return at;
}

/** First day of the period that holds a day; days are written as ms as if they were UTC. */
function firstDay(day: number, unit: WindowUnit, { firstWeekday, financialYearMonth }: PeriodRules): number {
  const date = new Date(day);
  const [year, month] = [date.getUTCFullYear(), date.getUTCMonth()];
  switch (unit) {
    case 'week':
      return day - ((date.getUTCDay() + 14 - firstWeekday) % 7) * DAY_MS;
    case 'month':
      return dayOf(year, month);
    case 'quarter':
      return dayOf(year, month - (month % 3));
    case 'year':
      return dayOf(year, 0);
    case 'financialQuarter':
      return dayOf(year, month - ((month + 13 - financialYearMonth) % 3));
    case 'financialYear':
      return dayOf(year, month - ((month + 13 - financialYearMonth) % 12));
    default:
      return day;
  }
}

const MONTHS = { month: 1, quarter: 3, year: 12, financialQuarter: 3, financialYear: 12 } as const;

function movedDay(day: number, count: number, unit: Exclude<WindowUnit, 'minute' | 'hour'>): number {
  if (unit === 'day' || unit === 'week') return day + count * (unit === 'week' ? 7 : 1) * DAY_MS;
  const date = new Date(day);
  const month = date.getUTCMonth() + count * MONTHS[unit];
  const year = date.getUTCFullYear();
  const last = new Date(dayOf(year, month + 1) - DAY_MS).getUTCDate();
  return dayOf(year, month) + (Math.min(date.getUTCDate(), last) - 1) * DAY_MS;
}

/** First day of a month counted from January of a year, of any size. Date.UTC would read years below 100 as 19xx. */
const dayOf = (year: number, month: number): number => new Date(0).setUTCFullYear(year, month, 1);
