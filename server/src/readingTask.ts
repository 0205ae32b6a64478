import { workerData } from 'piscina';
import { openPool } from './db/database';
import { budgetAtAll, withBudget } from './db/readBudget';
import { readAs, type Caller } from './db/reader';
import { asTask, type TaskResult } from './workers/workerPool';
import { madeOf, type MadeAnswer } from './readings/answerReading';
import { readContext } from './readings/readContext';
import { READINGS } from './readings';

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
  name: string;
  ask: unknown;
  now: number;
  asker: Caller;
}): Promise<TaskResult<MadeAnswer>> {
  return asTask(async () => {
    const work = READINGS.get(name);
    if (!work) throw new Error(`There is no reading "${name}": does it stand in the list of readings?`);
    const reader = readAs(pool, asker);
    const bounded = work.unbounded ? reader : withBudget(reader, budgetAtAll());
    return madeOf(await work.read(readContext(bounded, now), ask as never));
  });
}
