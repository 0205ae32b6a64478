import { HOUR_MS } from '../time/lengths';
import { RUNNING, type MetricKind, type Summary } from '../domain/metric';
import type { Aggregates } from './aggregates';

/** One number for a window, with its coverage and samples. */
export interface Summarised {
  /** In the unit of the summary; null without usable data in the window. */
  readonly value: number | null;
  /** Samples inside the window that were used. */
  readonly samples: number;
  /** Share of the elapsed window with usable data, 0 to 1. */
  readonly coverage: number;
}

/** Nothing is known. */
export const NOTHING: Summarised = { value: null, samples: 0, coverage: 0 };

/** Whether a summary needs the samples themselves, not only their aggregates. */
export function needsSamples(summary: Summary): boolean {
  return summary === 'p50' || summary === 'p95' || summary === 'p5';
}

/**
 * Bucket `i` summarised. Must not be a summary that {@link needsSamples}.
 *
 * @param elapsedMs elapsed part of the bucket (inside the recurring hours).
 */
export function valueOfAggregates(
  aggregates: Aggregates,
  i: number,
  summary: Summary,
  kind: MetricKind,
  elapsedMs: number,
): Summarised {
  if (elapsedMs <= 0) return NOTHING;
  const coverage = Math.min(1, aggregates.heldMs[i] / elapsedMs);
  return { value: pick(aggregates, i, summary, kind), samples: aggregates.n[i], coverage };
}

/**
 * The sum of amounts of several metrics in bucket `i`, each as it counts: in full where an amount begins, or by
 * the share of its interval (`isSpread`, one for each).
 */
export function sumOfAmounts(
  members: readonly Aggregates[],
  isSpread: readonly boolean[],
  i: number,
  elapsedMs: number,
): Summarised {
  if (elapsedMs <= 0) return NOTHING;
  let samples = 0;
  let held = 0;
  let sum: number | null = null;
  for (const [k, each] of members.entries()) {
    samples += each.n[i];
    held += each.heldMs[i];
    const known = isSpread[k] ? each.heldMs[i] > 0 : each.n[i] > 0;
    if (known) sum = (sum ?? 0) + (isSpread[k] ? each.area[i] : each.sum[i]);
  }
  return { value: sum, samples, coverage: Math.min(1, held / elapsedMs) };
}

function pick(aggregates: Aggregates, i: number, summary: Summary, kind: MetricKind): number | null {
  const n = aggregates.n[i];
  const held = aggregates.heldMs[i];
  if (summary === 'count') return n;
  if (summary === 'increase') return aggregates.spanMs[i] > 0 ? aggregates.increase[i] : null;
  if (summary === 'mean' && kind === 'level') return held > 0 ? aggregates.area[i] / held : null;
  if (summary === 'share' || summary === 'duration') {
    if (held <= 0) return null;
    const on = aggregates.stateMs.get(RUNNING)?.[i] ?? 0;
    return summary === 'share' ? (100 * on) / held : on / HOUR_MS;
  }
  if (n === 0) return null;
  switch (summary) {
    case 'mean':
      return aggregates.sum[i] / n;
    case 'sum':
      return aggregates.sum[i];
    case 'min':
      return aggregates.min[i];
    case 'max':
      return aggregates.max[i];
    case 'first':
      return aggregates.first[i];
    case 'last':
      return aggregates.last[i];
    case 'sd':
      return n < 2 ? null : Math.sqrt(aggregates.m2[i] / (n - 1));
    default:
      throw new RangeError(`valueOfAggregates: ${summary} needs the samples themselves`);
  }
}
