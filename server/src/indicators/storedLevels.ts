import { NO_LEVELS, type IndicatorReading, type Level, type LevelCounts } from '@vivid-beacon/core';
import { readAsServer } from '../db/reader';
import type { AppContext } from '../http/appContext';
import { readInProcess } from '../readings/answerReading';
import { indicatorLevelsReading } from './readings';
import { storeLevels, staleLevels } from './levelSql';

const RENEW_MS = 60_000;
const MAX_AT_ONCE = 100;
/** So many are judged together: whoever waits for an answer meanwhile gets connections to the database too. */
const TOGETHER = 5;

/** Judges indicators that were not judged for a minute, and keeps their levels. @returns how many. */
export async function refreshLevels(app: AppContext): Promise<number> {
  const db = readAsServer(app.pool);
  const now = app.now();
  const ids = await staleLevels(db, now - RENEW_MS, MAX_AT_ONCE);
  for (let i = 0; i < ids.length; i += TOGETHER) {
    const levels = await readInProcess({ app, db }, indicatorLevelsReading, {
      ids: ids.slice(i, i + TOGETHER),
    });
    await storeLevels(app.pool, levels, now);
  }
  return ids.length;
}

/** How many indicators of each plant are on each level: as kept, but those just read as they are. */
export function countLevels(
  kept: readonly { readonly plantId: string; readonly level: Level | null; readonly n: number }[],
  read: readonly (Pick<IndicatorReading, 'plantId' | 'reading'> & { readonly keptLevel: Level | null })[],
): Record<string, LevelCounts> {
  const counts = new Map<string, Record<Level, number>>();
  const add = (plantId: string, level: Level | null, n: number): void => {
    const plant = counts.get(plantId) ?? { ...NO_LEVELS };
    plant[level ?? 'nodata'] += n;
    counts.set(plantId, plant);
  };
  for (const { plantId, level, n } of kept) add(plantId, level, n);
  for (const { plantId, keptLevel, reading } of read) {
    add(plantId, keptLevel, -1);
    add(plantId, reading.level, 1);
  }
  return Object.fromEntries(counts);
}
