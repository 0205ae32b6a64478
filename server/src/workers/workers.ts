import { availableParallelism } from 'node:os';
import { WorkerPool } from './workerPool';

/** Batches of the same metrics wait for one another, so more of them at once are not quicker. */
export const PUSHES_AT_ONCE = 2;

/** Long work that must not hold the thread that answers everybody. */
export interface Workers {
  /** Files that are written: {@link file://./../exports/exportTask.ts}. */
  readonly exports: WorkerPool;
  /** Readings that are long: {@link file://./../readings/readingTask.ts}. */
  readonly readings: WorkerPool;
  /** Pushes: {@link file://./../samples/pushTask.ts}; null = they are taken where everybody is answered. */
  readonly pushes: WorkerPool | null;
  /** Calendars that are read: {@link file://./../calendars/calendarTask.ts}. */
  readonly calendars: WorkerPool;
  readonly close: () => Promise<void>;
}

/** Kinds of work have threads of their own: a slow receiver of an export does not hold up a calendar. */
export function openWorkers(databaseUrl: string, kinds: { readonly pushes: boolean }): Workers {
  const pushes = kinds.pushes
    ? new WorkerPool(
        new URL('../samples/pushTask.ts', import.meta.url),
        { threads: 1, atOnce: PUSHES_AT_ONCE, waiting: Infinity },
        { databaseUrl },
      )
    : null;
  const readings = new WorkerPool(
    new URL('../readings/readingTask.ts', import.meta.url),
    { threads: Math.max(1, availableParallelism() - 1), waiting: 16 },
    { databaseUrl },
  );
  const exports = new WorkerPool(new URL('../exports/exportTask.ts', import.meta.url), {
    threads: 2,
    waiting: 8,
  });
  const calendars = new WorkerPool(new URL('../calendars/calendarTask.ts', import.meta.url), {
    threads: 1,
    waiting: 8,
  });
  return {
    exports,
    readings,
    pushes,
    calendars,
    close: async () => {
      await Promise.all([exports.close(), readings.close(), pushes?.close(), calendars.close()]);
    },
  };
}
