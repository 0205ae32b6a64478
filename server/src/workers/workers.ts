import { availableParallelism } from 'node:os';
import { WorkerPool } from './workerPool';

/** Long work that must not hold the thread that answers everybody. */
export interface Workers {
  /** Files that are written: {@link file://./../exports/exportTask.ts}. */
  readonly exports: WorkerPool;
  /** Readings that are long: {@link file://./../readings/readingTask.ts}. */
  readonly readings: WorkerPool;
  /** Calendars that are read: {@link file://./../calendars/calendarTask.ts}. */
  readonly calendars: WorkerPool;
  readonly close: () => Promise<void>;
}

/** Kinds of work have threads of their own: a slow receiver of an export does not hold up a calendar. */
export function openWorkers(databaseUrl: string): Workers {
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
    calendars,
    close: async () => {
      await Promise.all([exports.close(), readings.close(), calendars.close()]);
    },
  };
}
