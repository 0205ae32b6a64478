import type { Interval } from './interval';
import { DAY_MS } from './lengths';
import { plusPeriods, DEFAULT_RULES, type PeriodRules } from './periodStart';
import { resolveWindow } from './window';
import { type WindowSpec } from './windowSpec';
import { zoneClock } from './zoneClock';

/**
 * The window next to a window, as long as it by the calendar: the month before a month, the seven days after
 * seven days. An unfinished period counts as a whole one.
 *
 * @param step how many windows further; negative = earlier.
 */
export function shiftWindow(
  spec: WindowSpec,
  step: number,
  now: number,
  zone: string,
  rules: PeriodRules = DEFAULT_RULES,
): Interval {
  const { start, end } = resolveWindow(spec, now, zone, rules);
  if (spec.kind === 'rolling' || spec.kind === 'absolute') {
    const whole = wholePeriods({ start, end }, zone);
    if (!whole) return { start: start + step * (end - start), end: end + step * (end - start) };
    const move = (t: number): number => plusPeriods(t, step * whole.count, whole.unit, zone);
    return { start: move(start), end: move(end) };
  }
  const count = spec.kind === 'toDate' ? 1 : spec.count;
  const from = plusPeriods(start, step * count, spec.unit, zone);
  return { start: from, end: plusPeriods(from, count, spec.unit, zone) };
}

/** Between two starts of local days: whole months where both are the first of one, else whole days. */
function wholePeriods(
  { start, end }: Interval,
  zone: string,
): { unit: 'month' | 'day'; count: number } | null {
  const { dayAt, startOfDay } = zoneClock(zone);
  const [from, to] = [dayAt(start), dayAt(end)];
  if (startOfDay(from) !== start || startOfDay(to) !== end) return null;
  const [a, b] = [new Date(from), new Date(to)];
  if (a.getUTCDate() === 1 && b.getUTCDate() === 1) {
    const years = b.getUTCFullYear() - a.getUTCFullYear();
    return { unit: 'month', count: years * 12 + b.getUTCMonth() - a.getUTCMonth() };
  }
  return { unit: 'day', count: Math.round((to - from) / DAY_MS) };
}
