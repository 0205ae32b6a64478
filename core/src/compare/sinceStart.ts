import { DateTime } from 'luxon';
import type { TrendAnswer } from '../api/readings';
import { DAY_MS, HOUR_MS, MINUTE_MS } from '../time/lengths';

const DATE = /^\d{4}-\d{2}-\d{2}(?:[T ]\d{2}:\d{2}(?::\d{2})?)?$/;

/**
 * Parses an attribute such as "Commissioned: 2026-03-02" or "2026-03-02 06:00" in local time of the site.
 * @returns null if it is no ISO 8601 date.
 */
export function startOfAttribute(value: string | number | undefined, zone: string): number | null {
  if (typeof value !== 'string' || !DATE.test(value.trim())) return null;
  const at = DateTime.fromISO(value.trim().replace(' ', 'T'), { zone });
  return at.isValid ? at.toMillis() : null;
}

/** A trend relative to its start event: times are ms since the event. */
export function sinceStart(answer: TrendAnswer, start: number): TrendAnswer {
  const back = (t: number): number => t - start;
  return {
    ...answer,
    zone: 'UTC',
    now: back(answer.now),
    window: { start: back(answer.window.start), end: back(answer.window.end) },
    t: answer.t.map(back),
    until: answer.until && answer.until.map(back),
    ...(answer.thin && {
      thin: answer.thin.map((each) => ({ ...each, start: back(each.start), end: back(each.end) })),
    }),
    gaps: answer.gaps.map((gap) => ({ start: back(gap.start), end: back(gap.end) })),
  };
}

/**
 * Time since an event in words: "day 3", "day 3, 04:00". Days of 24 hours; the event begins day 0.
 * @example sinceWords(3 * DAY_MS + 4 * HOUR_MS) // => 'day 3, 04:00'
 */
export function sinceWords(t: number): string {
  const day = Math.floor(t / DAY_MS);
  const rest = t - day * DAY_MS;
  if (rest === 0) return `day ${day}`;
  const two = (n: number): string => String(Math.floor(n)).padStart(2, '0');
  return `day ${day}, ${two(rest / HOUR_MS)}:${two((rest % HOUR_MS) / MINUTE_MS)}`;
}
