import type pg from 'pg';
import { withTransaction, type Pool } from '../db/database';
import { notify, type HubMessage } from './notify';

/**
 * Changes something in one transaction and tells every server of it on commit: nobody hears of a change that is not there,
 * and no change goes unheard.
 *
 * @param topic what changed. @param idsOf which of them, from the result of the work; default: not said.
 */
export function changeAndNotify<T>(
  pool: Pool,
  topic: HubMessage['topic'] | readonly HubMessage['topic'][],
  work: (db: pg.PoolClient) => Promise<T>,
  idsOf: (result: T) => readonly string[] = () => [],
): Promise<T> {
  return withTransaction(pool, async (db) => {
    const result = await work(db);
    const topics = typeof topic === 'string' ? [topic] : topic;
    for (const each of topics) await notify(db, each, idsOf(result));
    return result;
  });
}
