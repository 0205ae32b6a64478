import * as alarms from './alarms/readings';
import * as derived from './derived/readings';
import * as feeds from './feeds/readings';
import * as indicators from './indicators/readings';
import type { ReadingHandler } from './readings/readingHandler';
import * as own from './readings/readings';
import * as watch from './watch/readings';

/** Everything that is computed from samples for somebody who waits, by name: what a thread may be asked for. */
export const READINGS: ReadonlyMap<string, ReadingHandler<never, unknown>> = new Map(
  [own, alarms, derived, feeds, indicators, watch].flatMap((subject) =>
    Object.values(subject).map((each: ReadingHandler<never, unknown>) => [each.name, each] as const),
  ),
);
