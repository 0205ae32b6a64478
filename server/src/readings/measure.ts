import { unitOfMeasure, type Measure, type WorkingCalendar } from '@vivid-beacon/core';
import { checkSummary, type BucketSpans, type Summarised } from '@vivid-beacon/core/src/aggregation';
import type { MetricRow } from '../metrics/sql';
import { summariseMetric } from './planner';
import { summariseRatio } from './ratio';
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

/** A measure over periods; what was divided is null if it is no ratio. */
export interface MeasureAnswer {
  readonly values: readonly Summarised[];
  readonly numerator: readonly Summarised[];
  readonly denominator: readonly Summarised[] | null;
}

/** A measure over periods; of a ratio over the time in which both metrics have data. */
export async function readMeasure(
  context: ReadContext,
  { measure, numerator, denominator }: LoadedMeasure,
  buckets: BucketSpans,
): Promise<MeasureAnswer> {
  const { summary, per } = measure;
  if (!denominator || !per) {
    const { values } = await summariseMetric(context, numerator, summary, buckets);
    return { values, numerator: values, denominator: null };
  }
  return summariseRatio(
    context,
    { rows: [numerator], summary },
    { rows: [denominator], summary: per.summary },
    per.factor,
    () => buckets,
  );
}

/** Unit of a measure as it is shown. */
export function unitOf({ measure, numerator, denominator }: LoadedMeasure): string {
  return unitOfMeasure(
    { summary: measure.summary, unit: numerator.unit },
    denominator && { summary: measure.per!.summary, unit: denominator.unit },
    measure.per?.unit ?? null,
  );
}
