import {
  periodOfStretch,
  SUMMARIES_OF_KIND,
  timeByLevel,
  unitOfSummary,
  type Measure,
  type StretchNumbers,
  type Summary,
  type TargetBand,
  type StretchAsk,
} from '@vivid-beacon/core';
import { bucketSpans } from '@vivid-beacon/core/src/aggregation';
import { loadMeasure, readMeasure, unitOf } from './measure';
import { levelsOf } from './trend';
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
  { start, end, hours }: StretchAsk,
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
  const bucket = periodOfStretch(end - start);
  return {
    value: own.value,
    unit: unitOf(loaded),
    coverage: own.coverage,
    samples: own.samples,
    values,
    levels: band && timeByLevel(await levelsOf(context, loaded, { band, start, end, bucket, hours })),
  };
}
