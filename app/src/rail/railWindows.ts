import { DateTime } from 'luxon';
import { sameWindow, startOfPeriod, steadyZone, type Interval, type WindowSpec } from '@vivid-beacon/core';

export type RailWord = 'today' | 'week' | 'month' | 'year' | 'custom';

/** The windows that have a word of their own on the rail. */
export const RAIL_WINDOWS: Readonly<Record<Exclude<RailWord, 'custom'>, WindowSpec>> = {
  today: { kind: 'toDate', unit: 'day' },
  week: { kind: 'periods', count: 7, unit: 'day', current: true },
  month: { kind: 'toDate', unit: 'month' },
  year: { kind: 'toDate', unit: 'year' },
};

export const RAIL_WORDS: readonly { readonly value: RailWord; readonly label: string }[] = [
  { value: 'today', label: 'Today' },
  { value: 'week', label: '7 days' },
  { value: 'month', label: 'Month' },
  { value: 'year', label: 'Year so far' },
  { value: 'custom', label: 'Custom' },
];

/** The word of a window, "custom" for all others. */
export function railWord(window: WindowSpec): RailWord {
  const found = (Object.keys(RAIL_WINDOWS) as (keyof typeof RAIL_WINDOWS)[]).find((word) =>
    sameWindow(RAIL_WINDOWS[word], window),
  );
  return found ?? 'custom';
}

/** What the rail spans: the window with a sixth of its length around it. */
export function railDomain(window: Interval): Interval {
  const margin = (window.end - window.start) / 6;
  return { start: window.start - margin, end: window.end + margin / 3 };
}

export type RailBar = 'hour' | 'day' | 'week' | 'month';

/** Unit of the chequered border and of the finer ticks below it, by the length of the window. */
export function railUnits(window: Interval): { bar: RailBar; tickMs: number } {
  const days = (window.end - window.start) / 86_400_000;
  if (days <= 2) return { bar: 'hour', tickMs: 900_000 };
  if (days <= 12) return { bar: 'day', tickMs: 6 * 3_600_000 };
  if (days <= 70) return { bar: 'week', tickMs: 86_400_000 };
  return { bar: 'month', tickMs: 7 * 86_400_000 };
}

/** An absolute window between two instants, snapped to ticks, in the zone's wall-clock time. */
export function absoluteWindow(start: number, end: number, tickMs: number, zone: string): WindowSpec {
  const snap = (t: number): number => {
    const midnight = startOfPeriod(t, 'day', zone);
    return midnight + Math.round((t - midnight) / tickMs) * tickMs;
  };
  const from = snap(start);
  const to = Math.max(snap(end), from + tickMs);
  const write = (t: number): string =>
    DateTime.fromMillis(t, { zone: steadyZone(zone) }).toFormat("yyyy-MM-dd'T'HH:mm");
  return { kind: 'absolute', start: write(from), end: write(to) };
}
