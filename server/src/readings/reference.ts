import { plusPeriods, startOfDate, type ReferenceValue } from '@vivid-beacon/core';
import {
  aggregateReference,
  type ReferencePeriodValue,
  type Spans,
  type Aggregates,
} from '@vivid-beacon/core/src/aggregation';
import { all, type Queryable } from '../db/database';
import type { MetricRow } from '../metrics/sql';

/** Values of a reference series, in order of time. */
export function readReferenceValues(db: Queryable, metricId: string): Promise<ReferenceValue[]> {
  return all(
    db,
    `select to_char(start_date, 'YYYY-MM-DD') as start, value from reference_value
     where metric_id = $1 order by start_date`,
    [metricId],
  );
}

/** The same with their periods in the zone of the asset. A period ends where the next one begins. */
export function periodsOfReference(
  values: readonly ReferenceValue[],
  row: Pick<MetricRow, 'period' | 'zone'>,
): ReferencePeriodValue[] {
  return values.map(({ start, value }) => {
    const from = startOfDate(start, row.zone);
    return { start: from, end: plusPeriods(from, 1, row.period ?? 'month', row.zone), value };
  });
}

export async function aggregateReferenceMetric(
  db: Queryable,
  row: MetricRow,
  spans: Spans,
  size: number,
): Promise<Aggregates> {
  const values = periodsOfReference(await readReferenceValues(db, row.id), row);
  return aggregateReference(values, row.kind, spans, size);
}
