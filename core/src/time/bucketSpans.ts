import type { WorkingCalendar } from '../schemas/calendar';
import type { Spans } from '../summary/aggregate';
import { BeaconError } from '../errors';
import { checkPeriods, checkPieces } from './bounds';
import { isClockPeriod, periodsOf, STEP_MS, type Bucket } from './buckets';
import { hoursInside } from './hours';
import { type HoursFilter } from './hoursFilter';
import type { Fold } from './folds';
import type { Interval } from './interval';
import { plusPeriods, startOfPeriod } from './periodStart';

/** A window divided into periods, with the stretches inside the recurring hours. */
export interface BucketSpans {
  readonly window: Interval;
  readonly bucket: Bucket | null;
  /** How the periods were put into the cells of a grid; null = one after another. */
  readonly fold: Fold | null;
  readonly hours: HoursFilter | null;
  readonly zone: string;
  readonly calendar: WorkingCalendar;
  readonly size: number;
  /** Bounds of each period, whole, ms. */
  readonly start: readonly number[];
  readonly end: readonly number[];
  /** Names of shifts; null for other periods. */
  readonly names: readonly string[] | null;
  /** What lies inside window and recurring hours, in order of time. */
  readonly spans: Spans;
}

/**
 * Cuts a window into periods of a site's calendar and keeps only its recurring hours, to the minute.
 *
 * A period that begins before the window counts whole, as one would expect of "by day".
 *
 * @throws {BeaconError} BAD_INPUT before anything is laid out, for too many periods or too long a window.
 */
export function bucketSpans(
  window: Interval,
  bucket: Bucket | null,
  hours: HoursFilter | null,
  zone: string,
  calendar: WorkingCalendar,
): BucketSpans {
  checkPeriods(window, bucket, calendar);
  const { start, end, names } = periodsOf(window, bucket, zone, calendar);
  const size = start.length;
  const base = { window, bucket, fold: null, hours, zone, calendar, size, start, end, names };
  if (hours === null || size === 0) {
    const into = new Int32Array(size);
    for (let i = 0; i < size; i++) into[i] = i;
    return { ...base, spans: { start, end, into } };
  }
  const inside = hoursInside(hours, { start: start[0], end: Math.max(...end) }, zone, calendar);
  const cut: { start: number; end: number; into: number }[] = [];
  let first = 0;
  for (let i = 0; i < size; i++) {
    while (first < inside.length && inside[first].end <= start[i]) first++;
    for (let j = first; j < inside.length && inside[j].start < end[i]; j++) {
      const from = Math.max(inside[j].start, start[i]);
      const to = Math.min(inside[j].end, end[i]);
      if (to > from) cut.push({ start: from, end: to, into: i });
    }
  }
  return {
    ...base,
    spans: {
      start: cut.map((each) => each.start),
      end: cut.map((each) => each.end),
      into: cut.map((each) => each.into),
    },
  };
}

/**
 * The same periods with at least `steps` more before the first, for expressions that look back.
 *
 * @returns the longer buckets, and how many periods were put before.
 * @throws {BeaconError} BAD_INPUT for the cells of a grid, which do not follow one another.
 */
export function withEarlier(buckets: BucketSpans, steps: number): { buckets: BucketSpans; before: number } {
  if (steps <= 0 || buckets.size === 0) return { buckets, before: 0 };
  const { window, bucket, fold, hours, zone, calendar } = buckets;
  if (fold !== null) {
    throw new BeaconError(
      'BAD_INPUT',
      'An expression that looks back at earlier periods has no value for hours or days that come again. Choose periods one after another.',
      'fold',
    );
  }
  if (bucket === null) {
    // Windows of the same length, one after another up to this one.
    const length = window.end - window.start;
    if (hours) checkPieces({ start: window.start - steps * length, end: window.end }, hours, calendar);
    const starts = Array.from({ length: steps + 1 }, (_, i) => window.start - (steps - i) * length);
    const parts = starts.map((start) =>
      bucketSpans({ start, end: start + length }, null, hours, zone, calendar),
    );
    return { buckets: keepingSpans({ ...joined(parts), bucket: null, window }, buckets), before: steps };
  }
  const earlier = isClockPeriod(bucket)
    ? buckets.start[0] - steps * STEP_MS[bucket]
    : bucket === 'shift'
      ? plusPeriods(buckets.start[0], -(steps + 7), 'day', zone)
      : plusPeriods(startOfPeriod(buckets.start[0], bucket, zone, calendar), -steps, bucket, zone);
  const longer = bucketSpans({ start: earlier, end: window.end }, bucket, hours, zone, calendar);
  return { buckets: keepingSpans(longer, buckets), before: longer.size - buckets.size };
}

/** The longer buckets with the spans of the shorter ones in their last periods: those may have been narrowed. */
function keepingSpans(longer: BucketSpans, { size, spans }: BucketSpans): BucketSpans {
  const before = longer.size - size;
  const earlier = Array.from(longer.spans.into, (into, i) => ({ into, i })).filter(
    ({ into }) => into < before,
  );
  return {
    ...longer,
    spans: {
      start: [...earlier.map(({ i }) => longer.spans.start[i]), ...Array.from(spans.start)],
      end: [...earlier.map(({ i }) => longer.spans.end[i]), ...Array.from(spans.end)],
      into: [...earlier.map(({ into }) => into), ...Array.from(spans.into, (into) => into + before)],
    },
  };
}

function joined(parts: readonly BucketSpans[]): BucketSpans {
  const spans = parts.flatMap((part, at) =>
    Array.from({ length: part.spans.start.length }, (_, i) => ({
      start: part.spans.start[i],
      end: part.spans.end[i],
      into: at,
    })),
  );
  return {
    ...parts[parts.length - 1],
    size: parts.length,
    start: parts.map((part) => part.start[0]),
    end: parts.map((part) => part.end[0]),
    spans: {
      start: spans.map((each) => each.start),
      end: spans.map((each) => each.end),
      into: spans.map((each) => each.into),
    },
  };
}
