import { askReading } from '../../api/readingBatcher';
import type { QueryClient } from '@tanstack/react-query';
import { SUMMARIES_OF_KIND, type Metric, type RuleInput } from '@vivid-beacon/core';

/** A value above nearly all hourly values of the past; the newest one where there is no past. */
export async function usualHigh(
  client: QueryClient,
  metric: Metric,
  over: RuleInput['over'] = null,
): Promise<number> {
  const ask = {
    measure: { metricId: metric.id, summary: over?.summary ?? SUMMARIES_OF_KIND[metric.kind][0], per: null },
    window: { kind: 'rolling', count: 1, unit: over && over.period !== 'shift' ? over.period : 'hour' },
  } as const;
  const newest = metric.last?.v ?? 0;
  const { values } = await client
    .fetchQuery({
      queryKey: ['readings', 'distribution', ask],
      queryFn: () => askReading('distribution', ask),
    })
    .catch(() => ({ values: [] as number[] }));
  const high = values[Math.floor((values.length - 1) * 0.995)] ?? newest;
  return Number(high.toFixed(metric.decimals));
}
