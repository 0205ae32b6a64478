import { BeaconError } from '../errors';
import type { WorkingCalendar } from '../schemas/calendar';
import type { Bucket } from './buckets';
import type { Interval } from './interval';
import type { HoursFilter } from './hoursFilter';
import { FIRST_TIME, LAST_TIME } from './knownYears';
import { DAY_MS, HOUR_MS } from './lengths';

/** Most quarters, hours, shifts or days in a window: four years of hours, a century of days. */
export const MAX_PERIODS = 40_000;
/** Most weeks or longer periods, which are stepped through the calendar one by one: 76 years of weeks. */
export const MAX_CALENDAR_PERIODS = 4000;
/** Most pieces of recurring hours: one per condition and day, or per shift. */
export const MAX_PIECES = 20_000;

const MIN_MS: Readonly<Record<Exclude<Bucket, 'shift'>, number>> = {
  fiveMinutes: HOUR_MS / 12,
  quarterHour: HOUR_MS / 4,
  hour: HOUR_MS,
  day: DAY_MS,
  week: 7 * DAY_MS,
  month: 28 * DAY_MS,
  quarter: 90 * DAY_MS,
  year: 365 * DAY_MS,
  financialQuarter: 90 * DAY_MS,
  financialYear: 365 * DAY_MS,
};

/**
 * Refuses a window outside the supported years, such as one from the year 0202.
 *
 * @param path names the field that was wrong.
 * @throws {BeaconError} BAD_INPUT saying what came and what is allowed.
 */
export function checkBounds({ start, end }: Interval, path = 'window'): void {
  if (start >= FIRST_TIME && end <= LAST_TIME) return;
  const shown = (t: number): string =>
    Number.isFinite(t) && Math.abs(t) < 8.64e15 ? String(new Date(t).getUTCFullYear()) : 'beyond all years';
  throw new BeaconError(
    'BAD_INPUT',
    `A window must lie between the years 1500 and 2199, got ${shown(start)} to ${shown(end)}.`,
    path,
  );
}

/**
 * Refuses a window with too many periods before any is laid out.
 *
 * @throws {BeaconError} BAD_INPUT with the number of periods and the largest allowed.
 */
export function checkPeriods(window: Interval, bucket: Bucket | null, calendar: WorkingCalendar): void {
  checkBounds(window);
  const periods = countPeriods(window, bucket, calendar);
  const most =
    bucket === null || bucket === 'shift' || MIN_MS[bucket] <= DAY_MS ? MAX_PERIODS : MAX_CALENDAR_PERIODS;
  if (periods > most) {
    throw new BeaconError(
      'BAD_INPUT',
      `The window has about ${inWords(periods)} periods; at most ${inWords(most)} can be read at once. Choose a longer period or a shorter window.`,
      'window',
    );
  }
}

function countPeriods({ start, end }: Interval, bucket: Bucket | null, calendar: WorkingCalendar): number {
  if (bucket === null) return 1;
  if (bucket === 'shift') return Math.ceil(((end - start) / DAY_MS) * shiftsADay(calendar));
  return Math.ceil((end - start) / MIN_MS[bucket]);
}

/**
 * Refuses a window whose recurring hours would be laid out in more pieces than can be, before any is.
 *
 * @throws {BeaconError} BAD_INPUT with the number of periods and the largest allowed.
 */
export function checkPieces(window: Interval, hours: HoursFilter, calendar: WorkingCalendar): void {
  checkBounds(window);
  const pieces = Math.ceil(((window.end - window.start) / DAY_MS) * piecesADay(hours, calendar));
  if (pieces > MAX_PIECES) {
    throw new BeaconError(
      'BAD_INPUT',
      `The recurring hours have about ${inWords(pieces)} pieces in this window; at most ${inWords(MAX_PIECES)} can be laid out. Choose a shorter window or fewer conditions.`,
      'hours',
    );
  }
}

function piecesADay(hours: HoursFilter, calendar: WorkingCalendar): number {
  switch (hours.kind) {
    case 'clock':
    case 'weekdays':
    case 'months':
      return 1;
    case 'working':
    case 'shift':
      return Math.max(1, shiftsADay(calendar));
    case 'all':
    case 'any':
      return hours.of.reduce((sum, each) => sum + piecesADay(each, calendar), 1);
    case 'not':
      return 1 + piecesADay(hours.of, calendar);
  }
}

/** Average number of shifts per day over the week. */
function shiftsADay({ shifts }: WorkingCalendar): number {
  return shifts.reduce((sum, { days }) => sum + days.length / 7, 0);
}

function inWords(n: number): string {
  return n.toLocaleString('en-GB');
}
