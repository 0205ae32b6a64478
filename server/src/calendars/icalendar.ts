import ICAL from 'ical.js';
import { DateTime } from 'luxon';
import { BeaconError, FIRST_TIME, LAST_TIME, type Holiday } from '@vivid-beacon/core';
import { withoutRepeats } from './holidays';

/** What a working calendar holds at most; see calendarSchema. */
const MOST_DAYS = 2000;
const LONGEST_EVENT_DAYS = 400;
const MOST_OCCURRENCES = 2000;
const YEARS_AHEAD = 5;

/**
 * Days of an iCalendar file (RFC 5545): every day an event touches, repeating events for some years ahead. An
 * all-day event ends before its DTEND; an event with times counts for the days it touches in `zone`; one without
 * end and length is one day (section 3.6.1).
 *
 * @throws {BeaconError} BAD_INPUT for text that is no iCalendar, has no events, an event that has no start, is longer
 *         than 400 days or lies in no year that is known, and for more than 2,000 days or repetitions in all.
 */
export function holidaysOfCalendar(text: string, zone: string, now: number): Holiday[] {
  const events = eventsOf(text);
  const until = DateTime.fromMillis(now, { zone }).plus({ years: YEARS_AHEAD });
  const days = new Map<string, string>();
  let occurrences = 0;
  for (const [i, part] of events.entries()) {
    const event = new ICAL.Event(part);
    const place = `event ${i + 1}`;
    const named = event.summary ? `Event ${i + 1} (${event.summary.slice(0, 60)})` : `Event ${i + 1}`;
    if (event.isRecurrenceException()) continue;
    checkDates(part, named, place);
    for (const { start, end } of occurrencesOf(event, zone, until)) {
      if (++occurrences > MOST_OCCURRENCES) {
        throw new BeaconError(
          'BAD_INPUT',
          `${named} repeats too often: up to ${MOST_OCCURRENCES} repetitions are read.`,
          place,
        );
      }
      checkLength(start, end, named, place);
      for (let day = start; day < end || day.equals(start); day = day.plus({ days: 1 })) {
        const date = day.toISODate()!;
        if (!days.has(date)) days.set(date, event.summary ?? '');
      }
      if (days.size > MOST_DAYS) {
        throw new BeaconError(
          'BAD_INPUT',
          `The calendar has more than ${MOST_DAYS} days. Leave out what are no holidays.`,
          place,
        );
      }
    }
  }
  return withoutRepeats([...days].map(([date, name]) => ({ date, name })));
}

function eventsOf(text: string): InstanceType<typeof ICAL.Component>[] {
  let events: InstanceType<typeof ICAL.Component>[];
  try {
    events = new ICAL.Component(ICAL.parse(text) as unknown as string).getAllSubcomponents('vevent');
  } catch (error) {
    throw new BeaconError('BAD_INPUT', `This is not an iCalendar file: ${(error as Error).message}`, 'file');
  }
  if (events.length === 0) throw new BeaconError('BAD_INPUT', 'The calendar has no events.', 'file');
  return events;
}

/** Days an event touches, one repetition after another: [start, end). */
function* occurrencesOf(
  event: InstanceType<typeof ICAL.Event>,
  zone: string,
  until: DateTime,
): Generator<{ start: DateTime; end: DateTime }> {
  const steps = event.iterator();
  for (let next = steps.next(); next; next = steps.next()) {
    const { startDate, endDate } = event.getOccurrenceDetails(next);
    const start = dayOfIcal(startDate, zone);
    if (start > until) return;
    yield {
      start,
      end: endDate.isDate ? dayOfIcal(endDate, zone) : dayOfIcal(endDate, zone).plus({ days: 1 }),
    };
    if (!event.isRecurring()) return;
  }
}

function checkLength(start: DateTime, end: DateTime, named: string, place: string): void {
  if (!start.isValid || !end.isValid || start.toMillis() < FIRST_TIME || end.toMillis() > LAST_TIME) {
    throw new BeaconError('BAD_INPUT', `${named} must lie between the years 1500 and 2199.`, place);
  }
  if (end.diff(start, 'days').days > LONGEST_EVENT_DAYS) {
    const words = `${start.toISODate()} to ${end.toISODate()}`;
    throw new BeaconError(
      'BAD_INPUT',
      `${named} may last at most ${LONGEST_EVENT_DAYS} days, got ${words}.`,
      place,
    );
  }
}

interface IcalTime {
  readonly isDate: boolean;
  readonly year: number;
  readonly month: number;
  readonly day: number;
  toJSDate(): Date;
}

/** Dates as they were written: the library takes 20261399 for a day of the year after, and fails on "garbage" later. */
function checkDates(part: InstanceType<typeof ICAL.Component>, named: string, place: string): void {
  for (const [name, words] of [
    ['dtstart', 'start'],
    ['dtend', 'end'],
  ] as const) {
    const property = part.getFirstProperty(name);
    if (!property && name === 'dtend') continue;
    // jCal (RFC 7265): name, parameters, type, value.
    const value = String((property?.jCal as unknown as string[] | undefined)?.[3] ?? '');
    if (value.length >= 10 && DateTime.fromISO(value.slice(0, 10), { zone: 'utc' }).isValid) continue;
    // Written without the signs that the library put in.
    const given = value.replace(/[-:]/g, '') || 'none';
    throw new BeaconError(
      'BAD_INPUT',
      `${named} needs a ${words} that is a date, got ${given.slice(0, 60)}.`,
      place,
    );
  }
}

function dayOfIcal(time: IcalTime, zone: string): DateTime {
  if (time.isDate)
    return DateTime.fromObject({ year: time.year, month: time.month, day: time.day }, { zone });
  return DateTime.fromJSDate(time.toJSDate(), { zone }).startOf('day');
}
