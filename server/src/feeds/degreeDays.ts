import { DAY_MS, isCovered, resolveWindow, type DegreeDays, type DegreeDaysAsk } from '@vivid-beacon/core';
import { bucketSpans, degreeDaysOfDay } from '@vivid-beacon/core/src/aggregation';
import { spend } from '../db/readBudget';
import { summariseMetric } from '../readings/planner';
import type { ReadContext } from '../readings/readContext';

/** Laying a day out for three summaries takes as long as so many samples; a century of them is not for here. */
const OF_DAY = 9;

/** Degree days of an outside temperature, with the methods named in core/src/degreeDays. */
export async function readDegreeDays(
  context: ReadContext,
  { metricId, window: spec, base, kind, method }: DegreeDaysAsk & { readonly metricId: string },
): Promise<DegreeDays> {
  const { db, now, reads } = context;
  const [row] = await reads.metrics(db, [metricId]);
  const calendar = await reads.calendarOf(db, row.plantId);
  const window = resolveWindow(spec, now, row.zone, calendar);
  spend(db, ((window.end - window.start) / DAY_MS) * OF_DAY);
  const buckets = bucketSpans(window, 'day', null, row.zone, calendar);
  const [mean, min, max] = await Promise.all(
    (['mean', 'min', 'max'] as const).map(
      async (summary) => (await summariseMetric(context, row, summary, buckets)).values,
    ),
  );
  // An unfinished day has no mean of its own yet.
  const degreeDays = mean.map(({ value, coverage }, i) => {
    const whole = buckets.end[i] <= now && isCovered({ coverage });
    if (!whole || value === null || min[i].value === null || max[i].value === null) return null;
    const day = { mean: value, min: min[i].value!, max: max[i].value! };
    return degreeDaysOfDay(day, base, kind, method);
  });
  const known = degreeDays.filter((each) => each !== null);
  return {
    zone: row.zone,
    day: buckets.start,
    degreeDays,
    total: known.length === 0 ? null : known.reduce((a, b) => a + b, 0),
    missing: degreeDays.length - known.length,
  };
}
