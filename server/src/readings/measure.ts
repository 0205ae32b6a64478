import { unitOfMeasure, type Measure, type WorkingCalendar } from '@vivid-beacon/core';
import { checkSummary, ratioOf, type BucketSpans, type Summarised } from '@vivid-beacon/core/src/engine';
import type { MetricRow } from '../metrics/sql';
import type { MetricAnswer } from './metricReads';
import { summariseMetric } from './planner';
import type { ReadContext } from './readContext';

/** The metrics of a measure, with the calendar of the site they are judged by. */
export interface LoadedMeasure {
  readonly measure: Measure;
  readonly upper: MetricRow;
  readonly lower: MetricRow | null;
  readonly zone: string;
  readonly calendar: WorkingCalendar;
}

/** Looks the metrics of a measure up. @throws {BeaconError} NOT_FOUND for a removed metric, BAD_INPUT for a summary that its kind has not. */
export async function loadMeasure({ db, reads }: ReadContext, measure: Measure): Promise<LoadedMeasure> {
  const ids = measure.per ? [measure.metricId, measure.per.metricId] : [measure.metricId];
  const [upper, lower = null] = await reads.metrics(db, ids);
  // Before any period is laid out.
  checkSummary(measure.summary, upper.kind, 'measure.summary', upper.name);
  if (lower) checkSummary(measure.per!.summary, lower.kind, 'measure.per.summary', lower.name);
  return {
    measure,
    upper,
    lower,
    zone: upper.zone,
    calendar: await reads.calendarOf(db, upper.plantId),
  };
}

/** A measure over periods, with what its parts gave. */
export interface MeasureAnswer {
  readonly values: readonly Summarised[];
  readonly upper: MetricAnswer;
  readonly lower: MetricAnswer | null;
}

/** Sums of both parts first, the division after. */
export async function readMeasure(
  context: ReadContext,
  { measure, upper, lower }: LoadedMeasure,
  buckets: BucketSpans,
): Promise<MeasureAnswer> {
  const top = await summariseMetric(context, upper, measure.summary, buckets);
  if (!lower || !measure.per) return { values: top.values, upper: top, lower: null };
  const bottom = await summariseMetric(context, lower, measure.per.summary, buckets);
  const { factor } = measure.per;
  return {
    values: top.values.map((each, i) => ratioOf(each, bottom.values[i], factor)),
    upper: top,
    lower: bottom,
  };
}

/** Unit of a measure as it is shown. */
export function unitOf({ measure, upper, lower }: LoadedMeasure): string {
  return unitOfMeasure(
    { summary: measure.summary, unit: upper.unit },
    lower && { summary: measure.per!.summary, unit: lower.unit },
    measure.per?.unit ?? null,
  );
}
