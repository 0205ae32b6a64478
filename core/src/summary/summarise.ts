import { BeaconError } from '../errors';
import {
  RUNNING,
  SUMMARIES_OF_KIND,
  SUMMARY_WORDS,
  type MetricReading,
  type Summary,
} from '../domain/metric';
import { firstAtOrAfter, type Series } from '../series/series';
import { mean, quantile, standardDeviation, sum } from '../stats/stats';
import { overlapMs, type Interval } from '../time/interval';
import { coveredMs, holdsUntil } from './coverage';

/** One number for a window, with what it rests on. */
export interface Summarised {
  /** In the unit of the summary; null when nothing usable lies in the window. */
  readonly value: number | null;
  /** Samples inside the window that were used. */
  readonly samples: number;
  /** Share of the elapsed window with usable data, 0 to 1. */
  readonly coverage: number;
}

const HOUR_MS = 3_600_000;

/**
 * Summarises the samples of a window by the rules of the metric's kind.
 *
 * @param series must reach back before the window by the longest allowed gap (and, for a register, to
 *               the sample before and after the window), so that what holds at its start is known.
 * @param window [start, end). @param now nothing after it counts as elapsed.
 * @throws {BeaconError} BAD_INPUT if the summary makes no sense for the kind.
 * @example
 * // 20 °C for one minute, then 30 °C for three: the time-weighted mean is 27.5 °C.
 * summarise(seriesOf([0, 60_000], [20, 30]), 'mean',
 *   { kind: 'level', intervalMs: 60_000, maxGapMs: 600_000, rollover: null }, { start: 0, end: 240_000 }, 240_000)
 */
export function summarise(
  series: Series,
  summary: Summary,
  reading: MetricReading,
  window: Interval,
  now: number,
): Summarised {
  if (!SUMMARIES_OF_KIND[reading.kind].includes(summary)) {
    throw new BeaconError(
      'BAD_INPUT',
      `The ${SUMMARY_WORDS[summary]} makes no sense for a metric of kind ${reading.kind}; ` +
        `choose one of ${SUMMARIES_OF_KIND[reading.kind].map((name) => SUMMARY_WORDS[name]).join(', ')}.`,
      'summary',
    );
  }
  const elapsed = { start: window.start, end: Math.min(window.end, now) };
  if (elapsed.end <= elapsed.start) return { value: null, samples: 0, coverage: 0 };
  const inside = usableInside(series, elapsed);
  const coverage = coveredMs(series, reading, elapsed) / (elapsed.end - elapsed.start);
  return {
    value: valueOf(series, inside, summary, reading, elapsed),
    samples: inside.length,
    coverage: Math.min(1, coverage),
  };
}

function usableInside(series: Series, window: Interval): Float64Array {
  const low = firstAtOrAfter(series.t, window.start);
  const high = firstAtOrAfter(series.t, window.end);
  return series.v.subarray(low, high).filter((value) => !Number.isNaN(value));
}

function valueOf(
  series: Series,
  inside: Float64Array,
  summary: Summary,
  reading: MetricReading,
  window: Interval,
): number | null {
  if (summary === 'count') return inside.length;
  if (summary === 'increase') return increase(series, reading, window);
  if (summary === 'share' || summary === 'duration') return running(series, reading, window, summary);
  if (summary === 'mean' && reading.kind === 'level') return timeWeightedMean(series, reading, window);
  if (inside.length === 0) return null;
  switch (summary) {
    case 'mean':
      return mean(inside);
    case 'sum':
      return sum(inside);
    case 'min':
      return inside.reduce((a, b) => (b < a ? b : a));
    case 'max':
      return inside.reduce((a, b) => (b > a ? b : a));
    case 'first':
      return inside[0];
    case 'last':
      return inside[inside.length - 1];
    case 'p50':
      return quantile(inside, 0.5);
    case 'p95':
      return quantile(inside, 0.95);
    case 'sd':
      return inside.length < 2 ? null : standardDeviation(inside);
  }
}

/** Mean weighted by how long each value held (zero-order hold). */
function timeWeightedMean(series: Series, reading: MetricReading, window: Interval): number | null {
  let area = 0;
  let time = 0;
  for (let i = 0; i < series.t.length; i++) {
    if (Number.isNaN(series.v[i])) continue;
    const held = overlapMs({ start: series.t[i], end: holdsUntil(series, i, reading) }, window);
    area += series.v[i] * held;
    time += held;
  }
  return time === 0 ? null : area / time;
}

/**
 * Increase of a counter. Between two readings it is taken as even, so that windows side by side add up
 * to the whole. A fall is a rollover where the metric has one and the step over it is the smaller one,
 * else a reset: the counter began again at 0.
 */
function increase(series: Series, reading: MetricReading, window: Interval): number | null {
  let total = 0;
  let before = -1;
  let known = false;
  for (let i = 0; i < series.t.length; i++) {
    if (Number.isNaN(series.v[i])) continue;
    if (before >= 0) {
      const step = counterStep(series.v[before], series.v[i], reading.rollover);
      const span = { start: series.t[before], end: series.t[i] };
      const share = overlapMs(span, window) / (span.end - span.start);
      if (share > 0) {
        total += step * share;
        known = true;
      }
    }
    before = i;
  }
  return known ? total : null;
}

/** What a counter gained between two readings. */
export function counterStep(before: number, after: number, rollover: number | null): number {
  if (after >= before) return after - before;
  if (rollover !== null && before < rollover) {
    const overRollover = rollover - before + after;
    if (overRollover < rollover / 2) return overRollover;
  }
  return after;
}

function running(
  series: Series,
  reading: MetricReading,
  window: Interval,
  summary: 'share' | 'duration',
): number | null {
  let on = 0;
  let known = 0;
  for (let i = 0; i < series.t.length; i++) {
    if (Number.isNaN(series.v[i])) continue;
    const held = overlapMs({ start: series.t[i], end: holdsUntil(series, i, reading) }, window);
    known += held;
    if (series.v[i] === RUNNING) on += held;
  }
  if (known === 0) return null;
  return summary === 'share' ? (100 * on) / known : on / HOUR_MS;
}
