import { BeaconError } from '../errors';
import type { WorkingCalendar } from '../schemas/calendar';
import type { Bucket } from './buckets';
import type { Interval } from './interval';
import type { HoursFilter } from './hoursFilter';
import { FIRST_TIME, LAST_TIME } from './knownYears';
import { DAY_MS, HOUR_MS } from './lengths';

/** So many quarters, hours, shifts or days a window is cut into at most: four years of hours, a century of days. */
export const MOST_PERIODS = 40_000;
/** Weeks and longer are stepped over one by one in the calendar: 76 years of weeks. */
export const MOST_CALENDAR_PERIODS = 4000;
/** So many pieces recurring hours are laid out in: one a condition and day, for shifts one a shift. */
export const MOST_PIECES = 20_000;

const SHORTEST_MS: Readonly<Record<Exclude<Bucket, 'shift'>, number>> = {
  quarterHour: HOUR_MS / 4,
  hour: HOUR_MS,
  day: DAY_MS,
  week: 7 * DAY_MS,
  month: 28 * DAY_MS,
  quarter: 90 * DAY_MS,
  year: 365 * DAY_MS,
  financialYear: 365 * DAY_MS,
};

/**
 * Refuses a window outside of the years that the product knows, such as one from the year 0202 on.
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
 * Refuses a window that would be cut into more periods than can be looked at, before any is laid out.
 *
 * @throws {BeaconError} BAD_INPUT saying how many there would be and how many may be.
 */
export function checkPeriods(window: Interval, bucket: Bucket | null, calendar: WorkingCalendar): void {
  checkBounds(window);
  const periods = countPeriods(window, bucket, calendar);
  const most =
    bucket === null || bucket === 'shift' || SHORTEST_MS[bucket] <= DAY_MS
      ? MOST_PERIODS
      : MOST_CALENDAR_PERIODS;
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
  return Math.ceil((end - start) / SHORTEST_MS[bucket]);
}

/**
 * Refuses a window whose recurring hours would be laid out in more pieces than can be, before any is.
 *
 * @throws {BeaconError} BAD_INPUT saying how many there would be and how many may be.
 */
export function checkPieces(window: Interval, hours: HoursFilter, calendar: WorkingCalendar): void {
  checkBounds(window);
  const pieces = Math.ceil(((window.end - window.start) / DAY_MS) * piecesADay(hours, calendar));
  if (pieces > MOST_PIECES) {
    throw new BeaconError(
      'BAD_INPUT',
      `The recurring hours have about ${inWords(pieces)} pieces in this window; at most ${inWords(MOST_PIECES)} can be laid out. Choose a shorter window or fewer conditions.`,
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

/** How many shifts begin a day, on average over the week. */
function shiftsADay({ shifts }: WorkingCalendar): number {
  return shifts.reduce((sum, { days }) => sum + days.length / 7, 0);
}

function inWords(n: number): string {
  return n.toLocaleString('en-GB');
}
