import {
  coveredValue,
  periodOfStretch,
  type Bucket,
  type HoursFilter,
  type Interval,
  type LevelsAsk,
  type LevelSpan,
} from '@vivid-beacon/core';
import {
  bucketSpans,
  clippedSteps,
  elapsedSpans,
  levelsOfSteps,
  stepsOfPeriods,
  stepsOfSamples,
  type ValueStep,
} from '@vivid-beacon/core/src/aggregation';
import { readingOf } from '../metrics/metrics';
import { derivedWayOf } from './derived';
import { loadMeasure, readMeasure, type LoadedMeasure } from './measure';
import { samplesOf } from './planner';
import type { ReadContext } from './readContext';

/** Longer stretches are judged by quarter-hour means, which rollups hold. */
const MAX_SAMPLES = 20_000;

/** The values of a measure over time, without holes: gaps have the value null. */
export interface CourseInSteps {
  readonly steps: readonly ValueStep[];
  /** null = held samples; otherwise one value a period. */
  readonly by: Bucket | null;
}

/**
 * The elapsed course of a measure over an interval as steps, clipped to it: the held samples, or, of a long
 * stretch, quarter-hour means. What has no samples of its own (a ratio, an expression of totals, a reference
 * series) has one value a period.
 *
 * @param bucket one value for each of these periods instead.
 */
export async function readSteps(
  context: ReadContext,
  loaded: LoadedMeasure,
  interval: Interval,
  hours: HoursFilter | null,
  bucket: Bucket | null,
): Promise<CourseInSteps> {
  const { numerator, zone, calendar } = loaded;
  const length = interval.end - interval.start;
  if (bucket === null && (await hasSamples(context, loaded))) {
    if (length / numerator.intervalMs <= MAX_SAMPLES) {
      const whole = bucketSpans(interval, null, hours, zone, calendar);
      const spans = elapsedSpans(whole.spans, context.now);
      const series = (await samplesOf(context, [numerator], spans)).get(numerator.id)!;
      return { steps: stepsOfSamples(series, readingOf(numerator), spans), by: null };
    }
    return readSteps(context, loaded, interval, hours, 'quarterHour');
  }
  const by = bucket ?? periodOfStretch(length);
  const buckets = bucketSpans(interval, by, hours, zone, calendar);
  const { values } = await readMeasure(context, loaded, buckets);
  const spans = elapsedSpans(buckets.spans, context.now);
  return { steps: clippedSteps(stepsOfPeriods(values.map(coveredValue), spans), interval), by };
}

/** Whether a measure can be followed sample by sample. */
async function hasSamples(
  context: ReadContext,
  { measure, divisor, numerator }: LoadedMeasure,
): Promise<boolean> {
  if (measure.per || divisor || numerator.origin === 'reference') return false;
  return numerator.origin === 'samples' || (await derivedWayOf(context, numerator)) === 'samples';
}

/** When a measure lay on which level. */
export async function readLevels(context: ReadContext, ask: LevelsAsk): Promise<LevelSpan[]> {
  const { band, start, end, bucket, hours } = ask;
  const loaded = await loadMeasure(context, ask.measure);
  const { steps } = await readSteps(context, loaded, { start, end }, hours, bucket);
  return levelsOfSteps(band, steps);
}
