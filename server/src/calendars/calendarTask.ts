import type { Holiday } from '@vivid-beacon/core';
import { asTask, type TaskResult } from '../workers/workerPool';
import { holidaysOfCalendar } from './icalendar';

/** Task of a worker: see {@link holidaysOfCalendar}. */
export function readCalendar(given: {
  text: string;
  zone: string;
  now: number;
}): Promise<TaskResult<Holiday[]>> {
  return asTask(() => holidaysOfCalendar(given.text, given.zone, given.now));
}

/** Task of a worker: only so that its thread has started. */
export function start(): Promise<TaskResult<null>> {
  return asTask(() => null);
}
