import type { Flag } from '../../domain/flags';
import type { Interval } from '../../time/interval';

/** A flag on the time axis of a trend: at the start of its evidence, or when it was handed out. */
export interface FlagMark {
  readonly id: string;
  readonly at: number;
  /** The stretch of time it refers to. */
  readonly about: Interval;
  readonly title: string;
  readonly open: boolean;
}

/** Length given to a moment, so that the nearest point of a trend reports it. */
const MOMENT_MS = 900_000;

export function flagMarks(flags: readonly Flag[]): FlagMark[] {
  return flags.map(({ id, title, evidence, createdAt, closedAt }) => {
    const about = evidence?.window ?? { start: createdAt, end: createdAt + MOMENT_MS };
    return { id, at: about.start, about, title, open: closedAt === null };
  });
}

/** Flags that refer to a moment. */
export function flagsAt(flags: readonly FlagMark[], t: number): FlagMark[] {
  return flags.filter(({ about }) => about.start <= t && t < about.end);
}
