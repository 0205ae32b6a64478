import Piscina from 'piscina';
import { BeaconError } from '@vivid-beacon/core';
import { databaseAway, isDatabaseAway } from '../db/databaseAway';

/** What a task gives back: its result, or what it refuses, which loses its class on the way between threads. */
export type TaskResult<T> =
  | { readonly result: T }
  | { readonly refused: Pick<BeaconError, 'code' | 'message' | 'path' | 'retryAfterS'> };

/** Runs the body of a task and turns a refusal into something that can be sent. */
export async function asTask<T>(work: () => T | Promise<T>): Promise<TaskResult<T>> {
  try {
    return { result: await work() };
  } catch (error) {
    const known = isDatabaseAway(error) ? databaseAway() : error;
    if (!(known instanceof BeaconError)) throw error;
    const { code, message, path, retryAfterS } = known;
    return { refused: { code, message, path, retryAfterS } };
  }
}

/** Threads of one kind of long work, so that it holds nobody else. */
export class WorkerPool {
  private readonly pool: Piscina;

  /** @param file module whose exported functions are the tasks. */
  constructor(
    file: URL,
    private readonly limits: {
      readonly threads: number;
      /** Tasks of one thread that take turns while they wait for the database; default 1. */
      readonly atOnce?: number;
      /** Threads that start at once and stay; default 0: they start with the first task. */
      readonly kept?: number;
      readonly waiting: number;
    },
    /** Told of a thread that died outside of a task; another takes its place. */
    onError: (error: Error) => void,
    /** What the module reads as its workerData. */
    given: object = {},
  ) {
    this.pool = new Piscina({
      filename: new URL('./typescriptTask.mjs', import.meta.url).href,
      workerData: { ...given, module: file.href },
      execArgv: [],
      minThreads: limits.kept ?? 0,
      maxThreads: limits.threads,
      concurrentTasksPerWorker: limits.atOnce ?? 1,
      idleTimeout: 300_000,
      recordTiming: false,
    });
    this.pool.on('error', onError);
  }

  /**
   * Runs a task of the module.
   *
   * @param signal ends the task, with its thread.
   * @throws {BeaconError} what the task refuses; TOO_MANY when too many wait already.
   */
  async run<T>(
    name: string,
    data: unknown,
    { transfer = [], signal }: { transfer?: readonly MessagePortLike[]; signal?: AbortSignal } = {},
  ): Promise<T> {
    if (this.pool.queueSize >= this.limits.waiting) {
      throw new BeaconError(
        'TOO_MANY',
        'Too many of these requests at once. Try again in 5 s.',
        undefined,
        5,
      );
    }
    const answer = (await this.pool.run(
      { name, data },
      { transferList: transfer as never, signal },
    )) as TaskResult<T>;
    if ('result' in answer) return answer.result;
    const { code, message, path, retryAfterS } = answer.refused;
    throw new BeaconError(code, message, path, retryAfterS);
  }

  close(): Promise<void> {
    return this.pool.destroy();
  }
}

type MessagePortLike = import('node:worker_threads').MessagePort;
