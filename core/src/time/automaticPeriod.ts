import type { MetricKind, MetricOrigin } from '../domain/metric';
import type { Bucket } from './buckets';
import { DAY_MS, HOUR_MS } from './lengths';

/** Up to so long a stretch of time is cut into these periods; null = sample by sample. */
type Step<Period> = readonly [upToMs: number, period: Period];

function periodFor<Period>(steps: readonly Step<Period>[], lengthMs: number): Period {
  return steps.find(([upTo]) => lengthMs <= upTo)![1];
}

/**
 * Periods of what is drawn as one value a period, when nobody has chosen: some hundreds at most.
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

/** Periods of the small trend under a figure, which is hardly wider than a word. */
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

/** Periods by which a board says when it was on which level: finer ones could not be told apart on the rail. */
export function periodOfLevels(lengthMs: number): Bucket {
  return periodFor<Bucket>(
    [
      [35 * DAY_MS, 'hour'],
      [Infinity, 'day'],
    ],
    lengthMs,
  );
}

/** Periods by which the time on each level of a chosen stretch is counted. */
export function periodOfStretch(lengthMs: number): Bucket {
  return periodFor<Bucket>(
    [
      [31 * DAY_MS, 'quarterHour'],
      [Infinity, 'hour'],
    ],
    lengthMs,
  );
}

/** Periods whose values a target band for a window of this length is set on. */
export function periodOfDistribution(lengthMs: number): Bucket {
  return periodFor<Bucket>(
    [
      [6 * HOUR_MS, 'hour'],
      [Infinity, 'day'],
    ],
    lengthMs,
  );
}

/** Calendar periods by which the past of an indicator is told. */
export const PAST_BUCKETS = ['hour', 'day', 'week', 'month', 'quarter', 'year'] as const;
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

/** Periods in which a metric is first shown: amounts and registers by the hour, levels and states sample by sample. */
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
