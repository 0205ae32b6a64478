import { readAsServer } from '../db/reader';
import type { Pool } from '../db/database';
import { readContext } from '../readings/readContext';
import { learnUsual, type Learner } from './learn';
import { readPeriods, type ReadPeriods } from './readPeriods';

/** What a rule reads of the past beyond samples: what is usual, and the values of periods. */
export interface RulePast {
  readonly learn: Learner;
  readonly periods: (ask: Parameters<typeof readPeriods>[1]) => Promise<ReadPeriods>;
}

/** Reads in this thread, however long it takes. @param now what lies ahead of it has not happened, ms. */
export function pastHere(pool: Pool, now: number): RulePast {
  return {
    learn: (ask) => learnUsual(pool, ask),
    periods: (ask) => readPeriods(readContext(readAsServer(pool), now), ask),
  };
}
