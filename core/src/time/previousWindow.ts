import type { Interval } from './interval';
import { resolveWindow, type WindowSpec } from './window';

/**
 * The window to compare with: the period before for calendar windows, the same length before for others.
 * While a window is unfinished only as much of the one before is taken as has passed of this one, so that
 * half a day is never set against a whole one.
 */
export function previousWindow(spec: WindowSpec, now: number, zone: string): Interval {
  const window = resolveWindow(spec, now, zone);
  const elapsed = Math.min(window.end, Math.max(now, window.start)) - window.start;
  const calendar = spec.kind === 'toDate' || spec.kind === 'periods';
  if (!calendar) {
    return { start: window.start - (window.end - window.start), end: window.start };
  }
  const before =
    spec.kind === 'toDate'
      ? resolveWindow(spec, window.start - 1, zone)
      : resolveWindow({ ...spec, current: true }, window.start - 1, zone);
  return { start: before.start, end: Math.min(before.end, before.start + elapsed) };
}
