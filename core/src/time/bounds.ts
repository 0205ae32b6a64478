import { BeaconError } from '../errors';
import type { Bucket } from './buckets';
import type { Interval } from './interval';
import { DAY_MS, HOUR_MS } from './lengths';

/** Nothing is stored, shown or planned outside of these: 1 January 1500 to 1 January 2200. */
export const FIRST_TIME = Date.UTC(1500, 0, 1);
export const LAST_TIME = Date.UTC(2200, 0, 1);

/** So many periods a window is cut into at most: four years of hours, a century of days. */
export const MOST_PERIODS = 40_000;
/** So long a window may be where its recurring hours are laid out day by day. */
const MOST_DAYS_OF_HOURS = 40_000;

const SHORTEST_MS: Readonly<Record<Bucket, number>> = {
  quarterHour: HOUR_MS / 4,
  hour: HOUR_MS,
  // Three shifts a day are usual.
  shift: DAY_MS / 3,
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
 * Refuses a window that would be cut into more pieces than can be looked at, before any is laid out.
 *
 * @param byHours recurring hours are laid out day by day.
 * @throws {BeaconError} BAD_INPUT saying how many there would be and how many may be.
 */
export function checkPeriods({ start, end }: Interval, bucket: Bucket | null, byHours: boolean): void {
  checkBounds({ start, end });
  const periods = bucket === null ? 1 : Math.ceil((end - start) / SHORTEST_MS[bucket]);
  if (periods > MOST_PERIODS) {
    throw new BeaconError(
      'BAD_INPUT',
      `The window has about ${periods.toLocaleString('en-GB')} periods; at most ${MOST_PERIODS.toLocaleString('en-GB')} can be read at once. Choose a longer period or a shorter window.`,
      'window',
    );
  }
  const days = Math.ceil((end - start) / DAY_MS);
  if (byHours && days > MOST_DAYS_OF_HOURS) {
    throw new BeaconError(
      'BAD_INPUT',
      `The window has ${days.toLocaleString('en-GB')} days; with recurring hours it may have at most ${MOST_DAYS_OF_HOURS.toLocaleString('en-GB')}.`,
      'window',
    );
  }
}
