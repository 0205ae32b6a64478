import type { MetricReading } from '../domain/metric';
import { DAY_MS, HOUR_MS } from '../time/lengths';

import type { Series } from '../series/series';
import { REGISTER_REACH_MS, spansOfEdges, tallySpans, type Spans } from '../summary/tallySpans';
import { emptyTallies, joinTally, type Tallies } from '../summary/tally';

/** Every zone's days and hours begin on a quarter of an hour of UTC, so quarters make up all of them. */
export const QUARTER_MS = 900_000;
export const QUARTERS_A_DAY = DAY_MS / QUARTER_MS;

/**
 * The 96 quarters of one UTC day, tallied. What is kept is a function of the samples alone: however they
 * came, the same samples give the same tallies to the last bit.
 *
 * @param series the samples of the day with the usable one before it and the usable one after it.
 */
export function rollupDay(series: Series, reading: MetricReading, dayStart: number): Tallies {
  return tallySpans(series, reading, quartersOf(dayStart), QUARTERS_A_DAY);
}

let quarters: { readonly dayStart: number; readonly spans: Spans } | null = null;

/** The quarters of a day; those asked for last are kept, because a batch asks for the same day many times. */
function quartersOf(dayStart: number): Spans {
  if (quarters?.dayStart !== dayStart) {
    const edges = Float64Array.from({ length: QUARTERS_A_DAY + 1 }, (_, i) => dayStart + i * QUARTER_MS);
    quarters = { dayStart, spans: spansOfEdges(edges) };
  }
  return quarters.spans;
}

/**
 * The 24 hours of a day, each joined from its four quarters. Kept beside the quarters: most questions end on
 * whole hours, and these are read in a third of the time.
 */
export function hoursOfQuarters(quarters: Tallies): Tallies {
  const hours = emptyTallies(DAY_MS / HOUR_MS);
  const each = quarters.size / hours.size;
  for (let i = 0; i < quarters.size; i++) joinTally(hours, Math.floor(i / each), quarters, i);
  return hours;
}

/** Does nothing at all touch this day? Then no rollup is kept for it. */
export function isEmptyRollup(tallies: Tallies): boolean {
  for (let i = 0; i < tallies.size; i++) {
    if (tallies.n[i] > 0 || tallies.heldMs[i] > 0 || tallies.spanMs[i] > 0) return false;
  }
  return true;
}

/**
 * Does one value hold through the whole of a day without samples, with nothing after it that reaches back? Then its
 * tallies depend on that value alone, and every such day has the same ones.
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
 * Which stretch of time a change of samples can alter, [start, end): from the first change on (for a
 * register from the reading before it) up to where the last changed sample stops holding.
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
