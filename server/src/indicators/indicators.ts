import { timeByLevel, type IndicatorLoss, type IndicatorReading, type Interval } from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { readValue } from '../readings/read';
import { readLevels } from '../readings/trend';
import { listIndicators } from './sql';

/** Every indicator with its present value. */
export async function readIndicators(db: Queryable, now: number): Promise<IndicatorReading[]> {
  const rows = await listIndicators(db);
  return Promise.all(
    rows.map(async ({ id, name, assetName, plantId, measure, span, band, decimals }) => ({
      id,
      name,
      assetName,
      plantId,
      measure,
      window: span,
      band,
      decimals,
      reading: await readValue(db, { measure, window: span, band }, now),
    })),
  );
}

/** How long each indicator lay on which level, by the hour, those longest in breach first. */
export async function readIndicatorLosses(
  db: Queryable,
  interval: Interval,
  now: number,
): Promise<IndicatorLoss[]> {
  const rows = await listIndicators(db);
  const losses = await Promise.all(
    rows.map(async ({ id, name, assetName, plantId, measure, band }) => {
      const time = timeByLevel(await readLevels(db, { measure, band, interval, bucket: 'hour' }, now));
      return {
        id,
        name,
        assetName,
        plantId,
        breachMs: time.breach,
        cautionMs: time.caution,
        nodataMs: time.nodata,
        clearMs: time.clear,
      };
    }),
  );
  return losses.sort((a, b) => b.breachMs - a.breachMs || b.cautionMs - a.cautionMs);
}
