import { endpoint } from '../http/endpoint';
import { answerReading } from '../readings/answerReading';

export const watchEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/on-watch',
    access: 'viewer',
    summary: 'Everything that needs a person now.',
    answer:
      '{ now, plants, alarms (standing), flags (open), indicators (worst first), silentFeeds (metrics whose feed went quiet), rulesOn ({ [metricId]: how many alarm rules see nothing }) }',
    handle: (call) => answerReading(call, 'onWatch', null),
  }),
];
