import {
  coveredValue,
  levelSpans,
  resolveWindow,
  unionOf,
  type LevelSpan,
  type TrendAnswer,
  type TrendAsk,
  type LevelsAsk,
} from '@vivid-beacon/core';
import { bucketSpans, courseOf } from '@vivid-beacon/core/src/engine';
import { readingOf } from '../metrics/metrics';
import { loadMeasure, readMeasure, unitOf, type LoadedMeasure } from './measure';
import { derivedWayOf } from './derived';
import { samplesOf } from './planner';
import type { ReadContext } from './readContext';

/** The course of a measure over a window, thinned to what a plot of `columns` pixels can show. */
export async function readTrend(context: ReadContext, ask: TrendAsk): Promise<TrendAnswer> {
  const { now } = context;
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
    return { ...base, until: null, ...courseOf(series, readingOf(upper), window, ask.columns, now) };
  }
  const buckets = bucketSpans(window, bucket, ask.hours, zone, calendar);
  const { values } = await readMeasure(context, loaded, buckets);
  const shown = upper.origin === 'reference' ? values : values.filter((_, i) => buckets.start[i] < now);
  return {
    ...base,
    t: buckets.start.slice(0, shown.length),
    v: shown.map(coveredValue),
    until: buckets.end.slice(0, shown.length),
    gaps: unionOf(
      shown.flatMap((each, i) =>
        coveredValue(each) === null ? [{ start: buckets.start[i], end: Math.min(buckets.end[i], now) }] : [],
      ),
    ),
    samples: shown.reduce((n, { samples }) => n + samples, 0),
  };
}

/** When a measure lay on which level, by period. */
export async function readLevels(context: ReadContext, ask: LevelsAsk): Promise<LevelSpan[]> {
  return levelsOf(context, await loadMeasure(context, ask.measure), ask);
}

/** The same for a measure whose metrics are known. */
export async function levelsOf(
  context: ReadContext,
  loaded: LoadedMeasure,
  { band, start, end, bucket, hours }: Omit<LevelsAsk, 'measure'>,
): Promise<LevelSpan[]> {
  const buckets = bucketSpans({ start, end }, bucket, hours, loaded.zone, loaded.calendar);
  const { values } = await readMeasure(context, loaded, buckets);
  const edges = [...buckets.start, buckets.end[buckets.size - 1]];
  return levelSpans(band, edges, values.map(coveredValue), context.now);
}
