import {
  checkSummary,
  elapsedSpans,
  emptyTallies,
  firstAtOrAfter,
  joinTally,
  lengthOfSpans,
  needsSamples,
  QUARTER_MS,
  quantile,
  tallySpans,
  unpackRollup,
  valueOfTally,
  dayOf,
  DAY_MS,
  NOTHING,
  type BucketSpans,
  type MetricKind,
  type RollupColumn,
  type Series,
  type Spans,
  type Summarised,
  type Summary,
  type Tallies,
} from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { readingOf } from '../metrics/metrics';
import type { MetricRow } from '../metrics/sql';
import { readAround } from '../samples/readSeries';
import { readRollups } from '../samples/rollupSql';
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
  const elapsed = lengthOfSpans(spans, buckets.size).map((each) => each * rows.length);
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
  return {
    values: Array.from({ length: buckets.size }, (_, i) => valueOfTally(total, i, summary, kind, elapsed[i])),
    basis,
  };
}

/** Tallies of several metrics over spans, each on its own. */
export async function tallyMetrics(
  context: PlanContext,
  rows: readonly MetricRow[],
  spans: Spans,
  size: number,
  wanted: ReadonlySet<RollupColumn> | null,
): Promise<{ tallies: Map<string, Tallies>; basis: Basis }> {
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
  const plan = planPieces(spans);
  if (sampled.length === 0)
    return { tallies: out, basis: rows[0]?.origin === 'reference' ? 'reference' : 'derived' };
  if (plan === null) {
    const series = await samplesOf(context, sampled, spans);
    for (const row of sampled) out.set(row.id, tallySpans(series.get(row.id)!, readingOf(row), spans, size));
    return { tallies: out, basis: 'samples' };
  }
  const ids = sampled.map(({ id }) => id);
  const ends = await tallyEnds(context, sampled, plan);
  const rollups = plan.whole ? await readRollups(context.db, ids, plan.whole.start, plan.whole.end) : [];
  const byMetric = new Map<string, Map<number, Tallies>>(ids.map((id) => [id, new Map()]));
  for (const { metricId, dayStart, body } of rollups) {
    byMetric.get(metricId)!.set(dayStart, unpackRollup(body, wanted));
  }
  for (const { id } of sampled)
    out.set(id, assemble(plan, byMetric.get(id)!, ends.get(id) ?? null, size, wanted));
  return { tallies: out, basis: plan.whole ? 'rollup' : 'samples' };
}

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

/** An end of a span that needs samples; `raw` is its number. */
interface RawPiece {
  readonly start: number;
  readonly end: number;
  readonly raw: number;
}

/** Spans cut into whole quarters from the rollups (`raw` = −1) and ends that need samples. Columns, in order. */
interface Plan {
  readonly start: ArrayLike<number>;
  readonly end: ArrayLike<number>;
  readonly into: ArrayLike<number>;
  /** null = none needs samples. */
  readonly raw: readonly number[] | null;
  readonly ends: readonly RawPiece[];
  readonly whole: { readonly start: number; readonly end: number } | null;
}

/** Ends that need samples may lie on this many stretches of days; with more, all samples are read at once. */
const MOST_RAW_STRETCHES = 4;

/** Cuts spans at quarters of an hour. null = too many ends off the quarters, samples are the shorter way. */
function planPieces(spans: Spans): Plan | null {
  if (onQuarters(spans)) {
    const whole = { start: Infinity, end: -Infinity };
    for (let i = 0; i < spans.start.length; i++) {
      if (spans.start[i] < whole.start) whole.start = spans.start[i];
      if (spans.end[i] > whole.end) whole.end = spans.end[i];
    }
    return { ...spans, raw: null, ends: [], whole: whole.end > whole.start ? whole : null };
  }
  const plan = { start: [] as number[], end: [] as number[], into: [] as number[], raw: [] as number[] };
  const ends: RawPiece[] = [];
  let wholeStart = Infinity;
  let wholeEnd = -Infinity;
  const add = (start: number, end: number, into: number, raw: number): void => {
    plan.start.push(start);
    plan.end.push(end);
    plan.into.push(into);
    plan.raw.push(raw);
    if (raw >= 0) ends.push({ start, end, raw });
  };
  for (let i = 0; i < spans.start.length; i++) {
    const [start, end, into] = [spans.start[i], spans.end[i], spans.into[i]];
    const from = Math.ceil(start / QUARTER_MS) * QUARTER_MS;
    const to = Math.floor(end / QUARTER_MS) * QUARTER_MS;
    if (from >= to) {
      if (end > start) add(start, end, into, ends.length);
      continue;
    }
    if (start < from) add(start, from, into, ends.length);
    add(from, to, into, -1);
    wholeStart = Math.min(wholeStart, from);
    wholeEnd = Math.max(wholeEnd, to);
    if (to < end) add(to, end, into, ends.length);
  }
  if (stretchesOf(ends).length > MOST_RAW_STRETCHES) return null;
  return { ...plan, ends, whole: wholeEnd > wholeStart ? { start: wholeStart, end: wholeEnd } : null };
}

function onQuarters({ start, end }: Spans): boolean {
  for (let i = 0; i < start.length; i++) {
    if (start[i] % QUARTER_MS !== 0 || end[i] % QUARTER_MS !== 0) return false;
  }
  return true;
}

/** Raw pieces joined where they lie on the same or neighbouring days. */
function stretchesOf(ends: readonly RawPiece[]): { from: number; to: number; pieces: RawPiece[] }[] {
  const stretches: { from: number; to: number; pieces: RawPiece[] }[] = [];
  for (const piece of ends) {
    const last = stretches[stretches.length - 1];
    if (last && dayOf(piece.start) <= dayOf(last.to) + DAY_MS) {
      last.to = Math.max(last.to, piece.end);
      last.pieces.push(piece);
    } else stretches.push({ from: piece.start, to: piece.end, pieces: [piece] });
  }
  return stretches;
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

function assemble(
  { start, end, into, raw }: Plan,
  days: ReadonlyMap<number, Tallies>,
  ends: Tallies | null,
  size: number,
  wanted: ReadonlySet<RollupColumn> | null,
): Tallies {
  const out = emptyTallies(size);
  const sums = wanted && [...wanted].every((name) => ADD_UP.has(name)) ? (['n', ...wanted] as const) : null;
  const totals = sums?.map((name) => out[name]) ?? [];
  let known = NaN;
  let tallies: Tallies | undefined;
  let columns: Float64Array[] = [];
  for (let k = 0; k < start.length; k++) {
    if (raw && raw[k] >= 0) {
      joinTally(out, into[k], ends!, raw[k]);
      continue;
    }
    for (let day = dayOf(start[k]); day < end[k]; day += DAY_MS) {
      if (day !== known) {
        known = day;
        tallies = days.get(day);
        columns = (tallies && sums?.map((name) => tallies![name])) ?? [];
      }
      if (!tallies) continue;
      const first = Math.max(0, (start[k] - day) / QUARTER_MS);
      const last = Math.min(tallies.size, (end[k] - day) / QUARTER_MS);
      if (sums === null || tallies.stateMs.size > 0) {
        for (let i = first; i < last; i++) joinTally(out, into[k], tallies, i);
        continue;
      }
      for (let c = 0; c < columns.length; c++) {
        const column = columns[c];
        let total = 0;
        for (let i = first; i < last; i++) total += column[i];
        totals[c][into[k]] += total;
      }
    }
  }
  return out;
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
