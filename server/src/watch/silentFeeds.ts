import { SAMPLE_TESTS, type SilentFeeds } from '@vivid-beacon/core';
import type { Reader } from '../db/reader';
import { toMetric } from '../metrics/metrics';
import { countSilent, silentMetrics } from '../metrics/searchSql';

/** More than anybody goes through; of the rest it is told how many there are. */
const MAX_SHOWN = 100;

/** Feeds that went quiet, of one plant or of all: those that alarm rules look at first. */
export async function silentFeeds(db: Reader, plantId: string | null, now: number): Promise<SilentFeeds> {
  const rows = await silentMetrics(db, { plantId, firstWatchedFor: SAMPLE_TESTS, most: MAX_SHOWN }, now);
  const feeds = rows.map((row) => toMetric(row, now));
  if (feeds.length === MAX_SHOWN) return { feeds, count: await countSilent(db, plantId, now) };
  const count: Record<string, number> = {};
  for (const feed of feeds) count[feed.plantId] = (count[feed.plantId] ?? 0) + 1;
  return { feeds, count };
}
