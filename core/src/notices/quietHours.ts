import { clockInstant, minutesOf } from '../calendar/workingCalendar';
import { DAY_MS } from '../time/lengths';
import { zoneClock } from '../time/zoneClock';
import type { NoticeWish } from './notice';

/**
 * When a notice may be sent: now, or at the end of the quiet hours that hold `now`. What is urgent does not wait.
 *
 * @returns ms since the Unix epoch.
 */
export function sendAt(
  now: number,
  { quiet, zone }: Pick<NoticeWish, 'quiet' | 'zone'>,
  urgent: boolean,
): number {
  if (!quiet || urgent || quiet.from === quiet.to) return now;
  const today = zoneClock(zone).dayAt(now);
  const over = minutesOf(quiet.to) <= minutesOf(quiet.from);
  for (const day of [today - DAY_MS, today]) {
    const start = clockInstant(day, quiet.from, zone);
    const end = clockInstant(over ? day + DAY_MS : day, quiet.to, zone);
    // Also where the next begin at once, because the clock leaps over the time between: one moment a day is free.
    if (now === end) return now;
    if (now >= start && now < end) return end;
  }
  return now;
}
