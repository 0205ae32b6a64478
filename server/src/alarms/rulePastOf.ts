import { readAsServer } from '../db/reader';
import type { AppContext } from '../http/appContext';
import { learningReading } from './readings';
import { readInProcess } from '../readings/answerReading';
import type { Learner } from './learn';

/** Learns in this thread, or in a worker thread if it takes long. */
export function learnerOf(app: AppContext): Learner {
  return (ask) => readInProcess({ app, db: readAsServer(app.pool) }, learningReading, ask);
}
