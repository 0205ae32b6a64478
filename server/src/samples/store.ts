import {
  BeaconError,
  DAY_MS,
  EMPTY_SERIES,
  joinSeries,
  qualityInRange,
  sliceSeries,
  usableOf,
  type QualifiedSeries,
  type Series,
} from '@vivid-beacon/core';
import {
  appendToDay,
  dayOf,
  mergeSamples,
  packDay,
  unpackDay,
  type Correction,
  type Merged,
} from '@vivid-beacon/core/src/aggregation';
import type { Queryable } from '../db/database';
import { writeLatest, type LatestRow } from './latestSql';
import { portionsOf } from './portions';
import { storeRollups, type ChangedDay } from './rollups';
import {
  appendDays,
  lockMetrics,
  readGivenDays,
  writeCorrections,
  writeDays,
  type AppendedDay,
  type StoreMetric,
  type WrittenDay,
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
  /** The usable samples that were added, when nothing was corrected and they are few; null = read them. */
  readonly fresh: Series | null;
}

/** Told of every day that changed, with what it was merged from. */
export type MergeObserver = (metricId: string, dayStart: number, merged: Merged) => void;

/** Of more added samples than this none are kept at hand. */
const FEW = 2000;

/** Samples by metric, in increasing times. */
export type Incoming = ReadonlyMap<string, Series & { readonly q?: Uint8Array | null }>;

/**
 * Merges samples into the packed days of their metrics and brings rollups and newest samples in line. Must
 * run in a transaction: the metrics stay locked until it ends. Repeats change nothing, new values replace
 * old ones and leave them in `sample_correction`. Values outside the metric's plausible range are marked.
 *
 * @param incoming per metric, increasing times. @param source named with corrections.
 * @throws {BeaconError} WRONG_STATE when a metric was removed while its samples were on their way.
 */
export async function mergeIntoStore(
  db: Queryable,
  incoming: Incoming,
  source: string,
  now: number,
  observe: MergeObserver = () => undefined,
): Promise<MergeResult[]> {
  const metrics = await lockMetrics(db, [...incoming.keys()]);
  refuseRemoved([...incoming.keys()], metrics);
  const aggregates = new Map(metrics.map(({ id }) => [id, emptyAggregate(id)]));
  const pieces = metrics.flatMap((metric) => splitByDay(metric, incoming.get(metric.id)!));
  const latest = new Map<string, LatestRow>();
  for (const portion of portionsOf(pieces, ({ series }) => series.t.length)) {
    const changed = await mergePieces(db, portion, aggregates, source, now, observe);
    if (changed.length === 0) continue;
    await storeRollups(db, changed);
    for (const day of changed) {
      const row = newestOf(day);
      if (row) latest.set(row.metricId, row);
    }
  }
  if (latest.size > 0) await writeLatest(db, [...latest.values()], now);
  return [...aggregates.values()];
}

function refuseRemoved(ids: readonly string[], locked: readonly StoreMetric[]): void {
  const there = new Set(locked.filter(({ removed }) => !removed).map(({ id }) => id));
  const gone = ids.filter((id) => !there.has(id));
  if (gone.length === 0) return;
  throw new BeaconError(
    'WRONG_STATE',
    `${gone.length} of these metrics were removed while their samples were on their way (${gone.slice(0, 5).join(', ')}); nothing was taken. Send the samples again without them.`,
    'metricId',
  );
}

interface Tally {
  metricId: string;
  added: number;
  unchanged: number;
  corrected: number;
  addedByDay: Map<number, number>;
  changedFrom: number | null;
  fresh: Series | null;
}

interface Piece {
  readonly metric: StoreMetric;
  readonly dayStart: number;
  readonly series: QualifiedSeries;
}

function emptyAggregate(metricId: string): Tally {
  return {
    metricId,
    added: 0,
    unchanged: 0,
    corrected: 0,
    addedByDay: new Map(),
    changedFrom: null,
    fresh: EMPTY_SERIES,
  };
}

function splitByDay(metric: StoreMetric, given: Series & { readonly q?: Uint8Array | null }): Piece[] {
  const series = judgedSeries(given, metric);
  const pieces: Piece[] = [];
  for (let i = 0; i < series.t.length;) {
    const dayStart = dayOf(series.t[i]);
    const day = sliceSeries(series, dayStart, dayStart + DAY_MS);
    pieces.push({ metric, dayStart, series: day });
    i += day.t.length;
  }
  return pieces;
}

/** The same samples with those outside the plausible range marked. */
export function judgedSeries(
  series: Series & { readonly q?: Uint8Array | null },
  range: Pick<StoreMetric, 'low' | 'high'>,
): QualifiedSeries {
  const { t, v } = series;
  if (range.low === null && range.high === null && !series.q) return { t, v, q: null };
  const q = new Uint8Array(t.length);
  let some = false;
  for (let i = 0; i < t.length; i++) {
    q[i] = qualityInRange(series.q?.[i] ?? 0, v[i], range);
    if (q[i] !== 0) some = true;
  }
  return { t, v, q: some ? q : null };
}

async function mergePieces(
  db: Queryable,
  pieces: readonly Piece[],
  aggregates: ReadonlyMap<string, Tally>,
  source: string,
  now: number,
  observe: MergeObserver,
): Promise<ChangedDay[]> {
  const found = await readGivenDays(
    db,
    pieces.map(({ metric }) => metric.id),
    pieces.map(({ dayStart }) => dayStart),
  );
  const before = new Map(found.map((day) => [`${day.metricId} ${day.dayStart}`, day]));
  const written: WrittenDay[] = [];
  const appended: AppendedDay[] = [];
  const changed: ChangedDay[] = [];
  const corrections: (Correction & { metricId: string })[] = [];
  for (const { metric, dayStart, series } of pieces) {
    const old = before.get(`${metric.id} ${dayStart}`);
    const stored = old ? unpackDay(old, dayStart) : EMPTY_SERIES;
    const merged = mergeSamples(stored, series);
    const tally = aggregates.get(metric.id)!;
    const added = merged.added.t.length;
    tally.added += added;
    tally.unchanged += merged.unchanged;
    tally.corrected += merged.corrections.length;
    if (added === 0 && merged.corrections.length === 0) continue;
    if (added > 0) tally.addedByDay.set(dayStart, added);
    for (const each of merged.corrections) corrections.push({ ...each, metricId: metric.id });
    const usable = usableOf(merged.series);
    const change = changeOf(merged);
    tally.changedFrom ??= change.first;
    tally.fresh = freshOf(tally.fresh, merged);
    changed.push({ metric, dayStart, usable, all: merged.series, change });
    const last = stored.t.length - 1;
    const tail =
      old && last >= 0 && series.t[0] > stored.t[last]
        ? appendToDay(old, { t: stored.t[last], v: stored.v[last] }, series, dayStart)
        : null;
    const end = { t: series.t[series.t.length - 1], v: series.v[series.v.length - 1] };
    if (tail) appended.push({ metricId: metric.id, dayStart, ...tail, before: old!.n, last: end });
    else written.push(toWrittenDay(metric.id, dayStart, merged.series, usable));
    observe(metric.id, dayStart, merged);
  }
  if (written.length > 0) await writeDays(db, written);
  if (appended.length > 0) await appendDays(db, appended);
  if (corrections.length > 0) await writeCorrections(db, corrections, source, now);
  return changed;
}

/** Keeps few added samples at hand for those who look at new ones only. */
function freshOf(before: Series | null, { added, corrections }: Merged): Series | null {
  if (before === null || corrections.length > 0 || before.t.length + added.t.length > FEW) return null;
  return joinSeries([before, usableOf(added)]);
}

/** A day as it is written, with its ends. */
export function toWrittenDay(
  metricId: string,
  dayStart: number,
  series: QualifiedSeries,
  usable: Series,
): WrittenDay {
  const n = usable.t.length;
  return {
    metricId,
    dayStart,
    ...packDay(series, dayStart),
    first: n > 0 ? { t: usable.t[0], v: usable.v[0] } : null,
    last: n > 0 ? { t: usable.t[n - 1], v: usable.v[n - 1] } : null,
    unusable: series.t.length - n,
  };
}

function changeOf({ added, corrections }: Merged): { first: number; last: number } {
  let first = Infinity;
  let last = -Infinity;
  if (added.t.length > 0) {
    first = added.t[0];
    last = added.t[added.t.length - 1];
  }
  if (corrections.length > 0) {
    first = Math.min(first, corrections[0].t);
    last = Math.max(last, corrections[corrections.length - 1].t);
  }
  return { first, last };
}

/** The newest sample of a day and since when its value has stood. */
function newestOf({ metric, all: { t, v, q } }: ChangedDay): LatestRow | null {
  const n = t.length;
  if (n === 0) return null;
  let from = n - 1;
  while (from > 0 && v[from - 1] === v[n - 1]) from--;
  return {
    metricId: metric.id,
    t: t[n - 1],
    v: v[n - 1],
    q: q?.[n - 1] ?? 0,
    flatSince: t[from],
    flatAllDay: from === 0,
  };
}
