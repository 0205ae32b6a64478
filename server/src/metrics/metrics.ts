import { BeaconError, feedHealth, type Metric, type MetricReading } from '@vivid-beacon/core';
import type { Reader } from '../db/reader';
import { metricsById, type MetricRow } from './sql';

/** A metric as the app sees it. */
export function toMetric(row: MetricRow, now: number): Metric {
  const { lastT, lastV, lastQ, receivedAt, flatSince, aheadMs, aheadAt, assetKind, path, ...rest } = row;
  const last = lastT === null || lastV === null ? null : { t: lastT, v: lastV, quality: lastQ };
  return {
    ...rest,
    last: last && { t: last.t, v: last.v },
    health: feedHealth({ ...rest, last, receivedAt, flatSince, aheadMs, aheadAt }, now),
  };
}

/** How its samples are to be read. */
export function readingOf({ kind, intervalMs, maxGapMs, rollover, cut }: MetricRow): MetricReading {
  return { kind, intervalMs, maxGapMs, rollover, isSpread: kind === 'amount' && cut === 'share' };
}

/** @throws {BeaconError} NOT_FOUND naming the first id that is no metric. */
export async function needMetrics(db: Reader, ids: readonly string[]): Promise<Map<string, MetricRow>> {
  const found = await metricsById(db, ids);
  for (const id of ids) {
    if (!found.has(id)) {
      throw new BeaconError(
        'NOT_FOUND',
        `Metric ${id} does not exist any more. Pick another metric.`,
        'metricId',
      );
    }
  }
  return found;
}

/** A key for pushes, from asset and metric: "ironer-2.bed-temperature". */
export function keyFrom(...names: string[]): string {
  return names
    .map((name) =>
      name
        .normalize('NFKD')
        .replace(/[\u0300-\u036f]/g, '')
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^-+|-+$/g, ''),
    )
    .map((part) => part || 'x')
    .join('.');
}
