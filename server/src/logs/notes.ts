import {
  BeaconError,
  DEFAULT_CALENDAR,
  logNotes,
  MAX_NOTES,
  resolveWindow,
  type AssetStretches,
  type Interval,
  type NotesAnswer,
  type NotesAsk,
  type WorkingCalendar,
} from '@vivid-beacon/core';
import { bucketSpans, type BucketSpans } from '@vivid-beacon/core/src/aggregation';
import { assetsById } from '../assets/sql';
import { spend } from '../db/readBudget';
import type { Reader } from '../db/reader';
import { remarksBelow, stopsBelow } from './notesSql';

/** With the working calendars of all plants. */
interface NotesContext {
  readonly db: Reader;
  readonly now: number;
  readonly reads: {
    calendars(db: Reader): Promise<{ plantId: string; calendar: WorkingCalendar }[]>;
  };
}

/**
 * What the stop log and remarks say of assets, over a window and its periods, in recurring hours: those of each asset's own
 * site, as values are.
 *
 * @throws {BeaconError} BAD_INPUT for more assets and periods than `MAX_NOTES`.
 */
export async function readNotes(
  { db, now, reads }: NotesContext,
  { assetIds, window, bucket, hours }: NotesAsk,
): Promise<NotesAnswer> {
  const found = new Map((await assetsById(db, [...assetIds])).map((asset) => [asset.id, asset]));
  const assets = assetIds.flatMap((id) => found.get(id) ?? []);
  const calendars = new Map((await reads.calendars(db)).map((each) => [each.plantId, each.calendar]));
  const byPlant = new Map<string, readonly (readonly Interval[])[]>();
  let pieces = 0;
  const laid: AssetStretches[] = [];
  for (const { id, plantId, zone } of assets) {
    let stretches = byPlant.get(plantId);
    if (!stretches) {
      const calendar = calendars.get(plantId) ?? DEFAULT_CALENDAR;
      const whole = resolveWindow(window, now, zone, calendar);
      stretches = [
        ...piecesOf(bucketSpans(whole, null, hours, zone, calendar)),
        ...(bucket === null ? [] : piecesOf(bucketSpans(whole, bucket, hours, zone, calendar))),
      ];
      byPlant.set(plantId, stretches);
    }
    pieces += stretches.reduce((sum, each) => sum + each.length, 0);
    if (pieces > MAX_NOTES) throw tooMany();
    laid.push({ assetId: id, stretches });
  }
  const all = [...byPlant.values()].flat(2);
  if (all.length === 0) return { notes: [], now };
  const from = all.reduce((least, { start }) => Math.min(least, start), Infinity);
  const to = all.reduce((most, { end }) => Math.max(most, end), -Infinity);
  const ids = laid.map(({ assetId }) => assetId);
  const [stops, remarks] = await Promise.all([
    stopsBelow(db, ids, from, to),
    remarksBelow(db, ids, from, to),
  ]);
  // Every piece is laid against every entry.
  spend(db, (stops.length + remarks.length) * Math.ceil(pieces / Math.max(1, laid.length)));
  return { notes: logNotes(laid, stops, remarks, now), now };
}

const tooMany = (): BeaconError =>
  new BeaconError(
    'BAD_INPUT',
    `What the logs say is told of at most ${MAX_NOTES} assets times stretches of time. Narrow the scope, shorten the window, or take longer periods.`,
    'assetIds',
  );

/** The pieces of each period. */
function piecesOf({ size, spans }: BucketSpans): Interval[][] {
  const pieces = Array.from({ length: size }, (): Interval[] => []);
  for (let i = 0; i < spans.start.length; i++) {
    pieces[spans.into[i]].push({ start: spans.start[i], end: spans.end[i] });
  }
  return pieces;
}
