import { DateTime } from 'luxon';
import { isCovered } from '../bands/targetBand';
import type { Summarised } from '../summary/valueOf';
import type { Interval } from '../time/interval';

/** Fewest and most stretches that a baseline may be asked to rest on. */
export const BASELINE_STRETCHES = { least: 2, most: 26 } as const;

/**
 * The same stretch of the week before a window, as often as asked, the earliest first: moved back by whole weeks on
 * the local clock, so that each hour of the window meets the same hour of the week also over a clock change. A window
 * longer than a week is moved by as many weeks as it spans, so that no stretch overlaps it.
 *
 * @param count how many stretches. @param zone IANA name.
 */
export function weeksBefore({ start, end }: Interval, count: number, zone: string): Interval[] {
  const from = DateTime.fromMillis(start, { zone });
  const to = DateTime.fromMillis(end, { zone });
  const step = Math.max(1, Math.ceil(to.diff(from, 'weeks').weeks));
  return Array.from({ length: count }, (_, i) => {
    const weeks = step * (count - i);
    return { start: from.minus({ weeks }).toMillis(), end: to.minus({ weeks }).toMillis() };
  });
}

/** The two parts of a measure over one stretch; `lower` is null where it is no ratio. */
export interface BaselinePart {
  readonly upper: Summarised;
  readonly lower: Summarised | null;
}

/**
 * The profile by hour of the week over a window: the mean of what the same stretch was before; of a ratio the sum of
 * the tops over the sum of the bottoms. Stretches with too little data are left out.
 *
 * @param factor what the ratio is multiplied by. @returns null when fewer than half of the stretches can be used, or
 *   fewer than two.
 */
export function baselineOf(parts: readonly BaselinePart[], factor: number): number | null {
  const known = (each: Summarised | null): boolean =>
    each === null || (each.value !== null && isCovered(each));
  const usable = parts.filter(({ upper, lower }) => known(upper) && known(lower));
  if (usable.length < Math.max(BASELINE_STRETCHES.least, parts.length / 2)) return null;
  const total = (pick: (part: BaselinePart) => Summarised): number =>
    usable.reduce((sum, part) => sum + pick(part).value!, 0);
  const top = total(({ upper }) => upper);
  if (usable[0].lower === null) return top / usable.length;
  const bottom = total(({ lower }) => lower!);
  return bottom === 0 ? null : (factor * top) / bottom;
}
