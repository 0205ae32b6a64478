import { readAsServer } from '../db/reader';
import type { AppContext } from '../http/appContext';
import { readInProcess } from '../readings/answerReading';
import type { RulePast } from './rulePast';
import { learningReading, periodsReading } from './readings';

/** Reads in this thread, or in a worker thread if it takes long. */
export function rulePastOf(app: AppContext): RulePast {
  const asked = { app, db: readAsServer(app.pool) };
  return {
    learn: (ask) => readInProcess(asked, learningReading, ask),
    periods: (ask) => readInProcess(asked, periodsReading, ask),
  };
}
