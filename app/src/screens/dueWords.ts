import { DateTime } from 'luxon';
import { formatDate, formatLength, formatTime } from '@vivid-beacon/core';

/** When something is due, in words, and by how much it is late. */
export function dueWords(
  dueAt: number,
  now: number,
  zone: string,
): { words: string; overdue: string | null } {
  const due = DateTime.fromMillis(dueAt, { zone });
  const today = DateTime.fromMillis(now, { zone }).startOf('day');
  const days = Math.round(due.startOf('day').diff(today, 'days').days);
  const day =
    days === 0 ? 'today' : days === 1 ? 'tomorrow' : days === -1 ? 'yesterday' : formatDate(dueAt, zone, now);
  return {
    words: `due ${formatTime(dueAt, zone)} ${day}`,
    overdue: dueAt < now ? `Overdue ${formatLength(now - dueAt)}` : null,
  };
}
