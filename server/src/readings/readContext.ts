import type { Reader } from '../db/reader';
import { SharedReads } from './sharedReads';

/** What every question is answered with: the database as the asker may see it, the moment, and what is read already. */
export interface ReadContext {
  readonly db: Reader;
  /** ms. */
  readonly now: number;
  readonly reads: SharedReads;
}

/** For a question that is answered by itself; those of a board share their reads. */
export function readContext(db: Reader, now: number, reads = new SharedReads()): ReadContext {
  return { db, now, reads };
}
