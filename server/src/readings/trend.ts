import {
  coveredValue,
  levelSpans,
  resolveWindow,
  sliceSeries,
  type Bucket,
  type HoursFilter,
  type Interval,
  type LevelSpan,
  type Measure,
  type MetricReading,
  type Series,
  type TargetBand,
  type TrendAnswer,
  type WindowSpec,
} from '@vivid-beacon/core';
import { bucketSpans, coveredMs, m4 } from '@vivid-beacon/core/src/engine';
import type { Queryable } from '../db/database';
import { readingOf } from '../metrics/metrics';
import { loadMeasure, readMeasure, unitOf, type LoadedMeasure } from './measure';
import { derivedWayOf } from './derived';
import { samplesOf, type PlanContext } from './planner';

export interface TrendAsk {
  readonly measure: Measure;
  readonly window: WindowSpec;
  readonly bucket: Bucket | null;
  readonly columns: number;
  readonly hours?: HoursFilter | null;
}

/** The course of a measure over a window, thinned to what a plot of `columns` pixels can show. */
export async function readTrend(db: Queryable, ask: TrendAsk, now: number): Promise<TrendAnswer> {
  const context: PlanContext = { db, now };
  const loaded = await loadMeasure(context, ask.measure);
  const { zone, calendar, upper } = loaded;
  const window = resolveWindow(ask.window, now, zone, calendar);
  const base = { window, zone, unit: unitOf(loaded), now };
  // A ratio, an expression of totals and a reference series have no samples of their own: periods it is.
  const ofTotals = upper.origin === 'derived' && (await derivedWayOf(context, upper)) === 'totals';
  const periodsOnly = loaded.lower !== null || ofTotals || upper.origin === 'reference' || ask.hours;
  const bucket = ask.bucket ?? (periodsOnly ? (upper.origin === 'reference' ? 'day' : 'hour') : null);
  if (bucket === null) {
    const spans = { start: [window.start], end: [window.end], into: [0] };
    const series = (await samplesOf(context, [upper], spans)).get(upper.id)!;
    return { ...base, ...thinned({ series, reading: readingOf(upper) }, window, ask.columns, now) };
  }
  const buckets = bucketSpans(window, bucket, ask.hours ?? null, zone, calendar);
  const { values } = await readMeasure(context, loaded, buckets);
  const shown = upper.origin === 'reference' ? values : values.filter((_, i) => buckets.start[i] < now);
  return {
    ...base,
    t: buckets.start.slice(0, shown.length),
    v: shown.map(coveredValue),
    until: buckets.end.slice(0, shown.length),
    gaps: joined(
      shown.flatMap((each, i) =>
        coveredValue(each) === null ? [{ start: buckets.start[i], end: Math.min(buckets.end[i], now) }] : [],
      ),
    ),
    samples: shown.reduce((n, { samples }) => n + samples, 0),
  };
}

/** When a measure lay on which level, by period. */
export async function readLevels(db: Queryable, ask: LevelsAsk, now: number): Promise<LevelSpan[]> {
  const context: PlanContext = { db, now };
  return levelsOf(context, await loadMeasure(context, ask.measure), ask);
}

export interface LevelsAsk {
  readonly measure: Measure;
  readonly band: TargetBand;
  readonly interval: Interval;
  readonly bucket: Bucket;
  readonly hours?: HoursFilter | null;
}

/** The same for a measure whose metrics are known. */
export async function levelsOf(
  context: PlanContext,
  loaded: LoadedMeasure,
  { band, interval, bucket, hours }: Omit<LevelsAsk, 'measure'>,
): Promise<LevelSpan[]> {
  const buckets = bucketSpans(interval, bucket, hours ?? null, loaded.zone, loaded.calendar);
  const { values } = await readMeasure(context, loaded, buckets);
  const edges = [...buckets.start, buckets.end[buckets.size - 1]];
  return levelSpans(band, edges, values.map(coveredValue), context.now);
}

function thinned(
  { series, reading }: { series: Series; reading: MetricReading },
  window: Interval,
  columns: number,
  now: number,
): Pick<TrendAnswer, 't' | 'v' | 'until' | 'gaps' | 'samples'> {
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
