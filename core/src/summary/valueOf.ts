import { HOUR_MS } from '../time/lengths';
import { RUNNING, type MetricKind, type Summary } from '../domain/metric';
import type { Tallies } from './tally';

/** One number for a window, with what it rests on. */
export interface Summarised {
  /** In the unit of the summary; null when nothing usable lies in the window. */
  readonly value: number | null;
  /** Samples inside the window that were used. */
  readonly samples: number;
  /** Share of the elapsed window with usable data, 0 to 1. */
  readonly coverage: number;
}

/** Nothing is known. */
export const NOTHING: Summarised = { value: null, samples: 0, coverage: 0 };

/** Summaries that need the samples themselves, not only a tally of them. */
export function needsSamples(summary: Summary): boolean {
  return summary === 'p50' || summary === 'p95' || summary === 'p5';
}

/**
 * Bucket `i` summarised. Must not be a summary that {@link needsSamples}.
 *
 * @param elapsedMs how much of the bucket has passed (inside the recurring hours looked at).
 */
export function valueOfTally(
  tallies: Tallies,
  i: number,
  summary: Summary,
  kind: MetricKind,
  elapsedMs: number,
): Summarised {
  if (elapsedMs <= 0) return NOTHING;
  const coverage = Math.min(1, tallies.heldMs[i] / elapsedMs);
  return { value: pick(tallies, i, summary, kind), samples: tallies.n[i], coverage };
}

function pick(tallies: Tallies, i: number, summary: Summary, kind: MetricKind): number | null {
  const n = tallies.n[i];
  const held = tallies.heldMs[i];
  if (summary === 'count') return n;
  if (summary === 'increase') return tallies.spanMs[i] > 0 ? tallies.increase[i] : null;
  if (summary === 'mean' && kind === 'level') return held > 0 ? tallies.area[i] / held : null;
  if (summary === 'share' || summary === 'duration') {
    if (held <= 0) return null;
    const on = tallies.stateMs.get(RUNNING)?.[i] ?? 0;
    return summary === 'share' ? (100 * on) / held : on / HOUR_MS;
  }
  if (n === 0) return null;
  switch (summary) {
    case 'mean':
      return tallies.sum[i] / n;
    case 'sum':
      return tallies.sum[i];
    case 'min':
      return tallies.min[i];
    case 'max':
      return tallies.max[i];
    case 'first':
      return tallies.first[i];
    case 'last':
      return tallies.last[i];
    case 'sd':
      return n < 2 ? null : Math.sqrt(tallies.m2[i] / (n - 1));
    default:
      throw new RangeError(`valueOfTally: ${summary} needs the samples themselves`);
  }
}
