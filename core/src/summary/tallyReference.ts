import type { MetricKind } from '../domain/metric';
import { emptyTallies, type Tallies } from './tally';
import type { Spans } from './tallySpans';

/** One value of a reference series with its period, ms, half-open. */
export interface ReferencePeriodValue {
  readonly start: number;
  readonly end: number;
  readonly value: number;
}

/**
 * Tallies values given by period over spans. An amount (a monthly budget) counts by the share of its period
 * that lies in a span; a level (a floor area) holds through its period.
 *
 * @param values disjoint, in order of time.
 */
export function tallyReference(
  values: readonly ReferencePeriodValue[],
  kind: MetricKind,
  spans: Spans,
  size: number,
): Tallies {
  const out = emptyTallies(size);
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
