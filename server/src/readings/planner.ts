import type { Series, Summary } from '@vivid-beacon/core';
import {
  assemble,
  checkSummary,
  columnsFor,
  countedSpans,
  daysOfRollups,
  elapsedOfAll,
  emptyAggregates,
  needsSamples,
  planPieces,
  pooledPercentiles,
  pooledValues,
  stretchesOf,
  aggregateEnds,
  aggregate,
  type BucketSpans,
  type Plan,
  type RollupColumn,
  type Spans,
  type Aggregates,
} from '@vivid-beacon/core/src/aggregation';
import { spend } from '../db/readBudget';
import { readingOf } from '../metrics/metrics';
import type { MetricRow } from '../metrics/sql';
import { derivedSeries, derivedWayOf, summariseDerived } from './derived';
import type { Basis, MetricAnswer, MetricReads } from './metricReads';
import type { ReadContext } from './readContext';
import { aggregateReferenceMetric } from './reference';
import { shareTime } from './shareTime';

/* Reads what core/src/plan requires, and lets core assemble it. */

/**
 * The one way in which a metric is summarised over periods, for every readout: derived metrics by their
 * expression, reference series by their periods, percentiles from the samples, everything else from the
 * rollups, with samples only for the ends that do not fall on a quarter of an hour.
 */
export async function summariseMetric(
  context: ReadContext,
  row: MetricRow,
  summary: Summary,
  buckets: BucketSpans,
): Promise<MetricAnswer> {
  if (row.origin === 'derived' && (await derivedWayOf(context, row)) === 'totals') {
    return { values: await summariseDerived(context, row, summary, buckets, METRIC_READS), basis: 'derived' };
  }
  checkSummary(summary, row.kind, 'measure.summary', row.name);
  return poolMetrics(context, [row], summary, buckets);
}

/**
 * Several metrics of one kind summarised together: sums and durations are added, means weighted by time or
 * count, percentiles taken over all samples. Coverage is that of all of them.
 *
 * @param spansOf the spans in which a metric counts; by default all that have elapsed.
 */
export async function poolMetrics(
  context: ReadContext,
  rows: readonly MetricRow[],
  summary: Summary,
  buckets: BucketSpans,
  spansOf?: (row: MetricRow) => Spans,
): Promise<MetricAnswer> {
  const [{ kind, origin }] = rows;
  const { size } = buckets;
  const counted = countedSpans(origin, buckets, context.now);
  const bySpans = new Map<Spans, MetricRow[]>();
  for (const row of rows) {
    const spans = spansOf?.(row) ?? counted;
    bySpans.set(spans, [...(bySpans.get(spans) ?? []), row]);
  }
  const elapsed = elapsedOfAll(
    rows.map((row) => spansOf?.(row) ?? counted),
    size,
  );
  const groups = [...bySpans];
  if (needsSamples(summary)) {
    const metrics = await Promise.all(
      groups.map(async ([spans, members]) => {
        const series = await samplesOf(context, members, spans);
        return members.map((row) => ({ series: series.get(row.id)!, reading: readingOf(row), spans }));
      }),
    );
    return { values: pooledPercentiles(metrics.flat(), summary, elapsed), basis: 'samples' };
  }
  const read = await Promise.all(
    groups.map(async ([spans, members]) => {
      const wanted = columnsFor(summary, kind);
      return aggregateMetrics(context, members, spans, size, wanted);
    }),
  );
  const inOrder = rows.map(({ id }) =>
    read.find(({ aggregates }) => aggregates.has(id))!.aggregates.get(id)!,
  );
  const basis = read.some((each) => each.basis === 'rollup') ? 'rollup' : read[0].basis;
  const isSpread = rows.map((row) => readingOf(row).isSpread === true);
  return { values: pooledValues(inOrder, summary, kind, elapsed, isSpread), basis };
}

/** Laying out a period and putting it into words takes as long as so many samples. */
const OF_PERIOD = 6;

/** Aggregates of several metrics over spans, each on its own. */
export async function aggregateMetrics(
  context: ReadContext,
  rows: readonly MetricRow[],
  spans: Spans,
  size: number,
  wanted: ReadonlySet<RollupColumn> | null,
): Promise<{ aggregates: Map<string, Aggregates>; basis: Basis }> {
  spend(context.db, rows.length * (size + spans.start.length) * OF_PERIOD);
  const out = new Map<string, Aggregates>();
  for (const row of rows.filter(({ origin }) => origin === 'reference')) {
    out.set(row.id, await aggregateReferenceMetric(context.db, row, spans, size));
  }
  const sampled = rows.filter(({ origin }) => origin === 'samples');
  const plans = planPieces(spans);
  // Derived metrics have no rollups; with too many ends off the quarters samples are the shorter way for all.
  const bySamples = rows.filter(
    ({ origin }) => origin === 'derived' || (origin === 'samples' && plans === null),
  );
  const series = await samplesOf(context, bySamples, spans);
  for (const row of bySamples) out.set(row.id, aggregate(series.get(row.id)!, readingOf(row), spans, size));
  if (sampled.length === 0) {
    return { aggregates: out, basis: rows[0]?.origin === 'reference' ? 'reference' : 'derived' };
  }
  if (plans === null) return { aggregates: out, basis: 'samples' };
  for (const { id } of sampled) out.set(id, emptyAggregates(size));
  for (const plan of plans) await addPlan(context, sampled, plan, out, wanted);
  return { aggregates: out, basis: plans.some(({ whole }) => whole) ? 'rollup' : 'samples' };
}

/** Reads what a plan asks for and adds it to the aggregates. */
async function addPlan(
  context: ReadContext,
  rows: readonly MetricRow[],
  plan: Plan,
  out: ReadonlyMap<string, Aggregates>,
  wanted: ReadonlySet<RollupColumn> | null,
): Promise<void> {
  const { db, reads } = context;
  const ids = rows.map(({ id }) => id);
  const [rollups, ...ends] = await Promise.all([
    plan.whole && reads.rollups(db, ids, plan.whole, plan.grain),
    ...stretchesOf(plan.ends).map(async (stretch) => ({
      stretch,
      series: await reads.around(db, ids, stretch.from, stretch.to),
    })),
  ]);
  for (const row of rows) {
    const days = daysOfRollups(rollups?.get(row.id) ?? [], plan.grain, wanted);
    const tallied =
      ends.length === 0
        ? null
        : aggregateEnds(
            ends.map(({ stretch, series }) => ({ stretch, series: series.get(row.id)! })),
            readingOf(row),
            plan.ends.length,
          );
    assemble(out.get(row.id)!, plan, days, tallied, wanted);
  }
}

const NO_SAMPLES: Series = { t: new Float64Array(0), v: new Float64Array(0) };

/** The usable samples that spans need, with those that reach into them. */
export async function samplesOf(
  context: ReadContext,
  rows: readonly MetricRow[],
  spans: Spans,
): Promise<Map<string, Series>> {
  const out = new Map<string, Series>(rows.map(({ id }) => [id, NO_SAMPLES]));
  if (spans.start.length === 0) return out;
  const from = spans.start[0];
  const to = Math.max(...Array.from(spans.end));
  const stored = rows.filter(({ origin }) => origin === 'samples').map(({ id }) => id);
  if (stored.length > 0) {
    for (const [id, series] of await context.reads.around(context.db, stored, from, to)) out.set(id, series);
  }
  for (const row of rows) {
    if (row.origin === 'derived') out.set(row.id, await derivedSeries(context, row, from, to, METRIC_READS));
  }
  return out;
}

/** For what is worked out of other metrics. */
export const METRIC_READS: MetricReads = {
  summarise: summariseMetric,
  samples: samplesOf,
  shareTime: (context, cells, placeOf, periods) =>
    shareTime(context, cells, placeOf, periods, { aggregate: aggregateMetrics, samples: samplesOf }),
};
