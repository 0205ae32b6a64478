import { BeaconError, EMPTY_SERIES, joinSeries, type QualifiedSeries } from '@vivid-beacon/core';
import { mergeSamples, unpackDay } from '@vivid-beacon/core/src/engine';
import { evaluateAlarms } from '../alarms/evaluate';
import type { Queryable } from '../db/database';
import { notify } from '../live/notify';
import { mergeIntoStore, type MergeResult } from '../samples/store';
import { dayChangeOf, writeDayChanges, type DayChange } from './changeSql';
import {
  addIntakeMetric,
  closeIntake,
  countParts,
  dropParts,
  listPartDays,
  readParts,
  type IntakeRow,
} from './sql';

export interface ToldOfFile {
  readonly batches: number;
  readonly rows: number;
  readonly refused: number;
  readonly notes: unknown;
}

/** So many samples are merged at a time, to keep memory small however large the file is. */
const SAMPLES_AT_ONCE = 400_000;
const DAYS_AT_ONCE = 400;

/**
 * Brings all of a file into the store, in the caller's transaction: all of it or nothing.
 *
 * @param told.batches how many parts were sent; if one is missing nothing is done.
 */
export async function finishIntake(
  db: Queryable,
  intake: IntakeRow,
  told: ToldOfFile,
  now: number,
): Promise<void> {
  const arrived = await countParts(db, intake.id);
  if (arrived !== told.batches) {
    throw new BeaconError(
      'WRONG_STATE',
      `Of ${told.batches} parts of the file ${arrived} have arrived. Nothing was taken; send the missing ones or start again.`,
    );
  }
  const results: MergeResult[] = [];
  for (const [metricId, slices] of slicesOf(await listPartDays(db, intake.id))) {
    results.push(await takeMetric(db, intake.id, metricId, slices, now));
  }
  await evaluateAlarms(db, results, now);
  await dropParts(db, intake.id);
  await closeIntake(db, intake.id, 'done', now, told);
  const changed = results.filter(({ changedFrom }) => changedFrom !== null).map(({ metricId }) => metricId);
  if (changed.length > 0) await notify(db, 'samples', changed);
  await notify(db, 'metrics', []);
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
  intakeId: string,
  metricId: string,
  slices: readonly Slice[],
  now: number,
): Promise<MergeResult> {
  const total = { added: 0, unchanged: 0, corrected: 0, samples: 0, firstT: Infinity, lastT: -Infinity };
  let changedFrom: number | null = null;
  for (const { from, to } of slices) {
    const series = await collect(db, intakeId, metricId, from, to);
    const changes: DayChange[] = [];
    const [result] = await mergeIntoStore(
      db,
      new Map([[metricId, series]]),
      `intake ${intakeId}`,
      now,
      (id, day, merged) => changes.push(dayChangeOf(id, day, merged)),
    );
    if (changes.length > 0) await writeDayChanges(db, intakeId, changes);
    total.added += result.added;
    total.unchanged += result.unchanged;
    total.corrected += result.corrected;
    total.samples += series.t.length;
    total.firstT = Math.min(total.firstT, series.t[0]);
    total.lastT = Math.max(total.lastT, series.t[series.t.length - 1]);
    changedFrom ??= result.changedFrom;
  }
  await addIntakeMetric(db, { intakeId, metricId, ...total });
  return { metricId, ...total, addedByDay: new Map(), changedFrom, fresh: null };
}

/** The samples of some days; of several at one time the last in the file holds. */
async function collect(
  db: Queryable,
  intakeId: string,
  metricId: string,
  from: number,
  to: number,
): Promise<QualifiedSeries> {
  const days = new Map<number, QualifiedSeries>();
  for (const part of await readParts(db, intakeId, metricId, from, to)) {
    const before = days.get(part.dayStart) ?? EMPTY_SERIES;
    days.set(part.dayStart, mergeSamples(before, unpackDay(part, part.dayStart)).series);
  }
  return joinSeries([...days].sort(([a], [b]) => a - b).map(([, series]) => series));
}
