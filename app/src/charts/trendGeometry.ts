import { scaleLinear, scaleTime, type ScaleLinear, type ScaleTime } from 'd3-scale';
import { DateTime } from 'luxon';
import {
  limitsOf,
  sectorsOf,
  sinceWords,
  type Interval,
  type Level,
  type TargetBand,
  type TrendAnswer,
  steadyZone,
} from '@vivid-beacon/core';
import { knownExtent } from './knownExtent';
import { tenths } from './tenths';

/** A line's points in px, cut where a gap opens. */
export function linePath(
  t: readonly number[],
  v: readonly (number | null)[],
  x: (t: number) => number,
  y: (v: number) => number,
): string {
  let path = '';
  let pen = 'M';
  for (let i = 0; i < t.length; i++) {
    const value = v[i];
    if (value === null) {
      pen = 'M';
      continue;
    }
    path += `${pen}${tenths(x(t[i]))} ${tenths(y(value))}`;
    pen = 'L';
  }
  return path;
}

/**
 * A bucketed trend without its last, unfinished period: drawn to the end it would look like a collapse. What
 * is left out is hatched from `finishedUntil` on. A trend of samples is all finished, up to now.
 */
export function finishedPart(answer: Pick<TrendAnswer, 't' | 'v' | 'until' | 'now'>): {
  readonly t: readonly number[];
  readonly v: readonly (number | null)[];
  readonly finishedUntil: number;
} {
  const { t, v, until, now } = answer;
  if (until === null) return { t, v, finishedUntil: now };
  const done = until.filter((end) => end <= now).length;
  return {
    t: bucketMiddles(t.slice(0, done), until.slice(0, done), now),
    v: v.slice(0, done),
    finishedUntil: done < t.length ? t[done] : now,
  };
}

/** Columns of a bucketed trend as one line through the middles of the buckets. */
export function bucketMiddles(t: readonly number[], until: readonly number[], now: number): number[] {
  return t.map((start, i) => (start + Math.min(until[i], Math.max(start, now))) / 2);
}

/** Ends of the value axis: data and the limits near them, rounded to nice numbers. */
export function valueDomain(v: readonly (number | null)[], band: TargetBand | null): [number, number] {
  const [low, high] = knownExtent([...knownExtent(v), ...(band ? limitsOf(band) : [])]);
  if (low === undefined) return [0, 1];
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

const knownTicks = new Map<string, readonly TimeTick[]>();
const MOST_KNOWN = 60;

/** Labels of local time, as many as fit. All trends of a board have the same: they are laid out once. */
export function timeTicks(window: Interval, zone: string, width: number): readonly TimeTick[] {
  const key = `${window.start} ${window.end} ${zone} ${width}`;
  let ticks = knownTicks.get(key);
  if (!ticks) {
    if (knownTicks.size >= MOST_KNOWN) knownTicks.clear();
    ticks = layTicks(window, zone, width);
    knownTicks.set(key, ticks);
  }
  return ticks;
}

/** Days start at their tick, hours stand on round hours. */
function layTicks(window: Interval, zone: string, width: number): TimeTick[] {
  const span = window.end - window.start;
  const room = Math.max(2, Math.floor(width / 72));
  const { unit, every, format } = stepFor(span, room);
  const ticks: TimeTick[] = [];
  let at = DateTime.fromMillis(window.start, { zone: steadyZone(zone), locale: 'en-GB' }).startOf(
    unit === 'hour' ? 'day' : unit,
  );
  // Days are counted from the first midnight inside, or a week would have its only tick at its end.
  if (unit === 'day' && at.toMillis() < window.start) at = at.plus({ days: 1 });
  while (at.toMillis() < window.end && ticks.length < 400) {
    if (at.toMillis() >= window.start) ticks.push({ t: at.toMillis(), label: at.toFormat(format) });
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
): { unit: 'minute' | 'hour' | 'day' | 'month' | 'year'; every: number; format: string } {
  const fits = (step: number): boolean => span / step <= room;
  for (const minutes of [5, 10, 15, 30]) {
    if (fits(minutes * 60_000)) return { unit: 'minute', every: minutes, format: 'HH:mm' };
  }
  for (const hours of [1, 2, 3, 6, 12])
    // Hours without their day tell nothing over more than two of them.
    if (fits(hours * HOUR) && span <= 2 * DAY) return { unit: 'hour', every: hours, format: 'HH:mm' };
  for (const days of [1, 2, 3, 7, 14])
    if (fits(days * DAY)) return { unit: 'day', every: days, format: days === 1 ? 'ccc d' : 'd LLL' };
  for (const months of [1, 2, 3, 6])
    if (fits(months * 30.5 * DAY)) return { unit: 'month', every: months, format: 'LLL yy' };
  const years = Math.max(1, Math.ceil(span / (365 * DAY) / room));
  return { unit: 'year', every: years, format: 'yyyy' };
}

/** A stretch of the plot's height that has one level; `top` < `bottom` in px. */
export interface Channel {
  readonly top: number;
  readonly bottom: number;
  readonly level: Exclude<Level, 'nodata'>;
}

/** The target band as stretches of the value axis, for the channel at the right edge and for colouring the line. */
export function channels(
  band: TargetBand,
  domain: readonly [number, number],
  y: (v: number) => number,
): Channel[] {
  return sectorsOf(band, domain[0], domain[1])
    .map(({ from, to, level }) => ({
      top: Math.min(y(from), y(to)),
      bottom: Math.max(y(from), y(to)),
      level,
    }))
    .sort((a, b) => b.top - a.top);
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

export type TimeScale = ScaleTime<number, number>;
export type ValueScale = ScaleLinear<number, number>;

export function timeScale(window: Interval, width: number): TimeScale {
  return scaleTime().domain([window.start, window.end]).range([0, width]);
}

export function valueScale(domain: readonly [number, number], height: number): ValueScale {
  return scaleLinear().domain(domain).range([height, 0]);
}
