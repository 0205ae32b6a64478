import type { Series, Summary } from '@vivid-beacon/core';
import type { BucketSpans, Spans, Summarised } from '@vivid-beacon/core/src/aggregation';
import type { MetricRow } from '../metrics/sql';
import type { ReadContext } from './readContext';

/** What a number was computed from. */
export type Basis = 'samples' | 'rollup' | 'derived' | 'reference';

/** One metric over periods. */
export interface MetricAnswer {
  readonly values: readonly Summarised[];
  readonly basis: Basis;
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
}
