import type { MetricReading } from '../domain/metric';
import type { Series } from '../series/series';
import type { Interval } from '../time/interval';
import { aggregate } from './aggregate';

/** ms of the window with usable data. Missing samples cover nothing. */
export function coveredMs(series: Series, reading: MetricReading, window: Interval): number {
  if (window.end <= window.start) return 0;
  return aggregate(series, reading, { start: [window.start], end: [window.end], into: [0] }, 1).heldMs[0];
}
