import type { AlarmModel } from '@vivid-beacon/core/src/engine';
import { readAsServer } from '../db/reader';
import type { AppContext } from '../http/appContext';
import { computeReading } from '../readings/answerReading';
import type { Learner } from './learn';

/** Learns here, or in a thread of its own where that is long. */
export function learnerOf(app: AppContext): Learner {
  return async (ask) => {
    const answer = await computeReading({ app, db: readAsServer(app.pool) }, 'learning', ask);
    if ('here' in answer) return answer.here as AlarmModel | null;
    return JSON.parse(new TextDecoder().decode(answer.made.bytes)) as AlarmModel | null;
  };
}
