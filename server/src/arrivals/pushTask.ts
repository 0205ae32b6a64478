import { readlinkSync } from 'node:fs';
import { setPriority } from 'node:os';
import { workerData } from 'piscina';
import type { PushAnswer } from '@vivid-beacon/core';
import { openPool } from '../db/database';
import type { UsedToken } from '../http/appContext';
import { asTask, type TaskResult } from '../workers/workerPool';
import { PUSHES_AT_ONCE } from '../workers/workers';
import { takeInProcess, type SentPush } from './takePush';

yieldToOthers();
const { databaseUrl } = workerData as { databaseUrl: string };
const pool = openPool(databaseUrl, () => undefined, {
  connections: PUSHES_AT_ONCE + 1,
  name: 'vivid-beacon pushes',
});

/** Task of a worker: takes one push. */
export function take({
  token,
  sent,
  now,
}: {
  token: UsedToken;
  sent: SentPush;
  now: number;
}): Promise<TaskResult<PushAnswer>> {
  return asTask(() => takeInProcess({ pool, now: () => now }, token, sent));
}

/** On Linux, threads have their own priority: readers come first. */
function yieldToOthers(): void {
  try {
    const thread = Number(readlinkSync('/proc/thread-self').split('/').at(-1));
    setPriority(thread, 2);
  } catch {
    // Elsewhere all are alike.
  }
}
