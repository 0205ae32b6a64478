import { workingTime, type Interval, type JobEntry, type StatusKind } from '@vivid-beacon/core';
import { workingDuration } from '@vivid-beacon/core/src/aggregation';
import { calendarOf } from '../calendars/sql';
import type { Reader } from '../db/reader';
import { listStatusKinds, type JobRow } from './sql';

/** Jobs with the time they took in working hours and our own statuses. */
export async function withTimes(db: Reader, rows: readonly JobRow[], now: number): Promise<JobEntry[]> {
  const kinds = await listStatusKinds(db, [...new Set(rows.map(({ assetId }) => assetId))]);
  const byAsset = new Map<string, StatusKind[]>();
  for (const { assetId, ...kind } of kinds) byAsset.set(assetId, [...(byAsset.get(assetId) ?? []), kind]);
  const plants = [...new Set(rows.map(({ plantId }) => plantId))];
  const calendars = new Map(
    await Promise.all(plants.map(async (id) => [id, await calendarOf(db, id)] as const)),
  );
  const working = new Map<string, readonly Interval[]>();
  // Laid out once over all jobs of a plant.
  const workingOf = (plantId: string, zone: string): readonly Interval[] => {
    const key = `${plantId} ${zone}`;
    const start = Math.min(...rows.map(({ history }) => history[0].at));
    if (!working.has(key)) {
      working.set(key, workingTime(calendars.get(plantId)!, { start, end: Math.max(start, now) }, zone));
    }
    return working.get(key)!;
  };
  return rows.map(({ plantId, ...row }) => {
    const ofDesk = byAsset.get(row.assetId) ?? [];
    const stopping = new Set(ofDesk.filter(({ stopsClock }) => stopsClock).map(({ status }) => status));
    const ending = new Set(ofDesk.filter(({ endsJob }) => endsJob).map(({ status }) => status));
    const start = row.history[0].at;
    const end = row.history.find(({ status }) => ending.has(status))?.at ?? null;
    return {
      ...row,
      open: end === null,
      elapsedMs: (end ?? now) - start,
      workingMs: workingDuration({ start, end }, row.history, stopping, workingOf(plantId, row.zone), now),
    };
  });
}
