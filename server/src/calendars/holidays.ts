import Holidays from 'date-holidays';
import ICAL from 'ical.js';
import { DateTime } from 'luxon';
import { BeaconError, type Holiday } from '@vivid-beacon/core';

/** Countries whose public holidays are known, by ISO 3166 code. */
export function holidayCountries(): { code: string; name: string }[] {
  const all = new Holidays().getCountries('en');
  return Object.entries(all)
    .map(([code, name]) => ({ code, name: String(name) }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** Regions of a country with holidays of their own. */
export function holidayRegions(country: string): { code: string; name: string }[] {
  const all = new Holidays().getStates(country, 'en') ?? {};
  return Object.entries(all).map(([code, name]) => ({ code, name: String(name) }));
}

/**
 * Public holidays of a country or region over some years, from the library date-holidays.
 *
 * @throws {BeaconError} BAD_INPUT for an unknown country.
 */
export function publicHolidays(
  country: string,
  region: string | null,
  fromYear: number,
  toYear: number,
): Holiday[] {
  const source = region ? new Holidays(country, region) : new Holidays(country);
  const out: Holiday[] = [];
  for (let year = fromYear; year <= toYear; year++) {
    const found = source.getHolidays(year);
    if (!Array.isArray(found)) {
      throw new BeaconError('BAD_INPUT', `No holidays are known for "${country}".`, 'country');
    }
    for (const { date, name, type } of found) {
      if (type === 'public') out.push({ date: date.slice(0, 10), name });
    }
  }
  return withoutRepeats(out);
}

const MOST_DAYS = 2000;
const YEARS_AHEAD = 5;

/**
 * Days of an iCalendar file (RFC 5545): every day an event touches, repeating events for some years ahead. An
 * all-day event ends before its DTEND; an event with times counts for the days it touches in `zone`.
 *
 * @throws {BeaconError} BAD_INPUT for text that is no iCalendar, or has no events.
 */
export function holidaysOfCalendar(text: string, zone: string, now: number): Holiday[] {
  let component: InstanceType<typeof ICAL.Component>;
  try {
    component = new ICAL.Component(ICAL.parse(text) as unknown as string);
  } catch (error) {
    throw new BeaconError('BAD_INPUT', `This is not an iCalendar file: ${(error as Error).message}`, 'file');
  }
  const events = component.getAllSubcomponents('vevent');
  if (events.length === 0) throw new BeaconError('BAD_INPUT', 'The calendar has no events.', 'file');
  const until = DateTime.fromMillis(now, { zone }).plus({ years: YEARS_AHEAD });
  const out: Holiday[] = [];
  for (const part of events) {
    const event = new ICAL.Event(part);
    if (event.isRecurrenceException()) continue;
    const steps = event.iterator();
    for (let next = steps.next(); next && out.length < MOST_DAYS; next = steps.next()) {
      const { startDate, endDate } = event.getOccurrenceDetails(next);
      const start = dayOfIcal(startDate, zone);
      const end = endDate.isDate ? dayOfIcal(endDate, zone) : dayOfIcal(endDate, zone).plus({ days: 1 });
      if (start > until) break;
      for (let day = start; day < end || day.equals(start); day = day.plus({ days: 1 })) {
        out.push({ date: day.toISODate()!, name: event.summary ?? '' });
      }
      if (!event.isRecurring()) break;
    }
  }
  return withoutRepeats(out);
}

function dayOfIcal(
  time: { isDate: boolean; year: number; month: number; day: number; toJSDate(): Date },
  zone: string,
): DateTime {
  if (time.isDate)
    return DateTime.fromObject({ year: time.year, month: time.month, day: time.day }, { zone });
  return DateTime.fromJSDate(time.toJSDate(), { zone }).startOf('day');
}

function withoutRepeats(days: readonly Holiday[]): Holiday[] {
  const byDate = new Map<string, Holiday>();
  for (const each of days) if (!byDate.has(each.date)) byDate.set(each.date, each);
  return [...byDate.values()].sort((a, b) => a.date.localeCompare(b.date));
}
