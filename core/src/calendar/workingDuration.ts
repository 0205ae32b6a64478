import type { Interval } from '../time/interval';
import { differenceOf, intersectionOf, lengthOf, unionOf } from '../time/intervals';

/** A change of a job's status. */
export interface StatusChange {
  readonly at: number;
  readonly status: string;
}

/**
 * Duration of a job in working time, without the time in statuses that stop the clock (for example while
 * waiting for the customer).
 *
 * @param job `end` null = still open, counted up to `now`.
 * @param history in order of time; a status holds until the next.
 * @param stopping statuses that stop the clock.
 * @param working working time over at least the whole job, disjoint and in order of time; see workingTime. It
 * is handed in because many jobs of one desk share it.
 * @returns ms.
 */
export function workingDuration(
  job: { readonly start: number; readonly end: number | null },
  history: readonly StatusChange[],
  stopping: ReadonlySet<string>,
  working: readonly Interval[],
  now: number,
): number {
  const end = job.end ?? now;
  if (end <= job.start) return 0;
  const whole = { start: job.start, end };
  const stopped: Interval[] = history.flatMap(({ at, status }, i) =>
    stopping.has(status) ? [{ start: at, end: history[i + 1]?.at ?? end }] : [],
  );
  const running = differenceOf([whole], intersectionOf(unionOf(stopped), [whole]));
  return lengthOf(intersectionOf(touching(working, whole), running));
}

/** The intervals that overlap a given one. */
function touching(all: readonly Interval[], { start, end }: Interval): readonly Interval[] {
  const first = firstWhere(all.length, (i) => all[i].end > start);
  return all.slice(
    first,
    firstWhere(all.length, (i) => all[i].start >= end),
  );
}

/** First index from which a condition holds. */
function firstWhere(length: number, holds: (index: number) => boolean): number {
  let [low, high] = [0, length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(middle)) high = middle;
    else low = middle + 1;
  }
  return low;
}
