import type { Interval } from '../time/interval';
import { differenceOf, intersectionOf, lengthOf, unionOf } from '../time/intervals';
import { workingTime, type WorkingCalendar } from './workingCalendar';

/** A status that a job took at a time. */
export interface StatusChange {
  readonly at: number;
  readonly status: string;
}

/**
 * How long a job took in working time, leaving out the time it stood in a status that stops the clock
 * (for example while the customer has the ball).
 *
 * @param job      `end` null = still open, counted up to `now`.
 * @param history  in order of time; a status holds until the next.
 * @param stopping statuses that stop the clock.
 * @returns ms.
 */
export function workingDuration(
  job: { readonly start: number; readonly end: number | null },
  history: readonly StatusChange[],
  stopping: ReadonlySet<string>,
  calendar: WorkingCalendar,
  zone: string,
  now: number,
): number {
  const end = job.end ?? now;
  if (end <= job.start) return 0;
  const whole = { start: job.start, end };
  const stopped: Interval[] = history.flatMap(({ at, status }, i) =>
    stopping.has(status) ? [{ start: at, end: history[i + 1]?.at ?? end }] : [],
  );
  const running = differenceOf([whole], intersectionOf(unionOf(stopped), [whole]));
  return lengthOf(intersectionOf(workingTime(calendar, whole, zone), running));
}
