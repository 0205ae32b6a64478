import type { Metric } from '@vivid-beacon/core';
import type { Reader } from '../db/reader';
import { toMetric } from '../metrics/metrics';
import { listMetrics } from '../metrics/sql';

/** A metric fed by files, a day or more between samples, is not a feed that can go quiet. */
const SLOWEST_FEED_MS = 86_400_000;

/** Metrics whose feed went quiet. */
export async function silentFeeds(db: Reader, now: number): Promise<Metric[]> {
  return (await listMetrics(db))
    .filter(({ intervalMs }) => intervalMs < SLOWEST_FEED_MS)
    .map((row) => toMetric(row, now))
    .filter(({ health }) => health.state === 'silent');
}
