import type { Interval } from '../time/interval';
import { differenceOf, intersectionOf, lengthOf, unionOf } from '../time/intervals';

/** A stop as its time is counted. `end` null = still stopped. */
export interface Stop {
  readonly assetId: string;
  readonly reason: string;
  readonly start: number;
  readonly end: number | null;
}

/** Time stopped, ms. Parts by reason add up to the total. */
export interface StopTime {
  readonly totalMs: number;
  readonly byReason: readonly { readonly reason: string; readonly stops: number; readonly ms: number }[];
}

/**
 * Sums stops inside stretches of time. Overlapping stops of one asset count once, for the stop that began first. The
 * most time comes first.
 *
 * @param stretches that do not overlap. @param now an open stop lasts until then.
 */
export function stopTime(stops: readonly Stop[], stretches: readonly Interval[], now: number): StopTime {
  const reasons = new Map<string, { stops: number; ms: number }>();
  const counted = new Map<string, Interval[]>();
  for (const stop of [...stops].sort((a, b) => a.start - b.start)) {
    const inside = intersectionOf([{ start: stop.start, end: stop.end ?? now }], stretches);
    if (inside.length === 0) continue;
    const before = counted.get(stop.assetId) ?? [];
    const fresh = differenceOf(inside, before);
    counted.set(stop.assetId, unionOf([...before, ...inside]));
    const sum = reasons.get(stop.reason) ?? { stops: 0, ms: 0 };
    reasons.set(stop.reason, { stops: sum.stops + 1, ms: sum.ms + lengthOf(fresh) });
  }
  return {
    totalMs: [...counted.values()].reduce((total, each) => total + lengthOf(each), 0),
    byReason: [...reasons]
      .map(([reason, sum]) => ({ reason, ...sum }))
      .sort((a, b) => b.ms - a.ms || a.reason.localeCompare(b.reason)),
  };
}
