import type { MetricReading } from '../domain/metric';
import { DAY_MS, HOUR_MS } from '../time/lengths';

import type { Series } from '../series/series';
import { REGISTER_REACH_MS, spansOfEdges, aggregate, type Spans } from '../summary/aggregate';
import { emptyAggregates, mergeAggregates, type Aggregates } from '../summary/aggregates';

/** Days and hours of every zone begin on a quarter-hour of UTC, so quarters compose all of them. */
export const QUARTER_MS = 900_000;
export const QUARTERS_A_DAY = DAY_MS / QUARTER_MS;

/**
 * Aggregates of the 96 quarters of one UTC day. They depend on the samples alone: the same samples give the
 * same bits, however they arrived.
 *
 * @param series the samples of the day with the usable one before it and the usable one after it.
 */
export function rollupDay(series: Series, reading: MetricReading, dayStart: number): Aggregates {
  return aggregate(series, reading, quartersOf(dayStart), QUARTERS_A_DAY);
}

let quarters: { readonly dayStart: number; readonly spans: Spans } | null = null;

/** The quarters of a day; the last result is cached, because a batch asks for the same day many times. */
function quartersOf(dayStart: number): Spans {
  if (quarters?.dayStart !== dayStart) {
    const edges = Float64Array.from({ length: QUARTERS_A_DAY + 1 }, (_, i) => dayStart + i * QUARTER_MS);
    quarters = { dayStart, spans: spansOfEdges(edges) };
  }
  return quarters.spans;
}

/**
 * The 24 hours of a day, each merged from four quarters. Stored beside the quarters, because most queries end
 * on whole hours and reading hours takes a third of the time.
 */
export function hoursOfQuarters(quarters: Aggregates): Aggregates {
  const hours = emptyAggregates(DAY_MS / HOUR_MS);
  const each = quarters.size / hours.size;
  for (let i = 0; i < quarters.size; i++) mergeAggregates(hours, Math.floor(i / each), quarters, i);
  return hours;
}

/** Whether the day has no data at all; no rollup is stored then. */
export function isEmptyRollup(aggregates: Aggregates): boolean {
  for (let i = 0; i < aggregates.size; i++) {
    if (aggregates.n[i] > 0 || aggregates.heldMs[i] > 0 || aggregates.spanMs[i] > 0) return false;
  }
  return true;
}

/**
 * Whether one value holds through a whole day without samples and nothing later reaches back into it. All
 * such days have the same aggregates.
 *
 * @param before time of the usable sample before the day, null without. @param next of the one after it.
 */
export function holdsThroughout(
  { kind, intervalMs, maxGapMs }: MetricReading,
  before: number | null,
  next: number | null,
  dayStart: number,
): boolean {
  if (before === null || (kind === 'register' && next !== null)) return false;
  return before + (kind === 'amount' ? intervalMs : maxGapMs) >= dayStart + DAY_MS;
}

/**
 * The stretch [start, end) whose aggregates a change of samples can alter: from the first change (for a
 * register, from the reading before it) to where the last changed sample stops holding.
 *
 * @param before usable time before the first change, null without. @param next usable time after the last.
 */
export function touchedStretch(
  reading: MetricReading,
  change: { readonly first: number; readonly last: number },
  before: number | null,
  next: number | null,
): { readonly start: number; readonly end: number } {
  if (reading.kind === 'register') {
    const near = (t: number | null, from: number): t is number =>
      t !== null && Math.abs(t - from) <= REGISTER_REACH_MS;
    const held = Math.min(next ?? Infinity, change.last + reading.maxGapMs);
    return {
      start: near(before, change.first) ? before : change.first,
      end: Math.max(change.last + 1, near(next, change.last) ? next : held),
    };
  }
  const hold = reading.kind === 'amount' ? reading.intervalMs : reading.maxGapMs;
  return {
    start: change.first,
    end: Math.max(change.last + 1, Math.min(next ?? Infinity, change.last + hold)),
  };
}
