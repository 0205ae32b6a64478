import { watchApi } from '@vivid-beacon/core/src/api/watch';
import { endpoints } from '../http/endpoint';
import { onWatchReading } from './readings';
import { answerReading } from '../readings/answerReading';

export const watchEndpoints = endpoints(watchApi, {
  'GET /api/on-watch': (call) => answerReading(call, onWatchReading, undefined),
});
