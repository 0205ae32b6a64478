import * as yup from 'yup';
import { finite, windowSchema, type DegreeDaysAsk } from '@vivid-beacon/core';
import { DEGREE_DAY_METHODS } from '@vivid-beacon/core/src/engine';
import { endpoint } from '../http/endpoint';
import { answerReading } from '../readings/answerReading';

export const feedEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/metrics/:id/coverage',
    access: 'viewer',
    summary: 'How much of each local day a metric has usable data for.',
    answer:
      '{ zone, day: [] (ms, local midnight), coverage: [] (0 to 1), samples: [] }, oldest first, today last',
    query: yup.object({ days: yup.number().integer().min(1).max(1000).default(90) }).noUnknown(),
    handle: (call) => answerReading(call, 'coverage', { metricId: call.params.id, days: call.query.days }),
  }),
  endpoint({
    method: 'post',
    path: '/api/metrics/:id/degree-days',
    access: 'viewer',
    summary:
      'Degree days of an outside temperature by local day, with the methods named in core/src/degreeDays.',
    answer:
      '{ zone, day: [] (ms), degreeDays: [] (null = too little data), total, missing }; in the unit of the temperature times days',
    body: yup
      .object({
        window: windowSchema.required(),
        base: finite().required('Give the base temperature'),
        kind: yup
          .string()
          .oneOf(['heating', 'cooling'] as const)
          .required(),
        method: yup
          .string()
          .oneOf([...DEGREE_DAY_METHODS])
          .default('mean'),
      })
      .noUnknown(),
    handle: (call) =>
      answerReading(call, 'degreeDays', {
        ...(call.body as unknown as DegreeDaysAsk),
        metricId: call.params.id,
      }),
  }),
];
