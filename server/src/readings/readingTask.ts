import { workerData } from 'piscina';
import { openPool } from '../db/database';
import { budgetAtAll, withBudget, type ReadBudget } from '../db/readBudget';
import { readAs, type Asker } from '../db/reader';
import { asTask, type TaskResult } from '../workers/workerPool';
import { madeOf, type MadeAnswer } from './answerReading';
import { readContext } from './readContext';
import { READINGS, UNBOUNDED, type Reading, type ReadingName } from './readings';

const NO_BOUND: ReadBudget = { left: Infinity, over: () => new Error('never') };
const CONNECTIONS = 2;

const { databaseUrl } = workerData as { databaseUrl: string };
const pool = openPool(databaseUrl, () => undefined, { connections: CONNECTIONS, name: 'vivid-beacon long' });

/** Task of a worker: one of the readings, with connections of its own. */
export function read({
  name,
  ask,
  now,
  asker,
}: {
  name: ReadingName;
  ask: unknown;
  now: number;
  asker: Asker;
}): Promise<TaskResult<MadeAnswer>> {
  return asTask(async () => {
    const budget = UNBOUNDED.has(name) ? NO_BOUND : budgetAtAll();
    const work = READINGS[name] as Reading<unknown>;
    return madeOf(await work(readContext(withBudget(readAs(pool, asker), budget), now), ask));
  });
}
