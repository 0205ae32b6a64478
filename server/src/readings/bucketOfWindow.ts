import { DAY_MS, HOUR_MS, resolveWindow, type WindowSpec } from '@vivid-beacon/core';

/** Periods by which the past of an indicator is told. */
export type PastBucket = 'hour' | 'day' | 'week' | 'month' | 'quarter' | 'year';

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
