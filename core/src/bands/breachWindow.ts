import type { Interval } from '../time/interval';
import type { LevelSpan } from './bandTime';

/** A breach stands in a window so many times its length, with it in the middle. */
const TIMES = 3;
const SHORTEST_MS = 3_600_000;

/**
 * The window around the breach before or after the one looked at, the breach in its middle.
 *
 * @param spans when something was in which level, in any order; only breaches count.
 * @param window what is shown now: from its middle one goes on.
 * @returns null where no breach lies that way.
 */
export function breachWindow(spans: readonly LevelSpan[], window: Interval, step: -1 | 1): Interval | null {
  const middleOf = ({ start, end }: Interval): number => (start + end) / 2;
  const from = middleOf(window);
  // Rounding to whole ms moves a middle by up to one.
  const ahead = spans
    .filter(({ level }) => level === 'breach')
    .filter((span) => (middleOf(span) - from) * step > 1)
    .sort((a, b) => (middleOf(a) - middleOf(b)) * step);
  const [next] = ahead;
  if (!next) return null;
  const length = Math.max(SHORTEST_MS, (next.end - next.start) * TIMES);
  const start = Math.round(middleOf(next) - length / 2);
  return { start, end: start + length };
}
