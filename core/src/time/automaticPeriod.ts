import type { MetricKind, MetricOrigin } from '../domain/metric';
import type { Bucket } from './buckets';
import { lengthOf } from './intervals';
import { DAY_MS, HOUR_MS } from './lengths';
import { resolveWindow } from './window';
import type { WindowSpec } from './windowSpec';

/** Longest stretch of time for each period; null = sample by sample. */
type Step<Period> = readonly [upToMs: number, period: Period];

function periodFor<Period>(steps: readonly Step<Period>[], lengthMs: number): Period {
  return steps.find(([upTo]) => lengthMs <= upTo)![1];
}

/**
 * Default period of a trend with one value per period: a few hundred values at most.
 *
 * @param lengthMs of the window.
 */
export function periodOfTrend(lengthMs: number): Bucket {
  return periodFor<Bucket>(
    [
      [2 * DAY_MS, 'quarterHour'],
      [21 * DAY_MS, 'hour'],
      [Infinity, 'day'],
    ],
    lengthMs,
  );
}

/** Period of the small trend under a figure, which is hardly wider than a word. */
export function periodOfSparkline(lengthMs: number): Bucket | null {
  return periodFor<Bucket | null>(
    [
      [6 * HOUR_MS, null],
      [14 * DAY_MS, 'hour'],
      [Infinity, 'day'],
    ],
    lengthMs,
  );
}

/** Period of the levels on the time rail: finer ones could not be distinguished. */
export function periodOfLevels(lengthMs: number): Bucket {
  return periodFor<Bucket>(
    [
      [35 * DAY_MS, 'hour'],
      [Infinity, 'day'],
    ],
    lengthMs,
  );
}

/** Period in which the time on each level of a stretch is counted. */
export function periodOfStretch(lengthMs: number): Bucket {
  return periodFor<Bucket>(
    [
      [31 * DAY_MS, 'quarterHour'],
      [Infinity, 'hour'],
    ],
    lengthMs,
  );
}

/** Period of the values that a target band for such a window is based on. */
export function periodOfDistribution(lengthMs: number): Bucket {
  return periodFor<Bucket>(
    [
      [6 * HOUR_MS, 'hour'],
      [Infinity, 'day'],
    ],
    lengthMs,
  );
}

/** Period of columns that are looked at one by one: a few dozen at most. */
export function periodOfColumns(lengthMs: number): Bucket {
  return periodFor<Bucket>(
    [
      [2 * HOUR_MS, 'fiveMinutes'],
      [8 * HOUR_MS, 'quarterHour'],
      [2 * DAY_MS, 'hour'],
      [45 * DAY_MS, 'day'],
      [300 * DAY_MS, 'week'],
      [1500 * DAY_MS, 'month'],
      [Infinity, 'year'],
    ],
    lengthMs,
  );
}

/** Calendar periods of an indicator's past. */
export const PAST_BUCKETS = [
  'hour',
  'day',
  'week',
  'month',
  'quarter',
  'year',
  'financialQuarter',
  'financialYear',
] as const;
export type PastBucket = (typeof PAST_BUCKETS)[number];

/**
 * The calendar period about as long as a window, so that limits set for the window fit it.
 *
 * @example periodAsLongAs(7 * DAY_MS) // => 'week'
 */
export function periodAsLongAs(lengthMs: number): PastBucket {
  return periodFor<PastBucket>(
    [
      [6 * HOUR_MS, 'hour'],
      [2 * DAY_MS, 'day'],
      [10 * DAY_MS, 'week'],
      [45 * DAY_MS, 'month'],
      [150 * DAY_MS, 'quarter'],
      [Infinity, 'year'],
    ],
    lengthMs,
  );
}

/**
 * The calendar periods that limits set for a window fit: a financial quarter or year itself, otherwise those about as
 * long.
 */
export function periodOfWindow(spec: WindowSpec, now: number, zone: string): PastBucket {
  const isOne = spec.kind === 'toDate' || (spec.kind !== 'absolute' && spec.count === 1);
  if (isOne && (spec.unit === 'financialQuarter' || spec.unit === 'financialYear')) return spec.unit;
  return periodAsLongAs(lengthOf([resolveWindow(spec, now, zone)]));
}

/** Longer windows are drawn by day instead of by hour on the page of a metric. */
const LONG_MS = 100 * DAY_MS;

/** Period of the trend on a metric's page, for a window of this length. */
export function periodOfMetric(
  metric: { readonly kind: MetricKind; readonly origin: MetricOrigin },
  lengthMs: number,
): Bucket | null {
  const usual = periodOfKind(metric);
  return usual === 'hour' && lengthMs > LONG_MS ? 'day' : usual;
}

/**
 * Default period of a trend; null = sample by sample.
 *
 * @param ownSamples false if there are no samples to draw: a ratio, an expression of totals, a reference
 * series, or anything with recurring hours.
 */
export function periodOfCourse(origin: MetricOrigin, ownSamples: boolean): Bucket | null {
  if (origin === 'reference') return 'day';
  return ownSamples ? null : 'hour';
}

/** First period of a metric's trend: amounts and registers by hour, levels and states sample by sample. */
export function periodOfKind({
  kind,
  origin,
}: {
  readonly kind: MetricKind;
  readonly origin: MetricOrigin;
}): Bucket | null {
  if (origin === 'reference') return 'day';
  return kind === 'level' || kind === 'state' ? null : 'hour';
}
