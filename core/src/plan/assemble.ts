import type { MetricKind, MetricReading, Summary } from '../domain/metric';
import type { Series } from '../series/series';
import { dayOf } from '../series/dayCodec';
import { unpackRollup, type RollupColumn } from '../rollup/rollupCodec';
import { hoursOfQuarters, QUARTER_MS, QUARTERS_A_DAY } from '../rollup/rollupDay';
import { emptyAggregates, mergeAggregates, type Aggregates } from '../summary/aggregates';
import { aggregate } from '../summary/aggregate';
import type { Interval } from '../time/interval';
import { DAY_MS, HOUR_MS } from '../time/lengths';
import type { Plan, RawStretch, RollupGrain } from './pieces';

/** Length of a bucket of stored rollups, ms. */
const GRAIN_MS: Readonly<Record<RollupGrain, number>> = { quarters: QUARTER_MS, hours: HOUR_MS };

/** Columns that merge by addition. */
const ADD_UP: ReadonlySet<RollupColumn> = new Set(['heldMs', 'area', 'sum', 'increase', 'spanMs']);

/** The rollup columns that a summary needs. */
export function columnsFor(summary: Summary, kind: MetricKind): ReadonlySet<RollupColumn> {
  const columns = new Set<RollupColumn>(['heldMs']);
  if (summary === 'mean' && kind === 'level') columns.add('area');
  else if (summary === 'mean') columns.add('sum');
  else if (summary === 'sum') columns.add('sum').add('area');
  else if (summary === 'sd') columns.add('sum').add('m2');
  else if (summary === 'increase') columns.add('increase').add('spanMs');
  else if (summary === 'min' || summary === 'max' || summary === 'first' || summary === 'last')
    columns.add(summary);
  return columns;
}

/**
 * Aggregates of a plan's ends, from samples.
 *
 * @param the raw stretches of the plan with their surrounding samples, in order. @returns one bucket per end.
 */
export function aggregateEnds(
  stretches: readonly { readonly stretch: RawStretch; readonly series: Series }[],
  reading: MetricReading,
  size: number,
): Aggregates {
  const out = emptyAggregates(size);
  for (const { stretch, series } of stretches) {
    const { pieces } = stretch;
    const spans = {
      start: pieces.map(({ start }) => start),
      end: pieces.map(({ end }) => end),
      into: pieces.map((_, i) => i),
    };
    const part = aggregate(series, reading, spans, pieces.length);
    pieces.forEach(({ raw }, i) => mergeAggregates(out, raw, part, i));
  }
  return out;
}

/** Unpacks the stored rollups of one metric, by UTC day; quarters become hours where no hours were stored. */
export function daysOfRollups(
  rollups: readonly { readonly dayStart: number; readonly body: Uint8Array }[],
  grain: RollupGrain,
  wanted: ReadonlySet<RollupColumn> | null,
): Map<number, Aggregates> {
  const days = new Map<number, Aggregates>();
  for (const { dayStart, body } of rollups) {
    const aggregates = unpackRollup(body, wanted);
    const kept = grain === 'quarters' || aggregates.size < QUARTERS_A_DAY;
    days.set(dayStart, kept ? aggregates : hoursOfQuarters(aggregates));
  }
  return days;
}

/**
 * Merges the aggregates of whole buckets and of the ends into their periods.
 *
 * @param out one bucket per period; modified. @param wanted the columns needed; null = all.
 */
export function assemble(
  out: Aggregates,
  plan: Plan,
  days: ReadonlyMap<number, Aggregates>,
  ends: Aggregates | null,
  wanted: ReadonlySet<RollupColumn> | null,
): void {
  const { start, end, into, raw } = plan;
  const added = wanted && addedColumns(wanted, days);
  const step = GRAIN_MS[plan.grain];
  if (added && plan.whole) addBuckets(out, plan, plan.whole, days, added, step);
  for (let k = 0; k < start.length; k++) {
    if (raw && raw[k] >= 0) mergeAggregates(out, into[k], ends!, raw[k]);
    else if (!added) joinBuckets(out, into[k], days, start[k], end[k], step);
  }
}

/** Merges the buckets of one metric into those of a group. */
export function joinAll(into: Aggregates, from: Aggregates): void {
  for (let i = 0; i < from.size; i++) mergeAggregates(into, i, from, i);
}

/** The columns to add if merging is nothing but addition; otherwise null. */
function addedColumns(
  wanted: ReadonlySet<RollupColumn>,
  days: ReadonlyMap<number, Aggregates>,
): readonly RollupColumn[] | null {
  for (const name of wanted) if (!ADD_UP.has(name)) return null;
  for (const { stateMs } of days.values()) if (stateMs.size > 0) return null;
  return ['n', ...wanted];
}

/** Adds columns over all days at once; every chart needs this, so it has to be fast. */
function addBuckets(
  out: Aggregates,
  { start, end, into, raw }: Plan,
  whole: Interval,
  days: ReadonlyMap<number, Aggregates>,
  names: readonly RollupColumn[],
  step: number,
): void {
  const from = dayOf(whole.start);
  const all = new Float64Array(Math.ceil((whole.end - from) / DAY_MS) * (DAY_MS / step));
  for (const name of names) {
    const total = out[name];
    all.fill(0);
    for (const [day, aggregates] of days) all.set(aggregates[name], (day - from) / step);
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
  out: Aggregates,
  into: number,
  days: ReadonlyMap<number, Aggregates>,
  start: number,
  end: number,
  step: number,
): void {
  for (let day = dayOf(start); day < end; day += DAY_MS) {
    const aggregates = days.get(day);
    if (!aggregates) continue;
    const last = Math.min(aggregates.size, (end - day) / step);
    for (let i = Math.max(0, (start - day) / step); i < last; i++) mergeAggregates(out, into, aggregates, i);
  }
}
