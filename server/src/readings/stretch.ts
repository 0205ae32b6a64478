import {
  addsUp,
  isHeld,
  SUMMARIES_OF_KIND,
  timeByLevel,
  unitOfSummary,
  type Measure,
  type StretchNumbers,
  type Summary,
  type TargetBand,
  type StretchAsk,
} from '@vivid-beacon/core';
import { bucketSpans, levelsOfSteps } from '@vivid-beacon/core/src/aggregation';
import { readSteps, type CourseInSteps } from './levels';
import { loadMeasure, readMeasure, unitOf, type LoadedMeasure } from './measure';
import { summariseMetric } from './planner';
import type { ReadContext } from './readContext';

const TOLD: readonly Summary[] = ['mean', 'min', 'max', 'sum', 'increase', 'share', 'duration'];

/** The numbers of one stretch of time, for each measure: every summary that its kind has, and time by level. */
export function readStretch(context: ReadContext, ask: StretchAsk): Promise<StretchNumbers[]> {
  return Promise.all(
    ask.measures.map((measure, i) => numbersOf(context, measure, ask, i === 0 ? ask.band : null)),
  );
}

async function numbersOf(
  context: ReadContext,
  measure: Measure,
  { start, end, hours, bucket }: StretchAsk,
  band: TargetBand | null,
): Promise<StretchNumbers> {
  const loaded = await loadMeasure(context, measure);
  const { zone, calendar, numerator, denominator } = loaded;
  const whole = bucketSpans({ start, end }, null, hours, zone, calendar);
  const own = (await readMeasure(context, loaded, whole)).values[0];
  // A ratio is one number: its parts have no common smallest or largest value.
  const summaries = denominator
    ? []
    : TOLD.filter((summary) => SUMMARIES_OF_KIND[numerator.kind].includes(summary));
  const values = await Promise.all(
    summaries.map(async (summary) => ({
      summary,
      value: (await summariseMetric(context, numerator, summary, whole)).values[0].value,
      unit: unitOfSummary(summary, numerator.unit),
    })),
  );
  const course = band && (await stepsOfStretch(context, loaded, { start, end, hours, bucket }));
  return {
    value: own.value,
    unit: unitOf(loaded),
    coverage: own.coverage,
    samples: own.samples,
    values,
    levels: course && timeByLevel(levelsOfSteps(band, course.steps)),
    levelsBy: course && course.by,
  };
}

/** What the time on each level is counted from; null for a total, whose parts have no level of their own. */
function stepsOfStretch(
  context: ReadContext,
  loaded: LoadedMeasure,
  { start, end, hours, bucket }: Pick<StretchAsk, 'start' | 'end' | 'hours' | 'bucket'>,
): Promise<CourseInSteps> | null {
  const { measure } = loaded;
  if (addsUp(measure) && bucket === null) return null;
  return readSteps(context, loaded, { start, end }, hours, isHeld(measure) ? null : bucket);
}
