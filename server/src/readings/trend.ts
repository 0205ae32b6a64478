import {
  bucketEdges,
  coveredMs,
  levelSpans,
  m4,
  measureBuckets,
  MINIMUM_COVERAGE,
  resolveWindow,
  sliceSeries,
  type Bucket,
  type Interval,
  type LevelSpan,
  type Measure,
  type MetricReading,
  type Series,
  type TargetBand,
  type TrendAnswer,
  type WindowSpec,
} from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { needMetrics } from '../metrics/metrics';
import { loadMeasure } from './loadMeasure';
import { unitOf } from './read';

/** The course of a measure over a window, thinned to what a plot of `columns` pixels can show. */
export async function readTrend(
  db: Queryable,
  ask: { measure: Measure; window: WindowSpec; bucket: Bucket | null; columns: number },
  now: number,
): Promise<TrendAnswer> {
  const { zone } = (await needMetrics(db, [ask.measure.metricId])).get(ask.measure.metricId)!;
  const window = resolveWindow(ask.window, now, zone);
  const loaded = await loadMeasure(db, ask.measure, window);
  const unit = unitOf(loaded, ask.measure);
  // A ratio has no samples of its own: it is always formed over periods.
  const bucket = ask.bucket ?? (loaded.lower ? 'hour' : null);
  const base = { window, zone, unit, now };
  if (bucket === null) return { ...base, ...samplesOf(loaded.upper, window, ask.columns, now) };
  const edges = bucketEdges(window, bucket, zone);
  const buckets = measureBuckets(loaded.upper, loaded.lower, loaded.factor, edges, now);
  const begun = buckets.filter((_, i) => edges[i] < now);
  return {
    ...base,
    t: edges.slice(0, begun.length),
    v: begun.map(({ value, coverage }) => (coverage >= MINIMUM_COVERAGE ? value : null)),
    until: edges.slice(1, begun.length + 1),
    gaps: joined(
      begun.flatMap(({ value, coverage }, i) =>
        value === null || coverage < MINIMUM_COVERAGE
          ? [{ start: edges[i], end: Math.min(edges[i + 1], now) }]
          : [],
      ),
    ),
    samples: begun.reduce((n, { samples }) => n + samples, 0),
  };
}

/** When a measure, by the hour, lay on which level: what the time rail and the losses page show. */
export async function readLevels(
  db: Queryable,
  ask: { measure: Measure; band: TargetBand; interval: Interval; bucket: Bucket },
  now: number,
): Promise<LevelSpan[]> {
  const { zone } = (await needMetrics(db, [ask.measure.metricId])).get(ask.measure.metricId)!;
  const loaded = await loadMeasure(db, ask.measure, ask.interval);
  const edges = bucketEdges(ask.interval, ask.bucket, zone);
  const values = measureBuckets(loaded.upper, loaded.lower, loaded.factor, edges, now).map(
    ({ value, coverage }) => (coverage >= MINIMUM_COVERAGE ? value : null),
  );
  return levelSpans(ask.band, edges, values, now);
}

function samplesOf(
  { series, reading }: { series: Series; reading: MetricReading },
  window: Interval,
  columns: number,
  now: number,
): Pick<TrendAnswer, 't' | 'v' | 'until' | 'gaps' | 'samples'> {
  const gaps = gapsOf(series, reading, { start: window.start, end: Math.min(window.end, now) });
  const inside = sliceSeries(series, window.start, window.end);
  const thinned = m4(inside, window.start, window.end, columns);
  const t: number[] = [];
  const v: (number | null)[] = [];
  let gap = 0;
  for (let i = 0; i < thinned.t.length; i++) {
    while (gap < gaps.length && gaps[gap].end <= thinned.t[i]) {
      t.push(gaps[gap].start);
      v.push(null);
      gap++;
    }
    t.push(thinned.t[i]);
    v.push(thinned.v[i]);
  }
  return { t, v, until: null, gaps, samples: inside.t.length };
}

/** Stretches that no sample covers. */
function gapsOf(series: Series, reading: MetricReading, window: Interval): Interval[] {
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

function joined(intervals: readonly Interval[]): Interval[] {
  const out: Interval[] = [];
  for (const each of intervals) {
    const last = out[out.length - 1];
    if (last && last.end === each.start) out[out.length - 1] = { start: last.start, end: each.end };
    else out.push(each);
  }
  return out;
}
