import { askReading } from '../../api/readingBatcher';
import type { QueryClient } from '@tanstack/react-query';
import { SUMMARIES_OF_KIND, type Metric, type RuleInput, type WindowSpec } from '@vivid-beacon/core';

const LAST_HOUR: WindowSpec = { kind: 'rolling', count: 1, unit: 'hour' };

/** Past values of a metric over windows as long as this, from low to high; none where there is no past. */
export async function pastValues(
  client: QueryClient,
  metric: Metric,
  window: WindowSpec = LAST_HOUR,
  over: RuleInput['over'] = null,
): Promise<readonly number[]> {
  const summary = over?.summary ?? SUMMARIES_OF_KIND[metric.kind][0];
  const ask = { measure: { metricId: metric.id, summary, per: null }, window };
  const { values } = await client
    .fetchQuery({
      queryKey: ['readings', 'distribution', ask],
      queryFn: () => askReading('distribution', ask),
    })
    .catch(() => ({ values: [] as number[] }));
  return values;
}

/** A value above nearly all hourly values of the past; the newest one where there is no past. */
export async function usualHigh(
  client: QueryClient,
  metric: Metric,
  over: RuleInput['over'] = null,
): Promise<number> {
  const window: WindowSpec =
    over && over.period !== 'shift' ? { kind: 'rolling', count: 1, unit: over.period } : LAST_HOUR;
  const values = await pastValues(client, metric, window, over);
  const high = values[Math.floor((values.length - 1) * 0.995)] ?? metric.last?.v ?? 0;
  return Number(high.toFixed(metric.decimals));
}
