import type { MetricReading } from '../domain/metric';
import type { Series } from '../series/series';
import { overlapMs, type Interval } from '../time/interval';

/**
 * How long each sample stands for something: a level, register or state until the next sample, at most
 * the longest allowed gap; an amount its logging interval, at most until the next sample.
 *
 * @returns ms until which sample i holds.
 */
export function holdsUntil(series: Series, i: number, reading: MetricReading): number {
  const longest = reading.kind === 'amount' ? reading.intervalMs : reading.maxGapMs;
  const limit = series.t[i] + longest;
  return i + 1 < series.t.length ? Math.min(series.t[i + 1], limit) : limit;
}

/** ms of the window with usable data. NaN samples cover nothing. */
export function coveredMs(series: Series, reading: MetricReading, window: Interval): number {
  let covered = 0;
  for (let i = 0; i < series.t.length; i++) {
    if (Number.isNaN(series.v[i])) continue;
    covered += overlapMs({ start: series.t[i], end: holdsUntil(series, i, reading) }, window);
  }
  return covered;
}
