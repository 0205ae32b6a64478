import { storedClockText } from '../format/formats';
import { clockInstant, minutesOf, shiftSpans, workingTime } from '../calendar/workingCalendar';
import { type WorkingCalendar } from '../schemas/calendar';
import { checkPieces } from './bounds';
import type { HoursFilter } from './hoursFilter';
import type { Interval } from './interval';
import { DAY_MS } from './lengths';
import { localDays } from './zoneClock';
import { differenceOf, intersectionOf, unionOf } from './intervals';

export type { HoursFilter };

/**
 * The stretches of a window that a filter lets through, to the minute, on the local clock of `zone`.
 *
 * @throws {BeaconError} BAD_INPUT before anything is laid out, for too many conditions over too long a window.
 */
export function hoursInside(
  filter: HoursFilter,
  window: Interval,
  zone: string,
  calendar: WorkingCalendar,
): Interval[] {
  checkPieces(window, filter, calendar);
  return layOutHours(filter, window, zone, calendar);
}

/** {@link hoursInside} without its check, for windows that no request chooses. */
export function layOutHours(
  filter: HoursFilter,
  window: Interval,
  zone: string,
  calendar: WorkingCalendar,
): Interval[] {
  const inside = (each: HoursFilter): Interval[] => layOutHours(each, window, zone, calendar);
  const clip = (intervals: readonly Interval[]): Interval[] => intersectionOf(unionOf(intervals), [window]);
  switch (filter.kind) {
    case 'clock':
      return clip(
        localDays(window.start, window.end, zone, 1).map(({ wallMs }) => {
          const over = minutesOf(filter.to) <= minutesOf(filter.from);
          return {
            start: clockInstant(wallMs, filter.from, zone),
            end: clockInstant(over ? wallMs + DAY_MS : wallMs, filter.to, zone),
          };
        }),
      );
    case 'weekdays':
      return clip(
        localDays(window.start, window.end, zone).filter(({ weekday }) => filter.days.includes(weekday)),
      );
    case 'months':
      return clip(
        localDays(window.start, window.end, zone).filter(({ wallMs }) =>
          filter.months.includes(new Date(wallMs).getUTCMonth() + 1),
        ),
      );
    case 'working': {
      const working = workingTime(calendar, window, zone);
      return filter.inside ? working : differenceOf([window], working);
    }
    case 'shift':
      return clip(shiftSpans(calendar, window, zone).filter(({ name }) => name === filter.name));
    case 'all':
      return filter.of.reduce<Interval[]>((left, each) => intersectionOf(left, inside(each)), [window]);
    case 'any':
      return unionOf(filter.of.flatMap(inside));
    case 'not':
      return differenceOf([window], inside(filter.of));
  }
}

const WEEKDAYS = ['Mondays', 'Tuesdays', 'Wednesdays', 'Thursdays', 'Fridays', 'Saturdays', 'Sundays'];
const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

/**
 * The filter in words: "22:00 to 06:00 and on Saturdays, Sundays".
 * @example hoursWords({ kind: 'clock', from: '06:00', to: '14:00' }) // => '06:00 to 14:00'
 */
export function hoursWords(filter: HoursFilter): string {
  switch (filter.kind) {
    case 'clock':
      return `${storedClockText(filter.from)} to ${storedClockText(filter.to)}`;
    case 'weekdays':
      return `on ${filter.days.map((day) => WEEKDAYS[day - 1]).join(', ')}`;
    case 'months':
      return `in ${filter.months.map((month) => MONTHS[month - 1]).join(', ')}`;
    case 'working':
      return filter.inside ? 'in working hours' : 'outside working hours';
    case 'shift':
      return `in shift ${filter.name}`;
    case 'all':
      return filter.of.map(hoursWords).join(' and ');
    case 'any':
      return filter.of.map(hoursWords).join(' or ');
    case 'not':
      return `not ${hoursWords(filter.of)}`;
  }
}
