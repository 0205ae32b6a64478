import { DateTime } from 'luxon';
import type { Interval } from '../time/interval';
import type { ConsumptionPeriod } from './alarmTest';
import { pointSpan } from './chartPoints';

/** The local hour, day, month or year that holds an instant. */
export function consumptionSpan(t: number, per: ConsumptionPeriod, zone: string): Interval {
  if (per === 'hour' || per === 'day') return pointSpan(t, per, zone);
  const start = DateTime.fromMillis(t, { zone }).startOf(per);
  return { start: start.toMillis(), end: start.plus({ [per]: 1 }).toMillis() };
}
