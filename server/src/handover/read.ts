import { BeaconError, lengthOf, unionOf, type Handover, type HandoverShift } from '@vivid-beacon/core';
import { handoverShifts } from '@vivid-beacon/core/src/alarming';
import { alarmsRaisedIn, pageOfAlarms } from '../alarms/listSql';
import { findAsset, idsBelow } from '../assets/sql';
import { calendarOf } from '../calendars/sql';
import type { Reader } from '../db/reader';
import { flagsClosedIn, pageOfFlags } from '../flags/sql';
import { listStops } from '../logs/sql';
import { listRemarks } from '../remarks/sql';
import { silentFeeds } from '../watch/silentFeeds';
import { listNotes, setAsideIn } from './sql';

/** More than a shift takes over. */
const MOST = { offset: 0, limit: 10_000 };

/** The shift of a plant that begins at `shiftStart`, or the one under way. @throws {BeaconError} NOT_FOUND */
export async function readShift(
  db: Reader,
  plantId: string,
  shiftStart: number | null,
  now: number,
): Promise<{ shift: HandoverShift; shifts: HandoverShift[] }> {
  const plant = await findAsset(db, plantId);
  if (!plant || plant.parentId !== null) throw new BeaconError('NOT_FOUND', 'This plant does not exist.');
  const shifts = handoverShifts(await calendarOf(db, plantId), now, plant.zone);
  const shift = shiftStart === null ? shifts[0] : shifts.find(({ start }) => start === shiftStart);
  if (!shift) throw new BeaconError('NOT_FOUND', 'There is no such shift in the last three days.');
  return { shift, shifts };
}

/** The events of a shift and what is still open. */
export async function readHandover(
  db: Reader,
  plantId: string,
  shiftStart: number | null,
  now: number,
): Promise<Handover> {
  const { shift, shifts } = await readShift(db, plantId, shiftStart, now);
  const plant = (await findAsset(db, plantId))!;
  const ids = await idsBelow(db, plantId);
  const end = Math.min(shift.end, now);
  // Half-open: what happened at this very moment belongs to it.
  const until = Math.min(shift.end, now + 1);
  const during = { start: shift.start, end: until };
  const [raised, standing, setAside, open, closed, stops, remarks, silent, notes] = await Promise.all([
    alarmsRaisedIn(db, plantId, during),
    pageOfAlarms(db, { list: 'standing', plantId }, MOST),
    setAsideIn(db, plantId),
    pageOfFlags(db, { state: 'open', list: 'all', plantId }, MOST, { now }),
    flagsClosedIn(db, plantId, during),
    listStops(db, ids, shift.start, end),
    listRemarks(db, ids, shift.start, end),
    silentFeeds(db, plantId, now),
    listNotes(db, plantId, shift.start),
  ]);
  return {
    plantId,
    plantName: plant.name,
    zone: plant.zone,
    now,
    shift,
    shifts,
    raised,
    standing: standing.items,
    setAside,
    openFlags: open.items,
    closedFlags: closed,
    stops,
    stoppedMs: stoppedIn(stops, { start: shift.start, end }),
    remarks,
    silent,
    notes,
  };
}

/** ms stopped inside the shift, added up over assets; stops of one asset that overlap count once. */
function stoppedIn(stops: Handover['stops'], { start, end }: { start: number; end: number }): number {
  const byAsset = new Map<string, { start: number; end: number }[]>();
  for (const stop of stops) {
    const span = { start: Math.max(start, stop.start), end: Math.min(end, stop.end ?? end) };
    byAsset.set(stop.assetId, [...(byAsset.get(stop.assetId) ?? []), span]);
  }
  return [...byAsset.values()].reduce((sum, spans) => sum + lengthOf(unionOf(spans)), 0);
}
