import {
  BeaconError,
  SUMMARIES_OF_KIND,
  type Interval,
  type Measure,
  type MeasuredMetric,
} from '@vivid-beacon/core';
import type { Queryable } from '../db/database';
import { needMetrics, readingOf } from '../metrics/metrics';
import type { MetricRow } from '../metrics/sql';
import { readSeries } from '../samples/store';

const DAY_MS = 86_400_000;
/** How far a counter's neighbouring readings are looked for. */
const REGISTER_REACH_MS = 31 * DAY_MS;

/** A measure with its samples, ready for core. */
export interface LoadedMeasure {
  readonly upper: MeasuredMetric;
  readonly lower: MeasuredMetric | null;
  readonly upperRow: MetricRow;
  readonly lowerRow: MetricRow | null;
  readonly factor: number;
}

/** Reads the samples that a measure needs for a window, with what reaches into it from before and after. */
export async function loadMeasure(db: Queryable, measure: Measure, window: Interval): Promise<LoadedMeasure> {
  const ids = measure.per ? [measure.metricId, measure.per.metricId] : [measure.metricId];
  const rows = await needMetrics(db, ids);
  const upperRow = rows.get(measure.metricId)!;
  const lowerRow = measure.per ? rows.get(measure.per.metricId)! : null;
  checkSummary(upperRow, measure.summary);
  if (lowerRow) checkSummary(lowerRow, measure.per!.summary);
  const reach = Math.max(...[...rows.values()].map(reachOf));
  const after = [...rows.values()].some(({ kind }) => kind === 'register') ? REGISTER_REACH_MS : 0;
  const series = await readSeries(db, ids, window.start - reach, window.end + after);
  return {
    upper: { series: series.get(upperRow.id)!, reading: readingOf(upperRow), summary: measure.summary },
    lower: lowerRow && {
      series: series.get(lowerRow.id)!,
      reading: readingOf(lowerRow),
      summary: measure.per!.summary,
    },
    upperRow,
    lowerRow,
    factor: measure.per?.factor ?? 1,
  };
}

function reachOf(row: MetricRow): number {
  return Math.max(row.maxGapMs, row.intervalMs, row.kind === 'register' ? REGISTER_REACH_MS : 0);
}

function checkSummary(row: MetricRow, summary: Measure['summary']): void {
  if (!SUMMARIES_OF_KIND[row.kind].includes(summary)) {
    throw new BeaconError(
      'BAD_INPUT',
      `${row.name} is of kind ${row.kind}; its ${summary} makes no sense. Choose another summary.`,
      'measure.summary',
    );
  }
}
