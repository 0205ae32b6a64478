import {
  DAY_MS,
  EMPTY_SERIES,
  dayOf,
  joinSeries,
  mergeSamples,
  packDay,
  sliceSeries,
  unpackDay,
  type Correction,
  type Series,
} from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import {
  lockMetrics,
  readDays,
  readGivenDays,
  writeCorrections,
  writeDays,
  writeLatest,
  type StoredDay,
} from './sql';

/** What a merge did to one metric. */
export interface MergeResult {
  readonly metricId: string;
  readonly added: number;
  readonly unchanged: number;
  readonly corrected: number;
  /** Samples added, by UTC day (ms). */
  readonly addedByDay: ReadonlyMap<number, number>;
  /** Earliest time whose value is new; null when nothing changed. */
  readonly changedFrom: number | null;
}

/** Days written by one statement; each is a few kB. */
const DAYS_AT_ONCE = 400;

/**
 * Merges samples into the packed days of their metrics. Must run in a transaction: the metrics stay
 * locked until it ends. Repeats change nothing, new values replace old ones and leave them in
 * `sample_correction`.
 *
 * @param incoming per metric, increasing times, no NaN. @param source named with corrections.
 */
export async function mergeIntoStore(
  db: Queryable,
  incoming: ReadonlyMap<string, Series>,
  source: string,
  now: number,
): Promise<MergeResult[]> {
  const metricIds = [...incoming.keys()].sort((a, b) => Number(BigInt(a) - BigInt(b)));
  await lockMetrics(db, metricIds);
  const results = new Map(metricIds.map((id) => [id, emptyTally(id)]));
  const pieces = metricIds.flatMap((id) => splitByDay(id, incoming.get(id)!));
  for (let i = 0; i < pieces.length; i += DAYS_AT_ONCE) {
    await mergePieces(db, pieces.slice(i, i + DAYS_AT_ONCE), results, source, now);
  }
  const latest = metricIds
    .map((metricId) => ({ metricId, series: incoming.get(metricId)! }))
    .filter(({ series }) => series.t.length > 0)
    .map(({ metricId, series: { t, v } }) => ({ metricId, t: t[t.length - 1], v: v[v.length - 1] }));
  if (latest.length > 0) await writeLatest(db, latest);
  return [...results.values()];
}

interface Tally {
  metricId: string;
  added: number;
  unchanged: number;
  corrected: number;
  addedByDay: Map<number, number>;
  changedFrom: number | null;
}

interface Piece {
  readonly metricId: string;
  readonly dayStart: number;
  readonly series: Series;
}

function emptyTally(metricId: string): Tally {
  return { metricId, added: 0, unchanged: 0, corrected: 0, addedByDay: new Map(), changedFrom: null };
}

function splitByDay(metricId: string, series: Series): Piece[] {
  const pieces: Piece[] = [];
  for (let i = 0; i < series.t.length;) {
    const dayStart = dayOf(series.t[i]);
    const day = sliceSeries(series, dayStart, dayStart + DAY_MS);
    pieces.push({ metricId, dayStart, series: day });
    i += day.t.length;
  }
  return pieces;
}

async function mergePieces(
  db: Queryable,
  pieces: readonly Piece[],
  tallies: ReadonlyMap<string, Tally>,
  source: string,
  now: number,
): Promise<void> {
  const stored = await readGivenDays(
    db,
    pieces.map((piece) => piece.metricId),
    pieces.map((piece) => piece.dayStart),
  );
  const before = new Map(stored.map((day) => [`${day.metricId} ${day.dayStart}`, day]));
  const changed: StoredDay[] = [];
  const corrections: (Correction & { metricId: string })[] = [];
  for (const { metricId, dayStart, series } of pieces) {
    const old = before.get(`${metricId} ${dayStart}`);
    const oldSeries = old ? unpackDay(old, dayStart) : EMPTY_SERIES;
    const merged = mergeSamples(oldSeries, series);
    const tally = tallies.get(metricId)!;
    tally.added += merged.added;
    tally.unchanged += merged.unchanged;
    tally.corrected += merged.corrections.length;
    if (merged.added === 0 && merged.corrections.length === 0) continue;
    if (merged.added > 0) tally.addedByDay.set(dayStart, merged.added);
    tally.changedFrom ??= firstChange(oldSeries, series);
    changed.push({ metricId, dayStart, ...packDay(merged.series, dayStart) });
    for (const each of merged.corrections) corrections.push({ ...each, metricId });
  }
  if (changed.length > 0) await writeDays(db, changed);
  if (corrections.length > 0) await writeCorrections(db, corrections, source, now);
}

/** Earliest incoming time that is new or has a new value. */
function firstChange(stored: Series, incoming: Series): number | null {
  const known = new Map<number, number>();
  stored.t.forEach((t, i) => known.set(t, stored.v[i]));
  for (let i = 0; i < incoming.t.length; i++) {
    if (!Object.is(known.get(incoming.t[i]), incoming.v[i])) return incoming.t[i];
  }
  return null;
}

/** The samples of several metrics with `from` ≤ t < `to`; metrics without any are given as empty. */
export async function readSeries(
  db: Queryable,
  metricIds: readonly string[],
  from: number,
  to: number,
): Promise<Map<string, Series>> {
  const parts = new Map<string, Series[]>(metricIds.map((id) => [id, []]));
  for (const day of await readDays(db, metricIds, from, to)) {
    parts.get(day.metricId)!.push(unpackDay(day, day.dayStart));
  }
  return new Map([...parts].map(([id, days]) => [id, sliceSeries(joinSeries(days), from, to)]));
}
