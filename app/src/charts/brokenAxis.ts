import { scaleLinear } from 'd3-scale';
import { findBreak } from '@vivid-beacon/core';
import type { SceneAxis } from './sceneAxis';

/** Height of what stands for the stretch left out, px. */
export const BREAK_HEIGHT = 12;
const LINE_HEIGHT = 14;
/** Neither part takes less of the height than this. */
const SMALLEST_SHARE = 0.25;

/**
 * A value axis that leaves out the empty stretch between values that lie far apart; each part has round
 * graduations of its own.
 *
 * @param values all that must be on it, limits of a band included.
 * @returns null where values do not lie far apart: then a whole axis is the better one.
 */
export function brokenAxis(
  unit: string,
  values: readonly number[],
  height: number,
  reversed: boolean,
): SceneAxis | null {
  const found = findBreak(values);
  if (!found) return null;
  const low = Math.min(...values);
  const high = Math.max(...values);
  const gap = found.above - found.below;
  const lower = niceEnds(low, found.below, gap);
  const upper = niceEnds(found.above, high, gap);
  if (lower[1] >= upper[0]) return null;
  const [lowerSpan, upperSpan] = [lower[1] - lower[0], upper[1] - upper[0]];
  const share = Math.min(
    1 - SMALLEST_SHARE,
    Math.max(SMALLEST_SHARE, lowerSpan / (lowerSpan + upperSpan) || 0.5),
  );
  const bottom = (height - BREAK_HEIGHT) * (1 - share);
  const turn = (y: number): number => (reversed ? height - y : y);
  const scale = scaleLinear()
    .domain([lower[0], lower[1], upper[0], upper[1]])
    .range([height, bottom + BREAK_HEIGHT, bottom, 0].map(turn));
  const count = height > 150 ? 3 : 2;
  const ticks = [lower, upper].flatMap(([from, to]) =>
    scaleLinear()
      .domain([from, to])
      .ticks(count)
      .filter((tick) => tick >= from && tick <= to),
  );
  const at = (value: number): number => scale(value);
  return {
    unit,
    domain: [lower[0], upper[1]],
    at,
    // On both sides of the break graduations come near one another: the lower one stays.
    ticks: ticks.filter((tick, i) => i === 0 || Math.abs(at(tick) - at(ticks[i - 1])) >= LINE_HEIGHT),
    gap: { top: Math.min(turn(bottom), turn(bottom + BREAK_HEIGHT)), from: lower[1], to: upper[0] },
  };
}

/** Round ends around a part; of one value alone, some room on both sides. */
function niceEnds(low: number, high: number, gap: number): readonly [number, number] {
  const room = high > low ? (high - low) * 0.08 : Math.min(gap * 0.1, Math.abs(low) * 0.1 || gap * 0.1);
  // A part that begins at nothing below zero does not reach below it.
  const from = low >= 0 ? Math.max(0, low - room) : low - room;
  const [a, b] = scaleLinear()
    .domain([from, high + room])
    .nice(3)
    .domain();
  return b - a < gap ? [a, b] : [from, high + room];
}
