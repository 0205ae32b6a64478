import { feedsApi } from '@vivid-beacon/core/src/api/metrics';
import { endpoints } from '../http/endpoint';
import { coverageReading, degreeDaysReading } from './readings';
import { answerReading } from '../readings/answerReading';

export const feedEndpoints = endpoints(feedsApi, {
  'GET /api/metrics/:id/coverage': (call) =>
    answerReading(call, coverageReading, { metricId: call.params.id, days: call.query.days }),

  'POST /api/metrics/:id/degree-days': (call) =>
    answerReading(call, degreeDaysReading, {
      ...call.body,
      metricId: call.params.id,
    }),
});
