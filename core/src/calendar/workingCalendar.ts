import { BeaconError } from '../errors';
import type { Shift, WorkingCalendar } from '../schemas/calendar';
import type { Interval } from '../time/interval';
import { DAY_MS } from '../time/lengths';

import { intersectionOf, unionOf } from '../time/intervals';
import { localDays, zoneClock } from '../time/zoneClock';

/** Around the clock, weeks from Monday (ISO 8601), the financial year is the calendar year. */
export const DEFAULT_CALENDAR: WorkingCalendar = {
  shifts: [],
  holidays: [],
  firstWeekday: 1,
  financialYearMonth: 1,
};

/** One time a shift was worked. */
export interface ShiftSpan extends Interval {
  readonly name: string;
}

/**
 * Every shift that overlaps a window, ordered by start, not clipped to the window.
 *
 * @param zone IANA name. A shift over a clock change has its real length: a night shift of eight hours on the
 * clock is seven or nine hours long then.
 */
export function shiftSpans(calendar: WorkingCalendar, window: Interval, zone: string): ShiftSpan[] {
  const off = new Set(calendar.holidays.map(({ date }) => date));
  const spans: ShiftSpan[] = [];
  for (const { wallMs, weekday } of localDays(window.start, window.end, zone, 1)) {
    if (off.has(new Date(wallMs).toISOString().slice(0, 10))) continue;
    for (const shift of calendar.shifts) {
      if (!shift.days.includes(weekday)) continue;
      const start = clockInstant(wallMs, shift.from, zone);
      const over = minutesOf(shift.to) <= minutesOf(shift.from);
      const end = clockInstant(over ? wallMs + DAY_MS : wallMs, shift.to, zone);
      if (end > window.start && start < window.end) spans.push({ start, end, name: shift.name });
    }
  }
  return spans.sort((a, b) => a.start - b.start || a.end - b.end);
}

/** Working time inside a window. Without shifts, all time except holidays is working time. */
export function workingTime(calendar: WorkingCalendar, window: Interval, zone: string): Interval[] {
  const shifts: readonly Shift[] =
    calendar.shifts.length > 0
      ? calendar.shifts
      : [{ name: 'All day', days: [1, 2, 3, 4, 5, 6, 7], from: '00:00', to: '24:00' }];
  const spans = unionOf(shiftSpans({ ...calendar, shifts }, window, zone));
  return intersectionOf(spans, [window]);
}

/**
 * Minutes since midnight of "HH:MM". @throws {BeaconError} BAD_INPUT for anything else.
 * @example minutesOf('06:30') // => 390
 */
export function minutesOf(clock: string): number {
  const found = /^([01]?\d|2[0-4]):([0-5]\d)$/.exec(clock);
  const minutes = found ? Number(found[1]) * 60 + Number(found[2]) : NaN;
  if (!(minutes <= 1440)) {
    throw new BeaconError('BAD_INPUT', `A time of day is written as 06:30, got "${clock}".`, 'clock');
  }
  return minutes;
}

/**
 * The instant of a wall-clock time on a local day.
 *
 * @param wallMs midnight of the day on the wall clock, as if it were UTC. @param clock "06:00"; "24:00" is the next midnight.
 */
export function clockInstant(wallMs: number, clock: string, zone: string): number {
  const { instant, startOfDay } = zoneClock(zone);
  const minutes = minutesOf(clock);
  return minutes % 1440 === 0 ? startOfDay(wallMs + minutes * 60_000) : instant(wallMs + minutes * 60_000);
}
