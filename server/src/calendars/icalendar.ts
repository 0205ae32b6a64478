import ICAL from 'ical.js';
import { DateTime } from 'luxon';
import { BeaconError, FIRST_TIME, LAST_TIME, type Holiday } from '@vivid-beacon/core';
import { withoutRepeats } from './holidays';

/** What a working calendar holds at most; see calendarSchema. */
const MAX_DAYS = 2000;
const MAX_EVENT_DAYS = 400;
const MAX_OCCURRENCES = 2000;
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
  const reader = new EventReader(zone, now);
  for (const [i, part] of events.entries()) {
    const place = `event ${i + 1}`;
    const summary = String(part.getFirstProperty('summary')?.getFirstValue() ?? '');
    const named = summary === '' ? `Event ${i + 1}` : `Event ${i + 1} (${summary.slice(0, 60)})`;
    const wrong = (words: string): BeaconError => new BeaconError('BAD_INPUT', `${named} ${words}.`, place);
    try {
      reader.take(part, summary, wrong);
    } catch (error) {
      if (error instanceof BeaconError) throw error;
      // The library fails on a rule or an exception that it cannot read when it comes to it.
      throw wrong(`holds something that cannot be read: ${(error as Error).message}`);
    }
  }
  return withoutRepeats([...reader.days].map(([date, name]) => ({ date, name })));
}

type Component = InstanceType<typeof ICAL.Component>;
/** What is wrong with an event, with its number and name. */
type Wrong = (words: string) => BeaconError;

/** Collects the days of events. */
class EventReader {
  /** Names by date, the first one of each. */
  readonly days = new Map<string, string>();
  private occurrences = 0;
  private readonly until: DateTime;

  constructor(
    private readonly zone: string,
    now: number,
  ) {
    this.until = DateTime.fromMillis(now, { zone }).plus({ years: YEARS_AHEAD });
  }

  take(part: Component, summary: string, wrong: Wrong): void {
    const event = new ICAL.Event(part);
    if (event.isRecurrenceException()) return;
    checkDates(part, wrong);
    for (const { start, end } of occurrencesOf(event, this.zone, this.until)) {
      if (++this.occurrences > MAX_OCCURRENCES) {
        throw wrong(`repeats too often: up to ${MAX_OCCURRENCES} repetitions are read`);
      }
      checkLength(start, end, wrong);
      for (let day = start; day < end || day.equals(start); day = day.plus({ days: 1 })) {
        const date = day.toISODate()!;
        if (!this.days.has(date)) this.days.set(date, summary);
      }
      if (this.days.size > MAX_DAYS) {
        throw wrong(`is one too many: a calendar has up to ${MAX_DAYS} days. Leave out what are no holidays`);
      }
    }
  }
}

function eventsOf(text: string): Component[] {
  if (text.trim() === '') throw new BeaconError('BAD_INPUT', 'The calendar file is empty.', 'file');
  let events: Component[];
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

function checkLength(start: DateTime, end: DateTime, wrong: Wrong): void {
  if (!start.isValid || !end.isValid || start.toMillis() < FIRST_TIME || end.toMillis() > LAST_TIME) {
    throw wrong('must lie between the years 1500 and 2199');
  }
  if (end.diff(start, 'days').days > MAX_EVENT_DAYS) {
    const given = `${start.toISODate()} to ${end.toISODate()}`;
    throw wrong(`may last at most ${MAX_EVENT_DAYS} days, got ${given}`);
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
function checkDates(part: Component, wrong: Wrong): void {
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
    throw wrong(`needs a ${words} that is a date, got ${given.slice(0, 60)}`);
  }
}

function dayOfIcal(time: IcalTime, zone: string): DateTime {
  if (time.isDate)
    return DateTime.fromObject({ year: time.year, month: time.month, day: time.day }, { zone });
  return DateTime.fromJSDate(time.toJSDate(), { zone }).startOf('day');
}
