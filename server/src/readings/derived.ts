import { DateTime } from 'luxon';
import {
  ADDS_UP,
  HOUR_MS,
  BeaconError,
  type DerivedDefinition,
  type DerivedWay,
  type MetricKind,
  type Series,
  type Summary,
} from '@vivid-beacon/core';
import {
  cellsOf,
  elapsedSpans,
  lengthOfSpans,
  mergeTimes,
  NOTHING,
  withEarlier,
  type BucketSpans,
  type Summarised,
} from '@vivid-beacon/core/src/aggregation';
import {
  checkCost,
  comparesTotals,
  evaluate,
  operationsPerStep,
  stepsBack,
  type Node,
} from '@vivid-beacon/core/src/expressions';
import { spend } from '../db/readBudget';
import type { MetricRow } from '../metrics/sql';
import { bindExpression, type Bound, type BoundExpression } from './bindExpression';
import type { MetricReads, SharedTime } from './metricReads';
import type { ReadContext } from './readContext';

async function definitionOf(context: ReadContext, row: MetricRow): Promise<DerivedDefinition> {
  const found = await context.reads.expression(context.db, row.id);
  if (!found) throw new BeaconError('BROKEN_DATA', `The expression of ${row.name} is missing.`);
  return found;
}

export async function derivedWayOf(context: ReadContext, row: MetricRow): Promise<DerivedWay> {
  return (await definitionOf(context, row)).way;
}

/** The metrics that a derived metric of totals is computed from; null for any other metric. */
export async function inputsOf(context: ReadContext, row: MetricRow): Promise<MetricRow[] | null> {
  if (row.origin !== 'derived') return null;
  const definition = await definitionOf(context, row);
  if (definition.way !== 'totals') return null;
  const { names } = await bindExpression(context, definition, row.unit);
  return [...names.values()].flatMap((each) => (each.kind === 'metrics' ? each.rows : []));
}

/** The metrics with values of their own that a metric rests on, down through derived ones; of any other itself. */
export async function inputsOfMetric(context: ReadContext, row: MetricRow): Promise<MetricRow[]> {
  if (row.origin !== 'derived') return [row];
  const { names } = await bindExpression(context, await definitionOf(context, row), row.unit);
  const rows = [...names.values()].flatMap((each) => (each.kind === 'metrics' ? each.rows : []));
  return (await Promise.all(rows.map((each) => inputsOfMetric(context, each)))).flat();
}

/** Of the totals: every name summarised over each period, then the expression worked out once a period. */
export async function summariseDerived(
  context: ReadContext,
  row: MetricRow,
  summary: Summary,
  buckets: BucketSpans,
  reads: MetricReads,
): Promise<Summarised[]> {
  if (summary !== 'mean' && summary !== 'sum') {
    throw new BeaconError(
      'BAD_INPUT',
      `${row.name} is worked out once for each period, so it has one value there and no ${summary}. Choose its value.`,
      'measure.summary',
    );
  }
  const expression = await bindExpression(context, await definitionOf(context, row), row.unit);
  return totalsOf(context, expression, buckets, reads);
}

/**
 * The results of an expression of totals, period by period. Unless it only adds, each total is that of the time
 * in which every metric named has data, and the coverage is the share of that time.
 */
export async function totalsOf(
  context: ReadContext,
  { node, names, factor, offset }: BoundExpression,
  asked: BucketSpans,
  reads: MetricReads,
): Promise<Summarised[]> {
  refuseDatedInGrid(asked, names);
  const { buckets, before } = withEarlier(asked, stepsBack(node));
  const { size } = buckets;
  const terms = await readTerms(context, node, names, buckets, reads);
  const columns = new Map<string, Float64Array>();
  const amounts = new Set<string>();
  for (const [name, each] of names) {
    if (each.kind !== 'metrics') columns.set(name, constants(each, buckets.start, buckets.zone));
    else if (ADDS_UP.has(each.summary) && each.summary !== 'count') amounts.add(name);
  }
  for (const { name, values } of terms.columns) columns.set(name, values);
  checkCost(node, size);
  spend(context.db, size * operationsPerStep(node));
  const hours = lengthOfSpans(elapsedSpans(buckets.spans, context.now), size).map(
    (ms, i) => (ms / HOUR_MS) * terms.counted[i],
  );
  const results = evaluate(node, { size, of: (name) => columns.get(name)!, hours, amounts });
  return Array.from(results.subarray(before), (value, k) => {
    const i = k + before;
    if (buckets.start[i] >= context.now) return NOTHING;
    return {
      value: Number.isFinite(value) ? value * factor + offset : null,
      samples: terms.samples[i],
      coverage: terms.coverage[i],
    };
  });
}

/** A factor that changes by date has no single value for hours that come again. */
function refuseDatedInGrid({ fold }: BucketSpans, names: BoundExpression['names']): void {
  if (fold === null || fold === 'hourOfDate' || fold === 'dayOfMonth') return;
  for (const [name, each] of names) {
    if (each.kind === 'metrics' || each.kind === 'constant' || each.factor.values.length < 2) continue;
    throw new BeaconError(
      'BAD_INPUT',
      `${name} changes by date, so it has no single value for hours that come again. Choose the hours of each date.`,
      'fold',
    );
  }
}

/** The totals of the metrics that an expression names, one column a name. */
interface Terms {
  readonly columns: readonly { readonly name: string; readonly values: Float64Array }[];
  readonly coverage: Float64Array;
  readonly samples: Float64Array;
  /** Share of each period over which totals were taken. */
  readonly counted: Float64Array;
}

async function readTerms(
  context: ReadContext,
  node: Node,
  names: BoundExpression['names'],
  buckets: BucketSpans,
  reads: MetricReads,
): Promise<Terms> {
  const { size } = buckets;
  const metrics = [...names].flatMap(([name, each]) => (each.kind === 'metrics' ? [{ ...each, name }] : []));
  const read = (shared: SharedTime | null): Promise<(readonly Summarised[] | null)[][]> =>
    Promise.all(
      metrics.map(({ rows, summary }) =>
        Promise.all(
          rows.map(async (row) => {
            const spans = shared === null ? buckets.spans : shared.spansOf(row);
            return spans && (await reads.summarise(context, row, summary, { ...buckets, spans })).values;
          }),
        ),
      ),
    );
  const whole = await read(null);
  const coverage = new Float64Array(size).fill(1);
  for (let i = 0; i < size; i++)
    for (const rows of whole)
      coverage[i] = Math.min(
        coverage[i],
        rows.reduce((all, each) => all + each![i].coverage, 0) / rows.length,
      );
  const cells = cellsOf(metrics.map(({ rows }) => rows));
  const complete = cells.every((cell) => cell.complete);
  const partly = new Set(Array.from(coverage.keys()).filter((i) => !complete || coverage[i] < 1));
  const counted = new Float64Array(size).fill(1);
  const shared =
    partly.size > 0 && comparesTotals(node)
      ? await reads.shareTime(context, cells, () => buckets, partly)
      : null;
  const parts = shared && (await read(shared));
  if (shared) for (const i of partly) coverage[i] = counted[i] = shared.shares[i];
  const samples = new Float64Array(size);
  const columns = metrics.map(({ name }, k) => {
    const values = Float64Array.from({ length: size }, (_, i) => {
      const rows = parts && partly.has(i) ? parts[k] : whole[k];
      const given = rows.flatMap((each) => (each === null || each[i].value === null ? [] : [each[i]]));
      samples[i] += rows.reduce((all, each) => all + (each?.[i].samples ?? 0), 0);
      return given.length === 0 ? NaN : given.reduce((total, { value }) => total + value!, 0);
    });
    return { name, values };
  });
  return { columns, coverage, samples, counted };
}

/** Sample by sample: the expression at every time one of its metrics has a sample, as a series. */
export async function derivedSeries(
  context: ReadContext,
  row: MetricRow,
  from: number,
  to: number,
  reads: MetricReads,
): Promise<Series> {
  const definition = await definitionOf(context, row);
  if (definition.way === 'totals') {
    throw new BeaconError(
      'BAD_INPUT',
      `${row.name} is worked out of the totals of a period, so it has no single samples. Choose a period.`,
      'bucket',
    );
  }
  const expression = await bindExpression(context, definition, row.unit);
  return seriesOfExpression(context, expression, { from, to, reachMs: row.maxGapMs }, reads);
}

/** Bringing the metrics of an expression to common times takes as long as so many samples a time. */
const OF_TIME = 4;

export async function seriesOfExpression(
  context: ReadContext,
  { node, names, factor, offset }: BoundExpression,
  { from, to, reachMs }: { readonly from: number; readonly to: number; readonly reachMs: number },
  reads: MetricReads,
): Promise<Series> {
  const sources = [...names].flatMap(([name, each]) =>
    each.kind === 'metrics' ? each.rows.map((row) => ({ name, row })) : [],
  );
  const longest = Math.max(reachMs, ...sources.map(({ row }) => row.intervalMs));
  const start = from - (stepsBack(node) + 1) * longest;
  const spans = { start: [start], end: [to], into: [0] };
  const read = new Map<string, Series>();
  for (const { row } of sources) {
    if (!read.has(row.id)) read.set(row.id, (await reads.samples(context, [row], spans)).get(row.id)!);
  }
  const times = mergeTimes([...read.values()].map(({ t }) => t));
  checkCost(node, times.length);
  spend(context.db, times.length * (OF_TIME + operationsPerStep(node)));
  const columns = new Map<string, Float64Array>();
  for (const [name, each] of names) {
    columns.set(
      name,
      each.kind === 'metrics'
        ? addUp(each.rows.map((row) => valuesAt(read.get(row.id)!, row.kind, row.maxGapMs, times)))
        : constants(each, times, sources[0]?.row.zone ?? 'UTC'),
    );
  }
  const amounts = new Set(
    [...names].flatMap(([name, each]) =>
      each.kind === 'metrics' && each.rows[0].kind === 'amount' ? [name] : [],
    ),
  );
  const interval = sources[0]?.row.intervalMs ?? HOUR_MS;
  const hours = Float64Array.from(times, (t, i) =>
    amounts.size > 0 ? interval / HOUR_MS : i === 0 ? NaN : (t - times[i - 1]) / HOUR_MS,
  );
  const results = evaluate(node, { size: times.length, of: (name) => columns.get(name)!, hours, amounts });
  const t = new Float64Array(times.length);
  const v = new Float64Array(times.length);
  let n = 0;
  for (let i = 0; i < times.length; i++) {
    if (!Number.isFinite(results[i])) continue;
    t[n] = times[i];
    v[n++] = results[i] * factor + offset;
  }
  return { t: t.subarray(0, n), v: v.subarray(0, n) };
}

/** An amount counts at its own times only; others hold until the next sample, at most the longest gap. */
function valuesAt(series: Series, kind: MetricKind, maxGapMs: number, times: Float64Array): Float64Array {
  const out = new Float64Array(times.length).fill(NaN);
  const { t, v } = series;
  const oldest = kind === 'amount' ? 0 : maxGapMs;
  for (let k = 0, i = -1; k < times.length; k++) {
    while (i + 1 < t.length && t[i + 1] <= times[k]) i++;
    if (i >= 0 && times[k] - t[i] <= oldest) out[k] = v[i];
  }
  return out;
}

/** Sum of several columns; missing where all are. */
function addUp(columns: readonly Float64Array[]): Float64Array {
  if (columns.length === 1) return columns[0];
  return columns[0].map((_, i) => {
    const given = columns.filter((each) => each[i] === each[i]);
    return given.length === 0 ? NaN : given.reduce((total, each) => total + each[i], 0);
  });
}

function constants(
  each: Exclude<Bound, { kind: 'metrics' }>,
  starts: ArrayLike<number>,
  zone: string,
): Float64Array {
  if (each.kind === 'constant') return new Float64Array(starts.length).fill(each.value);
  // A value holds from local midnight of its day; the times stand in order.
  const { values } = each.factor;
  const from = values.map((value) => DateTime.fromISO(value.from, { zone }).toMillis());
  let i = -1;
  return Float64Array.from(starts, (start) => {
    while (i + 1 < from.length && from[i + 1] <= start) i++;
    return values[i]?.value ?? NaN;
  });
}
