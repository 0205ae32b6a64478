import { amount, shape, type TypeOf, named } from '../schemas/shape';

/** A half-open stretch of time [start, end), ms since the Unix epoch. */
export const intervalSchema = named('Interval', shape({ start: amount(), end: amount() }));
export type Interval = TypeOf<typeof intervalSchema>;

/**
 * Overlap of two intervals, ms.
 * @example overlapMs({ start: 0, end: 5 }, { start: 3, end: 8 }) // => 2
 */
export function overlapMs(a: Interval, b: Interval): number {
  return Math.max(0, Math.min(a.end, b.end) - Math.max(a.start, b.start));
}
