import { logNotes, type NotesAnswer, type NotesAsk } from '@vivid-beacon/core';
import { spend } from '../db/readBudget';
import type { Reader } from '../db/reader';
import { remarksBelow, stopsBelow } from './notesSql';

/** What the stop log and remarks say of assets, by stretch of time. */
export async function readNotes(
  { db, now }: { readonly db: Reader; readonly now: number },
  ask: NotesAsk,
): Promise<NotesAnswer> {
  const from = Math.min(...ask.spans.map(({ start }) => start));
  const to = Math.max(...ask.spans.map(({ end }) => end));
  const [stops, remarks] = await Promise.all([
    stopsBelow(db, ask.assetIds, from, to),
    remarksBelow(db, ask.assetIds, from, to),
  ]);
  // Every stretch is laid against every entry.
  spend(db, (stops.length + remarks.length) * ask.spans.length);
  return { notes: logNotes(ask, stops, remarks, now), now };
}
