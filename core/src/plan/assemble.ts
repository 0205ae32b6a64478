import type { MetricKind, MetricReading, Summary } from '../domain/metric';
import type { Series } from '../series/series';
import { dayOf } from '../series/dayCodec';
import { unpackRollup, type RollupColumn } from '../rollup/rollupCodec';
import { hoursOfQuarters, QUARTER_MS, QUARTERS_A_DAY } from '../rollup/rollupDay';
import { emptyTallies, joinTally, type Tallies } from '../summary/tally';
import { tallySpans } from '../summary/tallySpans';
import type { Interval } from '../time/interval';
import { DAY_MS, HOUR_MS } from '../time/lengths';
import type { Plan, RawStretch, RollupGrain } from './pieces';

/** How long a bucket of stored rollups is, ms. */
const GRAIN_MS: Readonly<Record<RollupGrain, number>> = { quarters: QUARTER_MS, hours: HOUR_MS };

/** Columns of tallies that are joined by adding them up. */
const ADD_UP: ReadonlySet<RollupColumn> = new Set(['heldMs', 'area', 'sum', 'increase', 'spanMs']);

/** Which columns of the rollups a summary needs. */
export function columnsFor(summary: Summary, kind: MetricKind): ReadonlySet<RollupColumn> {
  const columns = new Set<RollupColumn>(['heldMs']);
  if (summary === 'mean' && kind === 'level') columns.add('area');
  else if (summary === 'mean' || summary === 'sum') columns.add('sum');
  else if (summary === 'sd') columns.add('sum').add('m2');
  else if (summary === 'increase') columns.add('increase').add('spanMs');
  else if (summary === 'min' || summary === 'max' || summary === 'first' || summary === 'last')
    columns.add(summary);
  return columns;
}

/**
 * The tallies of the ends of a plan, from samples.
 *
 * @param stretches of the plan's ends, each with the samples around it, in order. @returns one bucket an end.
 */
export function tallyEnds(
  stretches: readonly { readonly stretch: RawStretch; readonly series: Series }[],
  reading: MetricReading,
  size: number,
): Tallies {
  const out = emptyTallies(size);
  for (const { stretch, series } of stretches) {
    const { pieces } = stretch;
    const spans = {
      start: pieces.map(({ start }) => start),
      end: pieces.map(({ end }) => end),
      into: pieces.map((_, i) => i),
    };
    const part = tallySpans(series, reading, spans, pieces.length);
    pieces.forEach(({ raw }, i) => joinTally(out, raw, part, i));
  }
  return out;
}

/** Stored rollups of one metric taken apart, by the start of their UTC day; quarters where hours were never kept become hours. */
export function daysOfRollups(
  rollups: readonly { readonly dayStart: number; readonly body: Uint8Array }[],
  grain: RollupGrain,
  wanted: ReadonlySet<RollupColumn> | null,
): Map<number, Tallies> {
  const days = new Map<number, Tallies>();
  for (const { dayStart, body } of rollups) {
    const tallies = unpackRollup(body, wanted);
    const kept = grain === 'quarters' || tallies.size < QUARTERS_A_DAY;
    days.set(dayStart, kept ? tallies : hoursOfQuarters(tallies));
  }
  return days;
}

/**
 * Puts the tallies of whole buckets, and those of the ends from samples, into the periods they belong to.
 *
 * @param out one bucket a period, changed. @param wanted the columns that are needed; null = all.
 */
export function assemble(
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

/** Joins every bucket of one metric's tallies into those of several. */
export function joinAll(into: Tallies, from: Tallies): void {
  for (let i = 0; i < from.size; i++) joinTally(into, i, from, i);
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
