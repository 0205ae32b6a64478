import {
  type CorrectionChoice,
  type FinishOrder,
  BeaconError,
  EMPTY_SERIES,
  joinSeries,
  type QualifiedSeries,
} from '@vivid-beacon/core';
import { dayOf, mergeSamples, unpackDay } from '@vivid-beacon/core/src/aggregation';
import type { Queryable } from '../db/database';
import { notify } from '../live/notify';
import { needMetrics } from '../metrics/metrics';
import { readGivenDays } from '../samples/sql';
import type { Reader } from '../db/reader';
import { afterMerge } from '../arrivals/storeSamples';
import { mergeIntoStore, type MergeResult } from '../samples/store';
import { dayChangeOf, writeDayChanges, type DayChange } from './changeSql';
import { isMade, makeWithFile } from './made';
import {
  addIntakeMetric,
  closeIntake,
  countParts,
  dropParts,
  listPartDays,
  readParts,
  type IntakeRow,
} from './sql';

/** So many samples are merged at a time, to keep memory small however large the file is. */
const SAMPLES_AT_ONCE = 400_000;
const DAYS_AT_ONCE = 400;

/**
 * Brings all of a file into the store, in the caller's transaction: its assets, metrics and samples, all or nothing.
 *
 * @returns the ids of the metrics that were made, by the reference they had in the parts.
 * @throws {BeaconError} WRONG_STATE when a part is missing, or when stored values would change and `corrections` is
 *         "refuse"; BAD_INPUT when values meet that were not combined.
 */
export async function finishIntake(
  db: Reader,
  intake: IntakeRow,
  told: FinishOrder,
  now: number,
): Promise<ReadonlyMap<string, string>> {
  const arrived = await countParts(db, intake.id);
  if (arrived !== told.batches) {
    throw new BeaconError(
      'WRONG_STATE',
      `Of ${told.batches} parts of the file ${arrived} have arrived. Nothing was taken; send the missing ones or start again.`,
    );
  }
  const slices = slicesOf(await listPartDays(db, intake.id));
  // What could be written when the parts came may be out of reach by now.
  await needMetrics(
    db,
    [...slices.keys()].filter((id) => !isMade(id)),
  );
  const made = await makeWithFile(db, told.made, new Set(slices.keys()), now);
  const results: MergeResult[] = [];
  for (const [partMetric, own] of slices) {
    const target = { partMetric, metricId: made.get(partMetric) ?? partMetric };
    results.push(await takeMetric(db, intake, target, own, told.corrections, now));
  }
  await afterMerge(db, results, now);
  await dropParts(db, intake.id);
  await closeIntake(db, intake.id, 'done', now, {
    rows: told.balance.taken,
    refused: told.balance.refused,
    notes: { balance: told.balance, columns: told.columns },
  });
  await notify(db, 'metrics', []);
  return new Map([...made].map(([id, metricId]) => [`new-${-1 - Number(id)}`, metricId]));
}

/** What storing a file would do to one metric that is there. */
export interface IntakeEffect {
  readonly metricId: string;
  readonly name: string;
  readonly assetName: string;
  readonly plantName: string;
  readonly samples: number;
  readonly unchanged: number;
  readonly corrected: number;
}

/** Compares the parts of a file that have arrived with what is stored, without changing anything. */
export async function checkIntake(db: Reader, intake: IntakeRow): Promise<IntakeEffect[]> {
  const effects: IntakeEffect[] = [];
  const slices = [...slicesOf(await listPartDays(db, intake.id))].filter(([id]) => !isMade(id));
  // One that was removed meanwhile is told.
  const metrics = await needMetrics(
    db,
    slices.map(([id]) => id),
  );
  for (const [metricId, own] of slices) {
    const count = { samples: 0, unchanged: 0, corrected: 0 };
    for (const { from, to } of own) {
      const incoming = await collect(db, intake, metricId, from, to);
      const stored = await storedDays(db, metricId, incoming);
      const { unchanged, corrections } = mergeSamples(stored, incoming);
      count.samples += incoming.t.length;
      count.unchanged += unchanged;
      count.corrected += corrections.length;
    }
    const { name, assetName, plantName } = metrics.get(metricId)!;
    effects.push({ metricId, name, assetName, plantName, ...count });
  }
  return effects;
}

/** What is stored on the days of these samples. */
async function storedDays(db: Queryable, metricId: string, { t }: QualifiedSeries): Promise<QualifiedSeries> {
  const days = [...new Set(Array.from(t, dayOf))];
  const found = await readGivenDays(
    db,
    days.map(() => metricId),
    days,
  );
  return joinSeries(
    [...found].sort((a, b) => a.dayStart - b.dayStart).map((day) => unpackDay(day, day.dayStart)),
  );
}

interface Slice {
  readonly from: number;
  to: number;
  samples: number;
  days: number;
}

/** Days of each metric cut into slices of bounded size. */
function slicesOf(days: readonly { metricId: string; day: number; n: number }[]): Map<string, Slice[]> {
  const out = new Map<string, Slice[]>();
  for (const { metricId, day, n } of days) {
    const slices = out.get(metricId) ?? [];
    out.set(metricId, slices);
    const last = slices[slices.length - 1];
    if (last && last.samples + n <= SAMPLES_AT_ONCE && last.days < DAYS_AT_ONCE) {
      last.to = day;
      last.samples += n;
      last.days++;
    } else slices.push({ from: day, to: day, samples: n, days: 1 });
  }
  return out;
}

async function takeMetric(
  db: Queryable,
  intake: IntakeRow,
  { partMetric, metricId }: { readonly partMetric: string; readonly metricId: string },
  slices: readonly Slice[],
  corrections: CorrectionChoice,
  now: number,
): Promise<MergeResult> {
  const intakeId = intake.id;
  const total = { added: 0, unchanged: 0, corrected: 0, samples: 0, firstT: Infinity, lastT: -Infinity };
  let changedFrom: number | null = null;
  for (const { from, to } of slices) {
    const came = await collect(db, intake, partMetric, from, to);
    const series = corrections === 'keep' ? withoutStored(came, await storedDays(db, metricId, came)) : came;
    if (series.t.length === 0) continue;
    const changes: DayChange[] = [];
    const [result] = await mergeIntoStore(
      db,
      new Map([[metricId, series]]),
      `intake ${intakeId}`,
      now,
      (id, day, merged) => changes.push(dayChangeOf(id, day, merged)),
    );
    if (changes.length > 0) await writeDayChanges(db, intakeId, changes);
    if (corrections === 'refuse' && result.corrected > 0) {
      throw new BeaconError(
        'WRONG_STATE',
        `The file would change ${result.corrected} stored values. Say whether they are replaced or kept; nothing was taken.`,
        'corrections',
      );
    }
    total.added += result.added;
    total.unchanged += result.unchanged;
    total.corrected += result.corrected;
    total.samples += series.t.length;
    total.firstT = Math.min(total.firstT, series.t[0]);
    total.lastT = Math.max(total.lastT, series.t[series.t.length - 1]);
    changedFrom ??= result.changedFrom;
  }
  if (total.samples > 0) await addIntakeMetric(db, { intakeId, metricId, ...total });
  return { metricId, ...total, addedByDay: new Map(), changedFrom, fresh: null };
}

/** Samples at times that hold no value yet, or the same one. */
function withoutStored(series: QualifiedSeries, stored: QualifiedSeries): QualifiedSeries {
  const known = new Map<number, number>();
  stored.t.forEach((t, i) => known.set(t, stored.v[i]));
  const kept = Array.from(series.t.keys()).filter((i) => {
    const before = known.get(series.t[i]);
    return before === undefined || Object.is(before, series.v[i]);
  });
  return {
    t: Float64Array.from(kept, (i) => series.t[i]),
    v: Float64Array.from(kept, (i) => series.v[i]),
    q: series.q && Uint8Array.from(kept, (i) => series.q![i]),
  };
}

/**
 * The samples of some days. Where parts of the file contradict each other the last holds, if the intake says so.
 *
 * @throws {BeaconError} BAD_INPUT where they contradict each other and nobody said what holds.
 */
async function collect(
  db: Queryable,
  intake: IntakeRow,
  partMetric: string,
  from: number,
  to: number,
): Promise<QualifiedSeries> {
  const days = new Map<number, QualifiedSeries>();
  for (const part of await readParts(db, intake.id, partMetric, from, to)) {
    const before = days.get(part.dayStart) ?? EMPTY_SERIES;
    const { series, corrections } = mergeSamples(before, unpackDay(part, part.dayStart));
    if (corrections.length > 0 && intake.collisions === 'refuse') throw valuesCollide(corrections[0].t);
    days.set(part.dayStart, series);
  }
  return joinSeries([...days].sort(([a], [b]) => a - b).map(([, series]) => series));
}

/** Different values of one series at one time, and nobody said which holds. */
export function valuesCollide(t: number): BeaconError {
  return new BeaconError(
    'BAD_INPUT',
    `Two different values of one series stand at ${new Date(t).toISOString()}. Say which holds; nothing was taken.`,
    'collisions',
  );
}
