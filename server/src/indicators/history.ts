import { DateTime } from 'luxon';
import { plusPeriods, startOfPeriod, type IndicatorVersion, type PeriodTarget } from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { loadMeasure } from '../readings/measure';
import { bucketOfWindow, type PastBucket } from '../readings/bucketOfWindow';
import { judgePast, type JudgedPeriod } from './indicators';

export interface IndicatorPast {
  readonly bucket: PastBucket;
  readonly zone: string;
  readonly periods: readonly JudgedPeriod[];
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
