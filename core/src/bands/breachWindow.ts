import type { Interval } from '../time/interval';
import type { LevelSpan } from './bandTime';

/** The window is this many times as long as the breach in its middle. */
const TIMES = 3;
const MIN_MS = 3_600_000;

/**
 * The window around the next or previous breach, with the breach in its middle.
 *
 * @param spans spans in any order; only breaches count.
 * @param window the window shown now; the search begins at its middle.
 * @returns null if there is no breach in that direction.
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
  const length = Math.max(MIN_MS, (next.end - next.start) * TIMES);
  const start = Math.round(middleOf(next) - length / 2);
  return { start, end: start + length };
}
