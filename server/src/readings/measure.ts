import { unitOfMeasure, type Measure, type WorkingCalendar } from '@vivid-beacon/core';
import {
  checkSummary,
  dividedBy,
  divisorOf,
  type BucketSpans,
  type Summarised,
} from '@vivid-beacon/core/src/aggregation';
import { attributesOf } from '../assets/sql';
import type { MetricRow } from '../metrics/sql';
import { summariseMetric } from './planner';
import { summariseRatio } from './ratio';
import type { ReadContext } from './readContext';

/** The metrics of a measure, with the calendar of the site they are judged by. */
export interface LoadedMeasure {
  readonly measure: Measure;
  readonly numerator: MetricRow;
  readonly denominator: MetricRow | null;
  /** By what it is divided, if per an attribute: `total` is null where no asset has it. */
  readonly divisor: { readonly total: number | null } | null;
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
  const { perAttribute = null } = measure;
  return {
    measure,
    numerator,
    denominator,
    divisor:
      perAttribute === null
        ? null
        : divisorOf([numerator], perAttribute, await attributesOf(db, numerator.path)),
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
  { measure, numerator, denominator, divisor }: LoadedMeasure,
  buckets: BucketSpans,
): Promise<MeasureAnswer> {
  const { summary, per } = measure;
  if (!denominator || !per) {
    const own = await summariseMetric(context, numerator, summary, buckets);
    const values = divisor ? dividedBy(own.values, divisor.total) : own.values;
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
    measure.perAttribute,
  );
}
