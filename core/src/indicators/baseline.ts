import { DateTime } from 'luxon';
import { isCovered } from '../bands/targetBand';
import type { Summarised } from '../summary/valueOf';
import type { Interval } from '../time/interval';

/** Fewest and most stretches for a baseline. */
export const BASELINE_STRETCHES = { least: 2, most: 26 } as const;

/**
 * The windows at the same time in the weeks before, earliest first: shifted back by whole weeks in local
 * time, so that each hour of the window meets the same hour of the week also over a clock change. A window
 * longer than a week is moved by as many weeks as it spans, so that no stretch overlaps it.
 *
 * @param count number of stretches. @param zone IANA name.
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

/** Numerator and denominator of a measure over one stretch; `denominator` is null unless it is a ratio. */
export interface BaselinePart {
  readonly numerator: Summarised;
  readonly denominator: Summarised | null;
}

/**
 * The baseline of a window: the mean of the same stretches before; for a ratio, the sum of the numerators
 * over the sum of the denominators. Stretches with too little data are left out.
 *
 * @param factor what the ratio is multiplied by. @returns null if fewer than half of the stretches are
 * usable, or fewer than two.
 */
export function baselineOf(parts: readonly BaselinePart[], factor: number): number | null {
  const known = (each: Summarised | null): boolean =>
    each === null || (each.value !== null && isCovered(each));
  const usable = parts.filter(({ numerator, denominator }) => known(numerator) && known(denominator));
  if (usable.length < Math.max(BASELINE_STRETCHES.least, parts.length / 2)) return null;
  const total = (pick: (part: BaselinePart) => Summarised): number =>
    usable.reduce((sum, part) => sum + pick(part).value!, 0);
  const top = total(({ numerator }) => numerator);
  if (usable[0].denominator === null) return top / usable.length;
  const bottom = total(({ denominator }) => denominator!);
  return bottom === 0 ? null : (factor * top) / bottom;
}
