import { TRAIL_DAYS } from '@vivid-beacon/core/src/api/trail';
import type { Queryable } from '../db/database';
import { readSetting } from '../db/settings';
import { cutTrail } from './sql';

/** Setting: for how many days the trail is kept. */
export const KEPT_DAYS = 'trailDays';

export async function keptDays(db: Queryable): Promise<number> {
  return (await readSetting<number>(db, KEPT_DAYS)) ?? TRAIL_DAYS.usual;
}

/** Cuts off what is past its time. */
export async function tidyTrail(db: Queryable, now: number): Promise<number> {
  return cutTrail(db, await keptDays(db), now);
}
