import { shiftSpans } from '../calendar/workingCalendar';
import { type WorkingCalendar } from '../schemas/calendar';
import { BeaconError } from '../errors';
import type { Interval } from './interval';
import { localDays } from './zoneClock';
import { plusPeriods, startOfPeriod, DEFAULT_RULES, type PeriodRules } from './periodStart';

export const BUCKETS = [
  'fiveMinutes',
  'quarterHour',
  'hour',
  'shift',
  'day',
  'week',
  'month',
  'quarter',
  'year',
  'financialQuarter',
  'financialYear',
] as const;
export type Bucket = (typeof BUCKETS)[number];

/** How a bucket is called on a screen. */
export const BUCKET_WORDS: Readonly<Record<Bucket, string>> = {
  fiveMinutes: 'five minutes',
  quarterHour: 'quarter of an hour',
  hour: 'hour',
  shift: 'shift',
  day: 'day',
  week: 'week',
  month: 'month',
  quarter: 'quarter',
  year: 'year',
  financialQuarter: 'financial quarter',
  financialYear: 'financial year',
};

const MAX_BUCKETS = 40_000;
/** Lengths of the periods that are counted on the clock, ms. */
export const STEP_MS = { fiveMinutes: 300_000, quarterHour: 900_000, hour: 3_600_000 } as const;

/**
 * The edges of the local hours, days, weeks … that touch a window: bucket i is [edges[i], edges[i + 1]).
 * A day has 23 or 25 hours where the clock changes; an hour is a length of time, so that the repeated hour is
 * a bucket of its own.
 *
 * @throws {BeaconError} BAD_INPUT when that would be more than 40,000 buckets, or for shifts, which leave gaps.
 */
export function bucketEdges(
  window: Interval,
  bucket: Bucket,
  zone: string,
  rules: PeriodRules = DEFAULT_RULES,
): number[] {
  if (bucket === 'shift') throw new BeaconError('BAD_INPUT', 'Shifts are not one after another.', 'bucket');
  if (isClockPeriod(bucket)) return clockEdges(window, STEP_MS[bucket], zone, bucket);
  if (bucket === 'day') {
    const days = localDays(window.start, window.end, zone);
    if (days.length > MAX_BUCKETS) throw tooMany(bucket);
    return [...days.map(({ start }) => start), days[days.length - 1].end];
  }
  const edges: number[] = [];
  let at = startOfPeriod(window.start, bucket, zone, rules);
  while (at < window.end) {
    edges.push(at);
    if (edges.length > MAX_BUCKETS) throw tooMany(bucket);
    at = plusPeriods(at, 1, bucket, zone);
  }
  edges.push(at);
  return edges;
}

/** Whether a period is a length of time on the clock, not a day or longer. */
export const isClockPeriod = (bucket: Bucket): bucket is keyof typeof STEP_MS =>
  Object.hasOwn(STEP_MS, bucket);

/** Hours, quarters and five minutes counted from local midnight; a day that is not a whole number of them ends with a short one. */
function clockEdges(window: Interval, stepMs: number, zone: string, bucket: Bucket): number[] {
  const edges: number[] = [];
  const days = localDays(window.start, window.end, zone);
  for (const { start, end } of days) {
    for (let at = start; at < end; at += stepMs) {
      if (Math.min(at + stepMs, end) <= window.start) continue;
      edges.push(at);
      if (edges.length > MAX_BUCKETS) throw tooMany(bucket);
      if (at >= window.end) return edges;
    }
  }
  edges.push(days[days.length - 1].end);
  return edges;
}

function tooMany(bucket: Bucket): BeaconError {
  return new BeaconError(
    'BAD_INPUT',
    `By the ${BUCKET_WORDS[bucket]} this window has more than ${MAX_BUCKETS} periods. Choose a longer period.`,
    'bucket',
  );
}

/** Periods of a window; shifts have names and may leave gaps or overlap. Columns of equal length, ms. */
export interface Periods {
  readonly start: readonly number[];
  readonly end: readonly number[];
  readonly names: readonly string[] | null;
}

/** The periods that touch a window, of any bucket. `null` = the window as one period. */
export function periodsOf(
  window: Interval,
  bucket: Bucket | null,
  zone: string,
  calendar: WorkingCalendar,
): Periods {
  if (bucket === null) return { start: [window.start], end: [window.end], names: null };
  if (bucket === 'shift') {
    const spans = shiftSpans(calendar, window, zone);
    if (calendar.shifts.length === 0) {
      throw new BeaconError(
        'BAD_INPUT',
        'This site has no shifts. Set its working calendar first.',
        'bucket',
      );
    }
    if (spans.length > MAX_BUCKETS) throw tooMany(bucket);
    return {
      start: spans.map(({ start }) => start),
      end: spans.map(({ end }) => end),
      names: spans.map(({ name }) => name),
    };
  }
  const edges = bucketEdges(window, bucket, zone, calendar);
  return { start: edges.slice(0, -1), end: edges.slice(1), names: null };
}
