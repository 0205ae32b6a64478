import type { Interval } from '@vivid-beacon/core';

/** A window of time laid out on an element: from `left`, `width` px wide. */
export interface PlotView {
  readonly window: Interval;
  readonly left: number;
  readonly width: number;
}

/** The time at a place of the element, ms; beyond the plot too. */
export function timeOf({ window, left, width }: PlotView, px: number): number {
  return window.start + ((px - left) / width) * (window.end - window.start);
}

/** What is shown when the time that lay at one place is pulled to another. */
export function movedView(view: PlotView, from: number, to: number): Interval {
  const by = timeOf(view, from) - timeOf(view, to);
  return { start: Math.round(view.window.start + by), end: Math.round(view.window.end + by) };
}

/**
 * What is shown when two fingers take the times under them along.
 *
 * @param from @param to places of the two fingers, px, the left one first.
 * @returns null while the fingers lie on one another.
 */
export function pinchedView(
  view: PlotView,
  from: readonly [number, number],
  to: readonly [number, number],
): Interval | null {
  if (to[1] - to[0] < 1 || from[1] - from[0] < 1) return null;
  const [a, b] = from.map((px) => timeOf(view, px));
  const msPerPx = (b - a) / (to[1] - to[0]);
  const start = a - (to[0] - view.left) * msPerPx;
  return { start: Math.round(start), end: Math.round(start + view.width * msPerPx) };
}
