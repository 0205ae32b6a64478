import { scaleLinear, type ScaleLinear } from 'd3-scale';
import { DateTime } from 'luxon';
import { limitsOf, type TargetBand } from '../../bands/targetBand';
import { sinceWords } from '../../compare/sinceStart';
import type { Interval } from '../../time/interval';
import type { TrendAnswer } from '../../api/readings';
import type { Bucket } from '../../time/buckets';
import { clockText, formatsInUse } from '../../format/formats';
import { steadyZone } from '../../time/steadyZone';
import { knownExtent } from '../knownExtent';

/** The period of each point, ms. */
export interface PointPeriods {
  readonly bucket: Bucket;
  readonly start: readonly number[];
  readonly end: readonly number[];
}

/** The part of a trend that is drawn. */
export interface DrawnPart {
  readonly t: readonly number[];
  readonly v: readonly (number | null)[];
  /** null = samples. */
  readonly periods: PointPeriods | null;
  /** The time from here on is hatched. */
  readonly finishedUntil: number;
}

/**
 * The points of a trend as they are drawn, named and listed. Of periods the last, unfinished one is left out:
 * beside the others it would look like a collapse. A running total has it, for it is true so far; its points lie
 * where each total is reached. A trend of samples is finished up to now.
 */
export function drawnPart(
  { t, v, until, bucket, now }: Pick<TrendAnswer, 't' | 'v' | 'until' | 'bucket' | 'now'>,
  cumulative: boolean,
): DrawnPart {
  if (until === null || bucket === null) return { t, v, periods: null, finishedUntil: now };
  const done = until.filter((end) => end <= now).length;
  const shown = cumulative ? t.filter((start) => start < now).length : done;
  const [start, end] = [t.slice(0, shown), until.slice(0, shown)];
  return {
    t: cumulative ? end.map((each) => Math.min(each, now)) : bucketMiddles(start, end, now),
    v: v.slice(0, shown),
    periods: { bucket, start, end },
    finishedUntil: done < t.length ? t[done] : now,
  };
}

/** Columns of a bucketed trend as one line through the middles of the buckets. */
export function bucketMiddles(t: readonly number[], until: readonly number[], now: number): number[] {
  return t.map((start, i) => (start + Math.min(until[i], Math.max(start, now))) / 2);
}

/** Closer to 0 than this, values cannot be distinguished: px per unit would overflow. */
const SMALLEST = 1e-200;

/** Ends of the value axis: the data and nearby limits, rounded to round numbers. */
export function valueDomain(v: readonly (number | null)[], band: TargetBand | null): [number, number] {
  const [low, high] = knownExtent([...knownExtent(v), ...(band ? limitsOf(band) : [])]);
  if (low === undefined || Math.max(Math.abs(low), Math.abs(high)) < SMALLEST) return [0, 1];
  if (low === high) return low === 0 ? [0, 1] : [low - Math.abs(low) * 0.1, high + Math.abs(high) * 0.1];
  const room = (high - low) * 0.08;
  const from = low >= 0 && low - room < 0 ? 0 : low - room;
  const [a, b] = scaleLinear()
    .domain([from, high + room])
    .nice(5)
    .domain();
  return [a, b];
}

export interface TimeTick {
  readonly t: number;
  readonly label: string;
}

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sept', 'Oct', 'Nov', 'Dec'];
const two = (n: number): string => String(n).padStart(2, '0');

/** Hand-written, because formatting by locale takes longer than the rest of an axis. */
const LABELS = {
  'HH:mm': ({ hour, minute }: DateTime) => clockText(hour, minute),
  'ccc d': ({ weekday, day }: DateTime) => `${DAYS[weekday - 1]} ${day}`,
  'd LLL': ({ day, month }: DateTime) => {
    const { dateOrder } = formatsInUse();
    if (dateOrder === 'yearMonthDay') return `${two(month)}-${two(day)}`;
    return dateOrder === 'dayMonth' ? `${day} ${MONTHS[month - 1]}` : `${MONTHS[month - 1]} ${day}`;
  },
  'LLL yy': ({ month, year }: DateTime) => `${MONTHS[month - 1]} ${two(year % 100)}`,
  yyyy: ({ year }: DateTime) => String(year),
};

const knownTicks = new Map<string, readonly TimeTick[]>();
const MAX_KNOWN = 60;

/** Labels of local time, as many as fit. All trends of a board share them, so they are cached. */
export function timeTicks(window: Interval, zone: string, width: number): readonly TimeTick[] {
  const { dateOrder, clock } = formatsInUse();
  const key = `${window.start} ${window.end} ${zone} ${width} ${dateOrder} ${clock}`;
  let ticks = knownTicks.get(key);
  if (!ticks) {
    if (knownTicks.size >= MAX_KNOWN) knownTicks.clear();
    ticks = layTicks(window, zone, width);
    knownTicks.set(key, ticks);
  }
  return ticks;
}

/** Days start at their tick; hours are at round hours. */
function layTicks(window: Interval, zone: string, width: number): TimeTick[] {
  const span = window.end - window.start;
  const room = Math.max(2, Math.floor(width / 72));
  const { unit, every, format } = stepFor(span, room);
  const ticks: TimeTick[] = [];
  let at = DateTime.fromMillis(window.start, { zone: steadyZone(zone), locale: 'en-GB' }).startOf(
    unit === 'hour' ? 'day' : unit,
  );
  // Days are counted from the first midnight in the window; otherwise a week could have its only tick at the
  // end.
  if (unit === 'day' && at.toMillis() < window.start) at = at.plus({ days: 1 });
  while (at.toMillis() < window.end && ticks.length < 400) {
    if (at.toMillis() >= window.start) ticks.push({ t: at.toMillis(), label: LABELS[format](at) });
    at = at.plus({ [unit]: every });
  }
  return ticks;
}

/** Graduations of time since a start event: whole days, or hours of a short stretch. */
export function sinceTicks(window: Interval, width: number): TimeTick[] {
  const room = Math.max(2, Math.floor(width / 72));
  const span = window.end - window.start;
  const steps = [
    HOUR,
    3 * HOUR,
    6 * HOUR,
    ...[1, 2, 5, 7, 10, 14, 30, 60, 90, 180, 365, 730].map((n) => n * DAY),
  ];
  const step = steps.find((each) => span / each <= room) ?? steps[steps.length - 1];
  const ticks: TimeTick[] = [];
  for (let t = Math.ceil(window.start / step) * step; t < window.end; t += step) {
    ticks.push({ t, label: sinceWords(t) });
  }
  return ticks;
}

function stepFor(
  span: number,
  room: number,
): { unit: 'minute' | 'hour' | 'day' | 'month' | 'year'; every: number; format: keyof typeof LABELS } {
  const fits = (step: number): boolean => span / step <= room;
  for (const minutes of [5, 10, 15, 30]) {
    if (fits(minutes * 60_000)) return { unit: 'minute', every: minutes, format: 'HH:mm' };
  }
  for (const hours of [1, 2, 3, 6, 12])
    // Hours without a date are ambiguous beyond two days.
    if (fits(hours * HOUR) && span <= 2 * DAY) return { unit: 'hour', every: hours, format: 'HH:mm' };
  for (const days of [1, 2, 3, 7, 14])
    if (fits(days * DAY)) return { unit: 'day', every: days, format: days === 1 ? 'ccc d' : 'd LLL' };
  for (const months of [1, 2, 3, 6])
    if (fits(months * 30.5 * DAY)) return { unit: 'month', every: months, format: 'LLL yy' };
  const years = Math.max(1, Math.ceil(span / (365 * DAY) / room));
  return { unit: 'year', every: years, format: 'yyyy' };
}

/** Index of the point nearest in time that has a value; −1 if there is none. */
export function nearestIndex(t: readonly number[], v: readonly (number | null)[], at: number): number {
  let best = -1;
  for (let i = 0; i < t.length; i++) {
    if (v[i] === null) continue;
    if (best < 0 || Math.abs(t[i] - at) < Math.abs(t[best] - at)) best = i;
  }
  return best;
}

/** From time (ms) to px. */
export type TimeScale = (t: number) => number;
export type ValueScale = ScaleLinear<number, number>;

export function timeScale(window: Interval, width: number): TimeScale {
  const perMs = width / (window.end - window.start);
  return (t) => (t - window.start) * perMs;
}

export function valueScale(domain: readonly [number, number], height: number): ValueScale {
  return scaleLinear().domain(domain).range([height, 0]);
}
