import type { MetricKind } from '../domain/metric';
import { emptyAggregates, type Aggregates } from './aggregates';
import type { Spans } from './aggregate';

/** One value of a reference series with its period, ms, half-open. */
export interface ReferencePeriodValue {
  readonly start: number;
  readonly end: number;
  readonly value: number;
}

/**
 * Aggregates the values of a reference series over spans. An amount (a monthly budget) counts in proportion
 * to the part of its period in the span; a level (a floor area) holds through its period.
 *
 * @param values disjoint, in order of time.
 */
export function aggregateReference(
  values: readonly ReferencePeriodValue[],
  kind: MetricKind,
  spans: Spans,
  size: number,
): Aggregates {
  const out = emptyAggregates(size);
  for (let i = 0; i < spans.start.length; i++) {
    const k = spans.into[i];
    for (const { start, end, value } of values) {
      const shared = Math.min(end, spans.end[i]) - Math.max(start, spans.start[i]);
      if (shared <= 0) continue;
      out.heldMs[k] += shared;
      out.area[k] += value * shared;
      out.sum[k] += kind === 'amount' ? value * (shared / (end - start)) : value;
      if (out.n[k] === 0) {
        out.min[k] = out.max[k] = out.first[k] = value;
      } else {
        out.min[k] = Math.min(out.min[k], value);
        out.max[k] = Math.max(out.max[k], value);
      }
      out.last[k] = value;
      out.n[k]++;
    }
  }
  return out;
}
