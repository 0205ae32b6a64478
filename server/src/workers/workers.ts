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
  /** Pictures that are drawn: {@link file://./../pictures/pictureTask.ts}. */
  readonly pictures: WorkerPool;
  readonly close: () => Promise<void>;
}

/**
 * Kinds of work have threads of their own: a slow receiver of an export does not hold up a calendar.
 *
 * @param options `pushes`: whether pushes have a thread; then one for readings starts at once too, so that the first
 *        long one need not wait for it. `onError` is told of a thread that died.
 */
export function openWorkers(
  databaseUrl: string,
  options: { readonly pushes: boolean; readonly onError: (error: Error) => void },
): Workers {
  const open = (module: string, limits: ConstructorParameters<typeof WorkerPool>[1]): WorkerPool =>
    new WorkerPool(new URL(module, import.meta.url), limits, options.onError, { databaseUrl });
  const exports = open('../exports/exportTask.ts', { threads: 2, waiting: 8 });
  const readings = open('../readingTask.ts', {
    threads: Math.max(1, availableParallelism() - 1),
    kept: options.pushes ? 1 : 0,
    waiting: 16,
  });
  const calendars = open('../calendars/calendarTask.ts', { threads: 1, waiting: 8 });
  const pictures = open('../pictures/pictureTask.ts', { threads: 1, waiting: 16 });
  const pushes = options.pushes
    ? open('../arrivals/pushTask.ts', { threads: 1, kept: 1, atOnce: PUSHES_AT_ONCE, waiting: Infinity })
    : null;
  return {
    exports,
    readings,
    calendars,
    pictures,
    pushes,
    close: async () => {
      await Promise.all([exports, readings, calendars, pictures, pushes].map((pool) => pool?.close()));
    },
  };
}
