import {
  BeaconError,
  coveredValue,
  DAY_MS,
  versionAt,
  type HoursFilter,
  type IndicatorVersion,
  type Interval,
  type Level,
  type Measure,
  type PeriodTarget,
  type RuleOver,
  type Series,
} from '@vivid-beacon/core';
import { bucketSpans } from '@vivid-beacon/core/src/aggregation';
import { judgePast } from '../indicators/indicators';
import { needIndicator } from '../indicators/history';
import { listVersions, targetsOf } from '../indicators/sql';
import type { MetricRow } from '../metrics/sql';
import { inputsOfMetric } from '../readings/derived';
import { loadMeasure, readMeasure, unitOf, type LoadedMeasure } from '../readings/measure';
import type { ReadContext } from '../readings/readContext';
import type { ValueOfPeriod } from './periodSql';
import { metricOfSameAsset } from './watchSql';

/** What a rule judges on one of its metrics. */
export interface JudgedSubject {
  readonly metricId: string;
  readonly over: RuleOver;
  /** Recurring hours that count; an indicator has its own. */
  readonly hours: HoursFilter | null;
}

/** The closed periods of a subject, and when the next one ends. */
export interface ReadPeriods {
  readonly periods: readonly ValueOfPeriod[];
  readonly nextEnd: number;
  /** Metrics with samples that the values are made of. */
  readonly inputs: readonly string[];
}

/** A subject with its metrics looked up. */
interface LoadedSubject {
  readonly loaded: LoadedMeasure;
  readonly hours: HoursFilter | null;
  /** Of an indicator on its own asset: all its definitions and targets. */
  readonly judged: {
    readonly versions: readonly IndicatorVersion[];
    readonly targets: readonly PeriodTarget[];
  } | null;
  readonly decimals: number;
}

async function loadSubject(
  context: ReadContext,
  { metricId, over, hours }: JudgedSubject,
): Promise<LoadedSubject> {
  if (over.indicatorId === null) {
    const loaded = await loadMeasure(context, { metricId, summary: over.summary, per: null });
    return { loaded, hours, judged: null, decimals: loaded.numerator.decimals };
  }
  const { id } = await needIndicator(context.db, over.indicatorId);
  const versions = await listVersions(context.db, id);
  const { definition } = versionAt(versions, context.now);
  const own = definition.measure.metricId === metricId;
  return {
    loaded: await loadMeasure(
      context,
      own ? definition.measure : await measureOn(context, definition.measure, metricId),
    ),
    hours: definition.hours,
    judged: own ? { versions, targets: (await targetsOf(context.db, [id])).get(id)! } : null,
    decimals: definition.decimals,
  };
}

/** The measure of an indicator on the asset of another metric. @throws {BeaconError} BAD_INPUT where it lacks the other side. */
async function measureOn({ db }: ReadContext, measure: Measure, metricId: string): Promise<Measure> {
  if (!measure.per) return { ...measure, metricId };
  const per = await metricOfSameAsset(db, metricId, measure.per.metricId);
  if (per === null) {
    throw new BeaconError('BAD_INPUT', 'An asset lacks the metric that this indicator divides by.', 'under');
  }
  return { ...measure, metricId, per: { ...measure.per, metricId: per } };
}

/** Unit and decimals of what is judged. @throws {BeaconError} NOT_FOUND, BAD_INPUT as {@link loadSubject}. */
export async function shownOf(
  context: ReadContext,
  subject: JudgedSubject,
): Promise<{ readonly unit: string; readonly decimals: number }> {
  const { loaded, decimals } = await loadSubject(context, subject);
  return { unit: unitOf(loaded), decimals };
}

/** The next period is looked for so far ahead; shifts may lie holidays apart. */
const AHEAD_MS = 40 * DAY_MS;

/**
 * The values of all periods that end in (start, end], by the one read path. A value under the minimum coverage is
 * missing: it neither raises an alarm nor ends one.
 */
export async function readPeriods(
  context: ReadContext,
  { start, end, ...subject }: JudgedSubject & Interval,
): Promise<ReadPeriods> {
  const { period } = subject.over;
  const { loaded, hours, judged } = await loadSubject(context, subject);
  const { zone, calendar, numerator, denominator } = loaded;
  const isClosed = ({ end: at }: { readonly end: number }): boolean => at > start && at <= end;
  const periods: ValueOfPeriod[] = [];
  if (judged) {
    const past = await judgePast(context, judged.versions, judged.targets, { start, end }, period);
    periods.push(
      ...past
        .filter(isClosed)
        .map((each) => ({ end: each.end, value: coveredValue(each), level: each.level })),
    );
  } else {
    const buckets = bucketSpans({ start, end }, period, hours, zone, calendar);
    const { values } = await readMeasure(context, loaded, buckets);
    periods.push(
      ...values
        .map((each, i) => ({ end: buckets.end[i], value: coveredValue(each), level: null }))
        .filter(isClosed),
    );
  }
  const inputs = [
    ...(await inputsOfMetric(context, numerator)),
    ...(denominator ? await inputsOfMetric(context, denominator) : []),
  ];
  return {
    periods,
    nextEnd: nextEnd(end, loaded, subject.over),
    inputs: [...new Set(inputs.map(({ id }: MetricRow) => id))],
  };
}

/** End of the first period that ends after an instant; where the calendar has none ahead, so far ahead. */
function nextEnd(after: number, { zone, calendar }: LoadedMeasure, { period }: RuleOver): number {
  const ahead = bucketSpans({ start: after, end: after + AHEAD_MS }, period, null, zone, calendar);
  return ahead.end.find((end) => end > after) ?? after + AHEAD_MS;
}

/** Judged values as samples at the ends of their periods. */
export function seriesOfPeriods(periods: readonly ValueOfPeriod[]): Series {
  return {
    t: Float64Array.from(periods, ({ end }) => end),
    v: Float64Array.from(periods, ({ value }) => value ?? NaN),
  };
}

/** The levels of judged periods, by their end. */
export function levelsOfPeriods(periods: readonly ValueOfPeriod[]): (t: number) => Level | null {
  const byEnd = new Map(periods.map(({ end, level }) => [end, level]));
  return (t) => byEnd.get(t) ?? null;
}
