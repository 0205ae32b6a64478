import { referenceMetricSchema, referenceValuesSchema } from '../schemas/reference';
import { amount, list, shape, text, type TypeOf } from '../schemas/shape';
import { contracts, json } from './contract';
import { metric } from './metrics';

/** One value of a reference series; `start` is the local first day of its period, "2026-11-01". */
const referenceValue = shape({ start: text(), value: amount() });
export type ReferenceValue = TypeOf<typeof referenceValue>;

export type ReferenceInput = TypeOf<typeof referenceMetricSchema>;

export const referenceApi = contracts({
  'POST /api/reference-series': {
    access: 'analyst',
    summary:
      'Adds a reference series: one value per period, such as a monthly budget (amount) or a floor area (level).',
    body: referenceMetricSchema,
    answer: json(metric),
    errors: { 422: 'BAD_INPUT when the asset has a metric of this name' },
  },
  'GET /api/reference-series/:id/values': {
    access: 'viewer',
    summary: 'The values of a reference series.',
    answer: json(list(referenceValue), 'start: local first day of the period'),
  },
  'PUT /api/reference-series/:id/values': {
    access: 'analyst',
    summary:
      'Sets values by period; null removes one. Other periods stay. A period is named by any day in it.',
    body: referenceValuesSchema,
    limit: 2_000_000,
    answer: json(list(referenceValue), 'as stored'),
    errors: { 422: 'BAD_INPUT names a date that does not exist' },
  },
});
