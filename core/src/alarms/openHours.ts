import { layOutHours } from '../time/hours';
import type { Interval } from '../time/interval';
import { DAY_MS } from '../time/lengths';
import type { AlarmCondition } from './condition';

const ALWAYS: readonly Interval[] = [{ start: -Infinity, end: Infinity }];

/**
 * The stretches in which a condition watches, as far as they touch [from, to]. Those that hold `from` may begin
 * later than they really do; no end is cut short before `to`.
 */
export function openHours(
  { hours, site }: Pick<AlarmCondition, 'hours' | 'site'>,
  from: number,
  to: number,
): readonly Interval[] {
  if (hours === null) return ALWAYS;
  // From when the rule came into force at most, so that no count is needed.
  return layOutHours(hours, { start: from, end: to + DAY_MS }, site.zone, site.calendar);
}
