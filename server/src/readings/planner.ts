import {
  firstAtOrAfter,
  HOUR_MS,
  DAY_MS,
  type Interval,
  type MetricKind,
  type Series,
  type Summary,
} from '@vivid-beacon/core';
import {
  checkSummary,
  elapsedSpans,
  emptyTallies,
  hoursOfQuarters,
  joinTally,
  lengthOfSpans,
  needsSamples,
  QUARTER_MS,
  QUARTERS_A_DAY,
  quantile,
  tallySpans,
  unpackRollup,
  valueOfTally,
  dayOf,
  NOTHING,
  type BucketSpans,
  type RollupColumn,
  type Spans,
  type Summarised,
  type Tallies,
} from '@vivid-beacon/core/src/engine';
import type { Queryable } from '../db/database';
import { spend } from '../db/readBudget';
import { readingOf } from '../metrics/metrics';
import type { MetricRow } from '../metrics/sql';
import { readAround } from '../samples/readSeries';
import { readRollups } from '../samples/rollupSql';
import { planPieces, stretchesOf, type Plan } from './pieces';
import { summariseDerived, derivedSeries, derivedWayOf } from './derived';
import { tallyReferenceMetric } from './reference';

/** What a number was computed from. */
export type Basis = 'samples' | 'rollup' | 'derived' | 'reference';

/** One metric over periods. */
export interface MetricAnswer {
  readonly values: readonly Summarised[];
  readonly basis: Basis;
}

/** What every question is asked with. */
export interface PlanContext {
  readonly db: Queryable;
  readonly now: number;
}

const PERCENTILES: Readonly<Partial<Record<Summary, number>>> = { p5: 0.05, p50: 0.5, p95: 0.95 };

/**
 * The one way in which a metric is summarised over periods, for every readout: derived metrics by their
 * expression, reference series by their periods, percentiles from the samples, everything else from the
 * rollups, with samples only for the ends that do not fall on a quarter of an hour.
 */
export async function summariseMetric(
  context: PlanContext,
  row: MetricRow,
  summary: Summary,
  buckets: BucketSpans,
): Promise<MetricAnswer> {
  if (row.origin === 'derived' && (await derivedWayOf(context, row)) === 'totals') {
    return { values: await summariseDerived(context, row, summary, buckets), basis: 'derived' };
  }
  checkSummary(summary, row.kind, 'measure.summary', row.name);
  const pooled = await poolMetrics(context, [row], summary, buckets);
  return { values: pooled.values, basis: pooled.basis };
}

/**
 * Several metrics of one kind summarised together: sums and durations are added, means weighted by time or
 * count, percentiles taken over all samples. Coverage is that of all of them.
 */
export async function poolMetrics(
  context: PlanContext,
  rows: readonly MetricRow[],
  summary: Summary,
  buckets: BucketSpans,
): Promise<MetricAnswer> {
  const { kind } = rows[0];
  const spans = elapsedOf(rows[0], buckets, context.now);
  const elapsed = lengthOfSpans(spans, buckets.size);
  if (rows.length > 1) for (let i = 0; i < elapsed.length; i++) elapsed[i] *= rows.length;
  if (needsSamples(summary)) {
    const series = await samplesOf(context, rows, spans);
    const values = percentiles([...series.values()], PERCENTILES[summary]!, spans, buckets.size);
    const tallies = emptyTallies(buckets.size);
    for (const row of rows) {
      addAll(tallies, tallySpans(series.get(row.id)!, readingOf(row), spans, buckets.size));
    }
    return {
      values: values.map((value, i) => {
        const counted = valueOfTally(tallies, i, 'count', kind, elapsed[i]);
        return elapsed[i] > 0 ? { ...counted, value } : NOTHING;
      }),
      basis: 'samples',
    };
  }
  const { tallies, basis } = await tallyMetrics(
    context,
    rows,
    spans,
    buckets.size,
    columnsFor(summary, kind),
  );
  const total = rows.length === 1 ? tallies.get(rows[0].id)! : emptyTallies(buckets.size);
  if (rows.length > 1) for (const each of tallies.values()) addAll(total, each);
  const values = new Array<Summarised>(buckets.size);
  for (let i = 0; i < buckets.size; i++) values[i] = valueOfTally(total, i, summary, kind, elapsed[i]);
  return { values, basis };
}

/** Tallies of several metrics over spans, each on its own. */
export async function tallyMetrics(
  context: PlanContext,
  rows: readonly MetricRow[],
  spans: Spans,
  size: number,
  wanted: ReadonlySet<RollupColumn> | null,
): Promise<{ tallies: Map<string, Tallies>; basis: Basis }> {
  spend(context.db, rows.length * (size + spans.start.length) * OF_PERIOD);
  const out = new Map<string, Tallies>();
  for (const row of rows.filter(({ origin }) => origin === 'reference')) {
    out.set(row.id, await tallyReferenceMetric(context.db, row, spans, size));
  }
  const sampled = rows.filter(({ origin }) => origin === 'samples');
  const derived = rows.filter(({ origin }) => origin === 'derived');
  for (const row of derived) {
    const series = (await samplesOf(context, [row], spans)).get(row.id)!;
    out.set(row.id, tallySpans(series, readingOf(row), spans, size));
  }
  const plans = planPieces(spans);
  if (sampled.length === 0)
    return { tallies: out, basis: rows[0]?.origin === 'reference' ? 'reference' : 'derived' };
  if (plans === null) {
    const series = await samplesOf(context, sampled, spans);
    for (const row of sampled) out.set(row.id, tallySpans(series.get(row.id)!, readingOf(row), spans, size));
    return { tallies: out, basis: 'samples' };
  }
  for (const { id } of sampled) out.set(id, emptyTallies(size));
  for (const plan of plans) {
    const ends = await tallyEnds(context, sampled, plan);
    const days = await rollupsOf(context.db, sampled, plan, wanted);
    for (const { id } of sampled) assemble(out.get(id)!, plan, days.get(id)!, ends.get(id) ?? null, wanted);
  }
  return { tallies: out, basis: plans.some(({ whole }) => whole) ? 'rollup' : 'samples' };
}

/** Laying out a period and putting it into words takes as long as so many samples. */
const OF_PERIOD = 6;

/** The days of a plan's whole buckets, by metric and start of the day. */
async function rollupsOf(
  db: Queryable,
  rows: readonly MetricRow[],
  { whole, grain }: Plan,
  wanted: ReadonlySet<RollupColumn> | null,
): Promise<Map<string, Map<number, Tallies>>> {
  const ids = rows.map(({ id }) => id);
  const out = new Map<string, Map<number, Tallies>>(ids.map((id) => [id, new Map()]));
  if (!whole) return out;
  for (const { metricId, dayStart, body } of await readRollups(db, ids, whole.start, whole.end, grain)) {
    const tallies = unpackRollup(body, wanted);
    const kept = grain === 'quarters' || tallies.size < QUARTERS_A_DAY;
    out.get(metricId)!.set(dayStart, kept ? tallies : hoursOfQuarters(tallies));
  }
  return out;
}

/** How long a bucket of a plan's rollups is, in ms. */
const GRAIN_MS = { quarters: QUARTER_MS, hours: HOUR_MS } as const;

/** Which columns of the rollups a summary needs. */
function columnsFor(summary: Summary, kind: MetricKind): ReadonlySet<RollupColumn> {
  const columns = new Set<RollupColumn>(['heldMs']);
  if (summary === 'mean' && kind === 'level') columns.add('area');
  else if (summary === 'mean' || summary === 'sum') columns.add('sum');
  else if (summary === 'sd') columns.add('sum').add('m2');
  else if (summary === 'increase') columns.add('increase').add('spanMs');
  else if (summary === 'min' || summary === 'max' || summary === 'first' || summary === 'last')
    columns.add(summary);
  return columns;
}

/** What has passed of the periods; of a reference series also those that have not begun. */
function elapsedOf(row: MetricRow, buckets: BucketSpans, now: number): Spans {
  if (row.origin !== 'reference') return elapsedSpans(buckets.spans, now);
  const { spans, start } = buckets;
  const end = Array.from(spans.end, (each, i) => (start[spans.into[i]] < now ? Math.min(each, now) : each));
  return { start: spans.start, end: end.map((each, i) => Math.max(each, spans.start[i])), into: spans.into };
}

/** Tallies of the raw pieces, one bucket a piece. */
async function tallyEnds(
  { db }: PlanContext,
  rows: readonly MetricRow[],
  { ends }: Plan,
): Promise<Map<string, Tallies>> {
  const out = new Map<string, Tallies>();
  if (ends.length === 0) return out;
  for (const row of rows) out.set(row.id, emptyTallies(ends.length));
  for (const { from, to, pieces } of stretchesOf(ends)) {
    const series = await readAround(
      db,
      rows.map(({ id }) => id),
      from,
      to,
    );
    const spans = {
      start: pieces.map(({ start }) => start),
      end: pieces.map(({ end }) => end),
      into: pieces.map((_, i) => i),
    };
    for (const row of rows) {
      const part = tallySpans(series.get(row.id)!, readingOf(row), spans, pieces.length);
      pieces.forEach((piece, i) => joinTally(out.get(row.id)!, piece.raw, part, i));
    }
  }
  return out;
}

/** Columns of tallies that are joined by adding them up. */
const ADD_UP: ReadonlySet<RollupColumn> = new Set(['heldMs', 'area', 'sum', 'increase', 'spanMs']);

/** Puts the tallies of whole buckets, and those of the ends from samples, into the buckets they belong to. */
function assemble(
  out: Tallies,
  plan: Plan,
  days: ReadonlyMap<number, Tallies>,
  ends: Tallies | null,
  wanted: ReadonlySet<RollupColumn> | null,
): void {
  const { start, end, into, raw } = plan;
  const added = wanted && addedColumns(wanted, days);
  const step = GRAIN_MS[plan.grain];
  if (added && plan.whole) addBuckets(out, plan, plan.whole, days, added, step);
  for (let k = 0; k < start.length; k++) {
    if (raw && raw[k] >= 0) joinTally(out, into[k], ends!, raw[k]);
    else if (!added) joinBuckets(out, into[k], days, start[k], end[k], step);
  }
}

/** The columns to add up, where that is all there is to joining; else null. */
function addedColumns(
  wanted: ReadonlySet<RollupColumn>,
  days: ReadonlyMap<number, Tallies>,
): readonly RollupColumn[] | null {
  for (const name of wanted) if (!ADD_UP.has(name)) return null;
  for (const { stateMs } of days.values()) if (stateMs.size > 0) return null;
  return ['n', ...wanted];
}

/** Adds up columns, each laid out over all days at once: what is asked for every chart must be quick. */
function addBuckets(
  out: Tallies,
  { start, end, into, raw }: Plan,
  whole: Interval,
  days: ReadonlyMap<number, Tallies>,
  names: readonly RollupColumn[],
  step: number,
): void {
  const from = dayOf(whole.start);
  const all = new Float64Array(Math.ceil((whole.end - from) / DAY_MS) * (DAY_MS / step));
  for (const name of names) {
    const total = out[name];
    all.fill(0);
    for (const [day, tallies] of days) all.set(tallies[name], (day - from) / step);
    for (let k = 0; k < start.length; k++) {
      if (raw && raw[k] >= 0) continue;
      const last = (end[k] - from) / step;
      let sum = 0;
      for (let i = (start[k] - from) / step; i < last; i++) sum += all[i];
      total[into[k]] += sum;
    }
  }
}

function joinBuckets(
  out: Tallies,
  into: number,
  days: ReadonlyMap<number, Tallies>,
  start: number,
  end: number,
  step: number,
): void {
  for (let day = dayOf(start); day < end; day += DAY_MS) {
    const tallies = days.get(day);
    if (!tallies) continue;
    const last = Math.min(tallies.size, (end - day) / step);
    for (let i = Math.max(0, (start - day) / step); i < last; i++) joinTally(out, into, tallies, i);
  }
}

/** The usable samples that spans need, with those that reach into them. */
export async function samplesOf(
  context: PlanContext,
  rows: readonly MetricRow[],
  spans: Spans,
): Promise<Map<string, Series>> {
  const out = new Map<string, Series>();
  if (spans.start.length === 0) {
    for (const { id } of rows) out.set(id, { t: new Float64Array(0), v: new Float64Array(0) });
    return out;
  }
  const from = spans.start[0];
  const to = Math.max(...Array.from(spans.end));
  const stored = rows.filter(({ origin }) => origin === 'samples').map(({ id }) => id);
  if (stored.length > 0) {
    for (const [id, series] of await readAround(context.db, stored, from, to)) out.set(id, series);
  }
  for (const row of rows) {
    if (row.origin === 'derived') out.set(row.id, await derivedSeries(context, row, from, to));
    else if (row.origin === 'reference') out.set(row.id, { t: new Float64Array(0), v: new Float64Array(0) });
  }
  return out;
}

function addAll(into: Tallies, from: Tallies): void {
  for (let i = 0; i < from.size; i++) joinTally(into, i, from, i);
}

function percentiles(all: readonly Series[], p: number, spans: Spans, size: number): (number | null)[] {
  const values: number[][] = Array.from({ length: size }, () => []);
  for (const { t, v } of all) {
    for (let i = 0; i < spans.start.length; i++) {
      const to = firstAtOrAfter(t, spans.end[i]);
      for (let j = firstAtOrAfter(t, spans.start[i]); j < to; j++) values[spans.into[i]].push(v[j]);
    }
  }
  return values.map((each) => (each.length === 0 ? null : quantile(each, p)));
}
