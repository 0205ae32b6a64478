import {
  DAY_MS,
  firstAtOrAfter,
  usableOf,
  EMPTY_SERIES,
  type MetricReading,
  type QualifiedSeries,
  type Series,
} from '@vivid-beacon/core';
import {
  dayOf,
  holdsThroughout,
  hoursOfQuarters,
  isEmptyRollup,
  packRollup,
  rollupDay,
  touchedStretch,
  unpackDay,
  type Aggregates,
} from '@vivid-beacon/core/src/aggregation';
import type { Queryable } from '../db/database';
import { breather } from './breather';
import { writeRollups, type StoredRollup } from './rollupSql';
import { readGivenDays, readNeighbours, type EndSample, type StoreMetric } from './sql';

/** One day whose samples changed, as it is now. */
export interface ChangedDay {
  readonly metric: StoreMetric;
  readonly dayStart: number;
  readonly usable: Series;
  readonly all: QualifiedSeries;
  /** Earliest and latest time that changed. */
  readonly change: { readonly first: number; readonly last: number };
}

/** Neighbouring days of one metric that changed together, and the days whose rollups they touch. */
interface Run {
  readonly metric: StoreMetric;
  readonly days: ChangedDay[];
  from: number;
  to: number;
  before: EndSample | null;
  after: EndSample | null;
}

export function readingOfStored(metric: StoreMetric): MetricReading {
  const { kind, intervalMs, maxGapMs, rollover, isSpread } = metric;
  return { kind, intervalMs, maxGapMs, rollover, isSpread };
}

/**
 * Makes the rollups of all days that a change of samples touches, in the transaction that changed them: the
 * changed days, and those a value holds into or a register's increase is spread over.
 *
 * @param changed in order of metric and day, already written.
 */
export async function storeRollups(db: Queryable, changed: readonly ChangedDay[]): Promise<void> {
  const runs = runsOf(changed);
  await findNeighbours(db, runs);
  const wide = runs.filter(widenToTouched);
  if (wide.length > 0) await findNeighbours(db, wide);
  const known = new Map(changed.map((day) => [`${day.metric.id} ${day.dayStart}`, day.usable]));
  await readMissingDays(db, runs, known);
  const rollups = new Map<string, StoredRollup>();
  const breathe = breather();
  for (const run of runs) {
    for (const rollup of rollupsOf(run, known)) {
      rollups.set(`${rollup.metricId} ${rollup.dayStart}`, rollup);
      await breathe();
    }
  }
  await writeRollups(db, [...rollups.values()]);
}

function runsOf(changed: readonly ChangedDay[]): Run[] {
  const runs: Run[] = [];
  for (const day of changed) {
    const last = runs[runs.length - 1];
    if (last && last.metric.id === day.metric.id && day.dayStart - last.to <= DAY_MS) {
      last.days.push(day);
      last.to = day.dayStart;
    } else {
      runs.push({
        metric: day.metric,
        days: [day],
        from: day.dayStart,
        to: day.dayStart,
        before: null,
        after: null,
      });
    }
  }
  return runs;
}

/** Usable samples nearest to a run of days. Runs of one metric are asked for in rounds, one of each at a time. */
async function findNeighbours(db: Queryable, runs: readonly Run[]): Promise<void> {
  let left = [...runs];
  while (left.length > 0) {
    const round = new Map<string, Run>();
    for (const run of left) if (!round.has(run.metric.id)) round.set(run.metric.id, run);
    left = left.filter((run) => round.get(run.metric.id) !== run);
    const asked = [...round.values()];
    const found = await readNeighbours(
      db,
      asked.map(({ metric }) => metric.id),
      asked.map(({ from }) => from),
      asked.map(({ to }) => to),
    );
    for (const run of asked) {
      run.before = found.get(run.metric.id)!.before;
      run.after = found.get(run.metric.id)!.after;
    }
  }
}

/** Widens a run to all days its change touches. @returns whether it became wider. */
function widenToTouched(run: Run): boolean {
  const { days, metric } = run;
  const change = { first: days[0].change.first, last: days[days.length - 1].change.last };
  const before = usableBefore(days, change.first) ?? run.before?.t ?? null;
  const next = usableAfter(days, change.last) ?? run.after?.t ?? null;
  const touched = touchedStretch(readingOfStored(metric), change, before, next);
  const from = Math.min(run.from, dayOf(touched.start));
  const to = Math.max(run.to, dayOf(touched.end - 1));
  const wider = from < run.from || to > run.to;
  run.from = from;
  run.to = to;
  return wider;
}

function usableBefore(days: readonly ChangedDay[], at: number): number | null {
  const { t } = days[0].usable;
  const i = firstAtOrAfter(t, at) - 1;
  return i >= 0 ? t[i] : null;
}

function usableAfter(days: readonly ChangedDay[], at: number): number | null {
  const { t } = days[days.length - 1].usable;
  const i = firstAtOrAfter(t, at + 1);
  return i < t.length ? t[i] : null;
}

async function readMissingDays(
  db: Queryable,
  runs: readonly Run[],
  known: Map<string, Series>,
): Promise<void> {
  const ids: string[] = [];
  const days: number[] = [];
  for (const run of runs) {
    for (let day = run.from; day <= run.to; day += DAY_MS) {
      if (known.has(`${run.metric.id} ${day}`)) continue;
      ids.push(run.metric.id);
      days.push(day);
    }
  }
  if (ids.length === 0) return;
  for (const day of await readGivenDays(db, ids, days)) {
    known.set(`${day.metricId} ${day.dayStart}`, usableOf(unpackDay(day, day.dayStart)));
  }
}

function* rollupsOf(run: Run, known: ReadonlyMap<string, Series>): Generator<StoredRollup> {
  const { metric } = run;
  const reading = readingOfStored(metric);
  const dayStarts: number[] = [];
  for (let day = run.from; day <= run.to; day += DAY_MS) dayStarts.push(day);
  const series = dayStarts.map((day) => known.get(`${metric.id} ${day}`) ?? EMPTY_SERIES);
  const nexts: (EndSample | null)[] = new Array(dayStarts.length);
  let next = run.after;
  for (let i = dayStarts.length - 1; i >= 0; i--) {
    nexts[i] = next;
    if (series[i].t.length > 0) next = { t: series[i].t[0], v: series[i].v[0] };
  }
  let before = run.before;
  /** Days through which one value holds are all alike: a yearly one holds through hundreds. */
  let held: { readonly by: EndSample; readonly packed: StoredRollup['packed'] } | null = null;
  for (const [i, dayStart] of dayStarts.entries()) {
    const n = series[i].t.length;
    const next = nexts[i];
    const throughout = n === 0 && holdsThroughout(reading, before?.t ?? null, next?.t ?? null, dayStart);
    if (throughout && held && held.by === before) {
      yield { metricId: metric.id, dayStart, packed: held.packed };
      continue;
    }
    const aggregates = rollupDay(withEnds(series[i], before, next), reading, dayStart);
    const packed = isEmptyRollup(aggregates) ? null : packBoth(aggregates);
    yield { metricId: metric.id, dayStart, packed };
    held = throughout ? { by: before!, packed } : null;
    if (n > 0) before = { t: series[i].t[n - 1], v: series[i].v[n - 1] };
  }
}

function packBoth(quarters: Aggregates): StoredRollup['packed'] {
  return { quarters: packRollup(quarters), hours: packRollup(hoursOfQuarters(quarters)) };
}

/** A series with the sample before and the sample after it. */
export function withEnds(series: Series, before: EndSample | null, after: EndSample | null): Series {
  if (!before && !after) return series;
  const n = series.t.length + (before ? 1 : 0) + (after ? 1 : 0);
  const t = new Float64Array(n);
  const v = new Float64Array(n);
  const at = before ? 1 : 0;
  if (before) {
    t[0] = before.t;
    v[0] = before.v;
  }
  t.set(series.t, at);
  v.set(series.v, at);
  if (after) {
    t[n - 1] = after.t;
    v[n - 1] = after.v;
  }
  return { t, v };
}
