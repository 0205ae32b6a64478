import { endpoint } from '../http/endpoint';
import { answerReading } from '../readings/answerReading';

export const watchEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/on-watch',
    access: 'viewer',
    summary: 'Everything that needs a person now.',
    answer:
      '{ now, plants, alarms (standing), flags (open), indicators (worst first), silent ({ feeds: the first hundred metrics whose feed went quiet, count: how many by plant }), rulesOn ({ [metricId]: how many alarm rules see nothing }) }',
    handle: (call) => answerReading(call, 'onWatch', null),
  }),
];
