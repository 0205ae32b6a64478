import { workingTime } from '../calendar/workingCalendar';
import { lengthOfSpans, elapsedSpans } from '../summary/summarise';
import type { BucketSpans } from './bucketSpans';
import { intersectionOf } from './intervals';
import { HOUR_MS } from './lengths';
import { localDays, zoneClock } from './zoneClock';
import { COLUMNS_OF_FOLD, type Fold } from './folds';

/**
 * Periods put into the cells of a grid, row by row. A cell holds every stretch of time that falls into it: of the hours
 * of a week all Mondays from 06:00 to 07:00, on the day the clock is set back both hours from 02:00. Rows are the
 * weekdays from Monday, one row for the hours of a day, or the dates or months of the window.
 *
 * @param buckets hours, or days for the days of a month, unfolded.
 * @returns the same with one bucket per cell; `start` and `end` are the first start and last end of what is in a
 * cell, equal where nothing is.
 */
export function foldedBuckets(buckets: BucketSpans, fold: Fold): BucketSpans {
  const columns = COLUMNS_OF_FOLD[fold];
  const places = placesOfPeriods(buckets, fold);
  const rows =
    fold === 'hourOfWeek' ? 7 : fold === 'hourOfDay' ? 1 : 1 + Math.max(-1, ...places.map(({ row }) => row));
  const size = rows * columns;
  const cellOf = places.map(({ row, column }) => row * columns + column);
  const { start } = buckets.window;
  const starts = new Array<number>(size).fill(start);
  const ends = new Array<number>(size).fill(start);
  const filled = new Set<number>();
  cellOf.forEach((cell, i) => {
    if (!filled.has(cell)) starts[cell] = buckets.start[i];
    filled.add(cell);
    ends[cell] = buckets.end[i];
  });
  const { spans } = buckets;
  return {
    ...buckets,
    fold,
    size,
    start: starts,
    end: ends,
    names: null,
    spans: { ...spans, into: Array.from(spans.into, (into) => cellOf[into]) },
  };
}

interface Place {
  readonly row: number;
  readonly column: number;
}

/** Row and column of each period, on the local clock. */
function placesOfPeriods({ start, end, zone }: BucketSpans, fold: Fold): Place[] {
  if (start.length === 0) return [];
  const days = localDays(start[0], end[end.length - 1], zone);
  const places: Place[] = [];
  let day = 0;
  let firstMonth: number | null = null;
  for (const at of start) {
    while (days[day].end <= at) day++;
    const { wallMs, weekday } = days[day];
    const date = new Date(wallMs);
    if (fold === 'dayOfMonth') {
      const month = date.getUTCFullYear() * 12 + date.getUTCMonth();
      firstMonth ??= month;
      places.push({ row: month - firstMonth, column: date.getUTCDate() - 1 });
      continue;
    }
    const column = hourOnClock(at, wallMs, zone);
    places.push({ row: fold === 'hourOfWeek' ? weekday - 1 : fold === 'hourOfDay' ? 0 : day, column });
  }
  return places;
}

/** What an hour is called on the local clock of its day, 0 to 23. */
function hourOnClock(at: number, wallMs: number, zone: string): number {
  const hour = Math.floor((at + zoneClock(zone).offset(at) - wallMs) / HOUR_MS);
  return Math.min(23, Math.max(0, hour));
}

/** For each cell of a folded grid the hours that have passed inside window and recurring hours. */
export function passedHours({ spans, size }: BucketSpans, now: number): number[] {
  return Array.from(lengthOfSpans(elapsedSpans(spans, now), size), (ms) => ms / HOUR_MS);
}

/** For each cell of a folded grid the share of its time that the calendar calls working time; 0 for empty cells. */
export function workingShares({ spans, size, start, end, zone, calendar }: BucketSpans): number[] {
  const whole = lengthOfSpans(spans, size);
  const working = new Float64Array(size);
  if (size > 0) {
    const reach = { start: Math.min(...start), end: Math.max(...end) };
    const inside = workingTime(calendar, reach, zone);
    let from = 0;
    for (let i = 0; i < spans.start.length; i++) {
      const span = { start: spans.start[i], end: spans.end[i] };
      while (from < inside.length && inside[from].end <= span.start) from++;
      let to = from;
      while (to < inside.length && inside[to].start < span.end) to++;
      for (const part of intersectionOf(inside.slice(from, to), [span]))
        working[spans.into[i]] += part.end - part.start;
    }
  }
  return Array.from(whole, (ms, i) => (ms > 0 ? working[i] / ms : 0));
}
