import { layOutHours } from '../time/hours';
import type { Interval } from '../time/interval';
import { DAY_MS } from '../time/lengths';
import type { AlarmCondition } from './condition';

const ALWAYS: readonly Interval[] = [{ start: -Infinity, end: Infinity }];

/**
 * The stretches of [from, to] in which the condition is evaluated. The first may begin later than it really
 * does; no stretch is cut off before `to`.
 */
export function openHours(
  { hours, site }: Pick<AlarmCondition, 'hours' | 'site'>,
  from: number,
  to: number,
): readonly Interval[] {
  if (hours === null) return ALWAYS;
  // Bounded by the time the rule came into force, so that no budget is needed.
  return layOutHours(hours, { start: from, end: to + DAY_MS }, site.zone, site.calendar);
}
