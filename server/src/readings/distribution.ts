import {
  DAY_MS,
  MINIMUM_COVERAGE,
  resolveWindow,
  type Bucket,
  type Interval,
  type Measure,
  type WindowSpec,
} from '@vivid-beacon/core';
import { bucketSpans } from '@vivid-beacon/core/src/engine';
import type { Queryable } from '../db/database';
import { loadMeasure, readMeasure } from './measure';

const LOOK_BACK_DAYS = 90;

/** Past values of a measure, to set a band on: periods as long as the readout's window, hours to months. */
export interface Distribution {
  readonly values: readonly number[];
  readonly bucket: Bucket;
  readonly interval: Interval;
}

/** The last 90 days before now, or the window itself where that is longer or lies in the past. */
export async function describeDistribution(
  db: Queryable,
  measure: Measure,
  window: WindowSpec,
  now: number,
): Promise<Distribution> {
  const context = { db, now };
  const loaded = await loadMeasure(context, measure);
  const { start, end } = resolveWindow(window, now, loaded.zone, loaded.calendar);
  const length = end - start;
  const past = end < now - LOOK_BACK_DAYS * DAY_MS;
  const interval =
    past || length > LOOK_BACK_DAYS * DAY_MS
      ? { start, end: Math.min(end, now) }
      : { start: now - LOOK_BACK_DAYS * DAY_MS, end: now };
  const bucket: Bucket = !past && length <= 6 * 3_600_000 ? 'hour' : 'day';
  const buckets = bucketSpans(interval, bucket, null, loaded.zone, loaded.calendar);
  const values = (await readMeasure(context, loaded, buckets)).values
    .filter(({ coverage }) => coverage >= MINIMUM_COVERAGE)
    .flatMap(({ value }) => (value === null ? [] : [value]))
    .sort((a, b) => a - b);
  return { values, bucket, interval };
}
