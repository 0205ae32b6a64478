import type { MetricReading } from '../domain/metric';
import { m4 } from '../series/m4';
import { sliceSeries, type Series } from '../series/series';
import { coveredMs } from '../summary/coverage';
import type { Interval } from '../time/interval';

/** Samples for drawing, thinned to what the plot can show, with nulls at gaps. */
export interface Course {
  /** ms. */
  readonly t: readonly number[];
  readonly v: readonly (number | null)[];
  readonly gaps: readonly Interval[];
  /** Number of samples before thinning. */
  readonly samples: number;
}

/**
 * The course of a metric over a window, sample by sample.
 *
 * @param series includes the sample before the window, which may hold at its start.
 * @param columns pixel columns of the plot; up to four samples are kept for each.
 */
export function courseOf(
  series: Series,
  reading: MetricReading,
  window: Interval,
  columns: number,
  now: number,
): Course {
  const gaps = gapsOf(series, reading, { start: window.start, end: Math.min(window.end, now) });
  const inside = sliceSeries(series, window.start, window.end);
  const thin = m4(inside, window.start, window.end, columns);
  const t: number[] = [];
  const v: (number | null)[] = [];
  let gap = 0;
  for (let i = 0; i < thin.t.length; i++) {
    while (gap < gaps.length && gaps[gap].end <= thin.t[i]) {
      t.push(gaps[gap].start);
      v.push(null);
      gap++;
    }
    t.push(thin.t[i]);
    v.push(thin.v[i]);
  }
  return { t, v, gaps, samples: inside.t.length };
}

/** Stretches of a window that no sample covers. */
export function gapsOf(series: Series, reading: MetricReading, window: Interval): Interval[] {
  if (window.end <= window.start) return [];
  const gaps: Interval[] = [];
  const hold = reading.kind === 'amount' ? Math.max(reading.intervalMs, reading.maxGapMs) : reading.maxGapMs;
  let covered = window.start;
  for (let i = 0; i < series.t.length && covered < window.end; i++) {
    if (series.t[i] > covered) gaps.push({ start: covered, end: Math.min(series.t[i], window.end) });
    covered = Math.max(covered, series.t[i] + hold);
  }
  if (covered < window.end && coveredMs(series, reading, window) < window.end - window.start) {
    gaps.push({ start: covered, end: window.end });
  }
  return gaps.filter(({ start, end }) => end > start);
}
