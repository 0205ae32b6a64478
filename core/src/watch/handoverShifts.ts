import { shiftSpans } from '../calendar/workingCalendar';
import { type Shift, type WorkingCalendar } from '../schemas/calendar';
import type { HandoverShift } from '../api/handover';
import { DAY_MS } from '../time/lengths';

const BACK_MS = 3 * DAY_MS;
const MAX_SHIFTS = 6;

/** Where no shifts are set down: the thirds of each day on the clock of the plant. */
const THIRDS: readonly Shift[] = [
  ['00:00', '08:00'],
  ['08:00', '16:00'],
  ['16:00', '24:00'],
].map(([from, to]) => ({ name: `${from} to ${to}`, days: [1, 2, 3, 4, 5, 6, 7], from, to }));

/**
 * The shifts that a person may want to hand over: the one under way first, then those before it. Between shifts the
 * one that ended last comes first.
 */
export function handoverShifts(calendar: WorkingCalendar, now: number, zone: string): HandoverShift[] {
  const known = calendar.shifts.length > 0 ? calendar : { ...calendar, shifts: THIRDS, holidays: [] };
  return shiftSpans(known, { start: now - BACK_MS, end: now + 1 }, zone)
    .filter(({ start }) => start <= now)
    .sort((a, b) => b.start - a.start || b.end - a.end)
    .slice(0, MAX_SHIFTS);
}
