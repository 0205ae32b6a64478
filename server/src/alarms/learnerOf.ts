import type { AlarmModel } from '@vivid-beacon/core/src/engine';
import { readAsServer } from '../db/reader';
import type { AppContext } from '../http/appContext';
import { learningReading } from './readings';
import { computeReading } from '../readings/answerReading';
import type { Learner } from './learn';

/** Learns here, or in a thread of its own where that is long. */
export function learnerOf(app: AppContext): Learner {
  return async (ask) => {
    const answer = await computeReading({ app, db: readAsServer(app.pool) }, learningReading, ask);
    if ('here' in answer) return answer.here;
    return JSON.parse(new TextDecoder().decode(answer.made.bytes)) as AlarmModel | null;
  };
}
