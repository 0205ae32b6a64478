import { DateTime } from 'luxon';
import {
  DAY_MS,
  HOUR_MS,
  plusPeriods,
  resolveWindow,
  startOfPeriod,
  type IndicatorVersion,
  type PeriodTarget,
  type WindowSpec,
} from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { loadMeasure } from '../readings/measure';
import { judgePast, type JudgedPeriod } from './indicators';

export type PastBucket = 'hour' | 'day' | 'week' | 'month' | 'quarter' | 'year';

export interface IndicatorPast {
  readonly bucket: PastBucket;
  readonly zone: string;
  readonly periods: readonly JudgedPeriod[];
}

/** Calendar periods about as long as a window, so that its limits fit them. */
export function bucketOfWindow(spec: WindowSpec, now: number, zone: string): PastBucket {
  const { start, end } = resolveWindow(spec, now, zone);
  const length = end - start;
  if (length <= 6 * HOUR_MS) return 'hour';
  if (length <= 2 * DAY_MS) return 'day';
  if (length <= 10 * DAY_MS) return 'week';
  if (length <= 45 * DAY_MS) return 'month';
  return length <= 150 * DAY_MS ? 'quarter' : 'year';
}

/** The last `count` periods of an indicator with the one under way. @param versions newest first. */
export async function pastOf(
  db: Queryable,
  versions: readonly IndicatorVersion[],
  targets: readonly PeriodTarget[],
  count: number,
  now: number,
): Promise<IndicatorPast> {
  const { definition } = versions[0];
  const { zone, calendar } = await loadMeasure({ db, now }, definition.measure);
  const bucket = bucketOfWindow(definition.window, now, zone);
  const current = startOfPeriod(DateTime.fromMillis(now, { zone }), bucket, calendar);
  const start = plusPeriods(current, 1 - count, bucket).toMillis();
  return { bucket, zone, periods: await judgePast(db, versions, targets, { start, end: now }, bucket, now) };
}
