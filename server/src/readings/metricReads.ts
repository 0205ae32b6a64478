import type { Series, Summary } from '@vivid-beacon/core';
import type { BucketSpans, Cell, Spans, Summarised } from '@vivid-beacon/core/src/aggregation';
import type { MetricRow } from '../metrics/sql';
import type { ReadContext } from './readContext';

/** What a number was computed from. */
export type Basis = 'samples' | 'rollup' | 'derived' | 'reference';

/** One metric over periods. */
export interface MetricAnswer {
  readonly values: readonly Summarised[];
  readonly basis: Basis;
}

/** The periods of a metric's plant. */
export type PlaceOf = (row: MetricRow) => BucketSpans;

/** The time in which numbers that depend on each other count. */
export interface SharedTime {
  /** Where a metric counts; null if it has no counterpart. */
  readonly spansOf: (row: MetricRow) => Spans | null;
  /** Share of each elapsed period, over all members, 0 to 1. */
  readonly shares: readonly number[];
}

/** How metrics are read; handed to those that are worked out of others, which may be derived themselves. */
export interface MetricReads {
  readonly summarise: (
    context: ReadContext,
    row: MetricRow,
    summary: Summary,
    buckets: BucketSpans,
  ) => Promise<MetricAnswer>;
  readonly samples: (
    context: ReadContext,
    rows: readonly MetricRow[],
    spans: Spans,
  ) => Promise<Map<string, Series>>;
  /** The time of some periods in which all members of cells have data. */
  readonly shareTime: (
    context: ReadContext,
    cells: readonly Cell<MetricRow>[],
    placeOf: PlaceOf,
    periods: ReadonlySet<number>,
  ) => Promise<SharedTime>;
}
