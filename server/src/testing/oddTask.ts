import { BeaconError } from '@vivid-beacon/core';
import { asTask, type TaskResult } from '../workers/workerPool';

/* Tasks of a worker for the test of the pool. */

export function double(n: number): Promise<TaskResult<number>> {
  return asTask(() => n * 2);
}

export function refuse(): Promise<TaskResult<never>> {
  return asTask(() => {
    throw new BeaconError('TOO_MANY', 'Not now.', 'field', 7);
  });
}

export function loseDatabase(): Promise<TaskResult<never>> {
  return asTask(() => {
    throw Object.assign(new Error('connect'), { code: 'ECONNREFUSED' });
  });
}

export function fail(): Promise<TaskResult<never>> {
  return asTask(() => {
    throw new Error('a mistake of the program');
  });
}

/** Ends its thread outside any promise, so that nobody catches the error. */
export function die(): Promise<TaskResult<never>> {
  setTimeout(() => {
    throw new Error('nobody catches this');
  }, 5);
  return new Promise(() => undefined);
}

export function spin(ms: number): Promise<TaskResult<null>> {
  return asTask(() => {
    const until = performance.now() + ms;
    while (performance.now() < until);
    return null;
  });
}
