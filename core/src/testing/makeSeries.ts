import type { MetricReading } from '../domain/metric';
import { seriesOf, type Series } from '../series/series';

export const MINUTE = 60_000;
export const ONE_HOUR = 3_600_000;
export const ONE_DAY = 86_400_000;

/** Samples one minute apart from `start`. */
export function minutely(values: readonly number[], start = 0): Series {
  return seriesOf(
    values.map((_, i) => start + i * MINUTE),
    values,
  );
}

export const LEVEL: MetricReading = {
  kind: 'level',
  intervalMs: MINUTE,
  maxGapMs: 10 * MINUTE,
  rollover: null,
};
export const AMOUNT: MetricReading = { ...LEVEL, kind: 'amount' };
export const REGISTER: MetricReading = { ...LEVEL, kind: 'register' };
export const STATE: MetricReading = { ...LEVEL, kind: 'state' };
