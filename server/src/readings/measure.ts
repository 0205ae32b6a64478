import { unitOfMeasure, type Measure, type WorkingCalendar } from '@vivid-beacon/core';
import { checkSummary, ratioOf, type BucketSpans, type Summarised } from '@vivid-beacon/core/src/aggregation';
import type { MetricRow } from '../metrics/sql';
import type { MetricAnswer } from './metricReads';
import { summariseMetric } from './planner';
import type { ReadContext } from './readContext';

/** The metrics of a measure, with the calendar of the site they are judged by. */
export interface LoadedMeasure {
  readonly measure: Measure;
  readonly numerator: MetricRow;
  readonly denominator: MetricRow | null;
  readonly zone: string;
  readonly calendar: WorkingCalendar;
}

/** Looks the metrics of a measure up. @throws {BeaconError} NOT_FOUND for a removed metric, BAD_INPUT for a summary that its kind has not. */
export async function loadMeasure({ db, reads }: ReadContext, measure: Measure): Promise<LoadedMeasure> {
  const ids = measure.per ? [measure.metricId, measure.per.metricId] : [measure.metricId];
  const [numerator, denominator = null] = await reads.metrics(db, ids);
  // Before any period is laid out.
  checkSummary(measure.summary, numerator.kind, 'measure.summary', numerator.name);
  if (denominator)
    checkSummary(measure.per!.summary, denominator.kind, 'measure.per.summary', denominator.name);
  return {
    measure,
    numerator,
    denominator,
    zone: numerator.zone,
    calendar: await reads.calendarOf(db, numerator.plantId),
  };
}

/** A measure over periods, with what its parts gave. */
export interface MeasureAnswer {
  readonly values: readonly Summarised[];
  readonly numerator: MetricAnswer;
  readonly denominator: MetricAnswer | null;
}

/** Sums of both parts first, the division after. */
export async function readMeasure(
  context: ReadContext,
  { measure, numerator, denominator }: LoadedMeasure,
  buckets: BucketSpans,
): Promise<MeasureAnswer> {
  const top = await summariseMetric(context, numerator, measure.summary, buckets);
  if (!denominator || !measure.per) return { values: top.values, numerator: top, denominator: null };
  const bottom = await summariseMetric(context, denominator, measure.per.summary, buckets);
  const { factor } = measure.per;
  return {
    values: top.values.map((each, i) => ratioOf(each, bottom.values[i], factor)),
    numerator: top,
    denominator: bottom,
  };
}

/** Unit of a measure as it is shown. */
export function unitOf({ measure, numerator, denominator }: LoadedMeasure): string {
  return unitOfMeasure(
    { summary: measure.summary, unit: numerator.unit },
    denominator && { summary: measure.per!.summary, unit: denominator.unit },
    measure.per?.unit ?? null,
  );
}
