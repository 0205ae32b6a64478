import { DateTime } from 'luxon';
import type { Interval } from '../time/interval';
import { pointSpan } from './chartPoints';

/** Calendar periods over which consumption is counted. */
export const CONSUMPTION_PERIODS = ['hour', 'day', 'month', 'year'] as const;
export type ConsumptionPeriod = (typeof CONSUMPTION_PERIODS)[number];

/**
 * The local hour, day, month or year that holds an instant.
 * @example consumptionSpan(Date.UTC(2026, 10, 19, 6, 40), 'hour', 'UTC').start // => Date.UTC(2026, 10, 19, 6)
 */
export function consumptionSpan(t: number, per: ConsumptionPeriod, zone: string): Interval {
  if (per === 'hour' || per === 'day') return pointSpan(t, per, zone);
  const start = DateTime.fromMillis(t, { zone }).startOf(per);
  return { start: start.toMillis(), end: start.plus({ [per]: 1 }).toMillis() };
}
