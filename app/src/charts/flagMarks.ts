import type { Flag, Interval } from '@vivid-beacon/core';

/** A flag on the time line of a trend: at the start of what it points to, or when it was handed out. */
export interface FlagMark {
  readonly id: string;
  readonly at: number;
  /** The stretch of time it is about. */
  readonly about: Interval;
  readonly title: string;
  readonly open: boolean;
}

/** A moment lasts this long, so that the nearest point of a trend tells it. */
const MOMENT_MS = 900_000;

export function flagMarks(flags: readonly Flag[]): FlagMark[] {
  return flags.map(({ id, title, evidence, createdAt, closedAt }) => {
    const about = evidence?.window ?? { start: createdAt, end: createdAt + MOMENT_MS };
    return { id, at: about.start, about, title, open: closedAt === null };
  });
}

/** Flags that are about a moment. */
export function flagsAt(flags: readonly FlagMark[], t: number): FlagMark[] {
  return flags.filter(({ about }) => about.start <= t && t < about.end);
}
