import type { Interval } from '../time/interval';
import { plusPeriods, startOfPeriod } from '../time/periodStart';

/** Calendar periods over which consumption is counted. */
export const CONSUMPTION_PERIODS = ['hour', 'day', 'month', 'year'] as const;
export type ConsumptionPeriod = (typeof CONSUMPTION_PERIODS)[number];

/**
 * The local hour, day, month or year that holds an instant.
 * @example consumptionSpan(Date.UTC(2026, 10, 19, 6, 40), 'hour', 'UTC').start // => Date.UTC(2026, 10, 19, 6)
 */
export function consumptionSpan(t: number, per: ConsumptionPeriod, zone: string): Interval {
  const start = startOfPeriod(t, per, zone);
  return { start, end: plusPeriods(start, 1, per, zone) };
}
