import { resolveWindow, type CoverageByDay } from '@vivid-beacon/core';
import { bucketSpans, elapsedSpans, lengthOfSpans } from '@vivid-beacon/core/src/aggregation';
import { aggregateMetrics } from '../readings/planner';
import type { ReadContext } from '../readings/readContext';

/** How much of each of the last local days, today last, a metric has usable data for. */
export async function coverageByDay(
  context: ReadContext,
  { metricId, days }: { readonly metricId: string; readonly days: number },
): Promise<CoverageByDay> {
  const { db, now, reads } = context;
  const [row] = await reads.metrics(db, [metricId]);
  const calendar = await reads.calendarOf(db, row.plantId);
  const window = resolveWindow(
    { kind: 'periods', count: days, unit: 'day', current: true },
    now,
    row.zone,
    calendar,
  );
  const buckets = bucketSpans(window, 'day', null, row.zone, calendar);
  const spans = elapsedSpans(buckets.spans, now);
  const { aggregates } = await aggregateMetrics(context, [row], spans, buckets.size, new Set(['heldMs']));
  const tally = aggregates.get(row.id)!;
  const elapsed = lengthOfSpans(spans, buckets.size);
  return {
    zone: row.zone,
    day: buckets.start,
    coverage: Array.from(elapsed, (ms, i) => (ms > 0 ? Math.min(1, tally.heldMs[i] / ms) : 0)),
    samples: Array.from(tally.n),
  };
}
