import { DateTime } from 'luxon';
import { BeaconError } from '../errors';
import type { Interval } from './interval';

export const BUCKETS = ['hour', 'day', 'week', 'month'] as const;
export type Bucket = (typeof BUCKETS)[number];

const MOST_BUCKETS = 20_000;

/**
 * The edges of the local hours, days, weeks or months that touch a window: bucket i is
 * [edges[i], edges[i + 1]). A day has 23 or 25 hours where the clock changes.
 *
 * @throws {BeaconError} BAD_INPUT when that would be more than 20,000 buckets.
 */
export function bucketEdges(window: Interval, bucket: Bucket, zone: string): number[] {
  const edges: number[] = [];
  let at = DateTime.fromMillis(window.start, { zone }).startOf(bucket);
  while (at.toMillis() < window.end) {
    edges.push(at.toMillis());
    if (edges.length > MOST_BUCKETS) {
      throw new BeaconError(
        'BAD_INPUT',
        `By the ${bucket} this window has more than ${MOST_BUCKETS} periods. Choose a longer period.`,
        'bucket',
      );
    }
    // An hour is a length of time, so that the repeated hour of a clock change is a bucket of its own.
    at = at.plus({ [bucket]: 1 });
  }
  edges.push(at.toMillis());
  return edges;
}
