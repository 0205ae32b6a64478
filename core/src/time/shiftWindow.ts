import { DateTime } from 'luxon';
import type { Interval } from './interval';
import { plusPeriods, DEFAULT_RULES, type PeriodRules } from './periodStart';
import { resolveWindow } from './window';
import { type WindowSpec } from './windowSpec';

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
    const move = (t: number): number =>
      DateTime.fromMillis(t, { zone })
        .plus({ [whole.unit]: step * whole.count })
        .toMillis();
    return { start: move(start), end: move(end) };
  }
  const count = spec.kind === 'toDate' ? 1 : spec.count;
  const first = DateTime.fromMillis(start, { zone });
  const from = plusPeriods(first, step * count, spec.unit);
  return { start: from.toMillis(), end: plusPeriods(from, count, spec.unit).toMillis() };
}

/** Between two local midnights: whole months where both are the first of one, else whole days. */
function wholePeriods(
  { start, end }: Interval,
  zone: string,
): { unit: 'months' | 'days'; count: number } | null {
  const [a, b] = [start, end].map((t) => DateTime.fromMillis(t, { zone }));
  if (!a.equals(a.startOf('day')) || !b.equals(b.startOf('day'))) return null;
  if (a.day === 1 && b.day === 1)
    return { unit: 'months', count: (b.year - a.year) * 12 + b.month - a.month };
  return { unit: 'days', count: Math.round(b.diff(a, 'days').days) };
}
