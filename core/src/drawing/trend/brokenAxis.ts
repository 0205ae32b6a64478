import { scaleLinear } from 'd3-scale';
import { findBreak } from '../../bands/scaleBreak';
import type { PlotAxis } from './plotAxis';

/** Height of the break, px. */
export const BREAK_HEIGHT = 12;
const LINE_HEIGHT = 14;
/** Smallest share of the height for either part. */
const MIN_SHARE = 0.25;

/**
 * A value axis that leaves out the empty stretch between values far apart; each part has its own round
 * graduations.
 *
 * @param values all values to include, with the limits of a band.
 * @returns null if the values are not far apart; use a whole axis then.
 */
export function brokenAxis(
  unit: string,
  values: readonly number[],
  height: number,
  reversed: boolean,
): PlotAxis | null {
  const found = findBreak(values);
  if (!found) return null;
  const low = Math.min(...values);
  const high = Math.max(...values);
  const gap = found.above - found.below;
  const lower = niceEnds(low, found.below, gap);
  const upper = niceEnds(found.above, high, gap);
  if (lower[1] >= upper[0]) return null;
  const [lowerSpan, upperSpan] = [lower[1] - lower[0], upper[1] - upper[0]];
  const share = Math.min(1 - MIN_SHARE, Math.max(MIN_SHARE, lowerSpan / (lowerSpan + upperSpan) || 0.5));
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
    // Graduations on both sides of the break may be too close; the lower one is kept.
    ticks: ticks.filter((tick, i) => i === 0 || Math.abs(at(tick) - at(ticks[i - 1])) >= LINE_HEIGHT),
    gap: { top: Math.min(turn(bottom), turn(bottom + BREAK_HEIGHT)), from: lower[1], to: upper[0] },
  };
}

/** Round ends of a part; a single value gets some room on both sides. */
function niceEnds(low: number, high: number, gap: number): readonly [number, number] {
  const room = high > low ? (high - low) * 0.08 : Math.min(gap * 0.1, Math.abs(low) * 0.1 || gap * 0.1);
  // A part without negative values does not extend below zero.
  const from = low >= 0 ? Math.max(0, low - room) : low - room;
  const [a, b] = scaleLinear()
    .domain([from, high + room])
    .nice(3)
    .domain();
  return b - a < gap ? [a, b] : [from, high + room];
}
