import * as yup from 'yup';
import { pageFields, searchText } from '../schemas/lists';
import { amount, amountOrNull, named, shape, text, textOrNull, type TypeOf } from '../schemas/shape';
import { pageOf } from './assets';
import { contracts, json, nothing } from './contract';

const removedMetric = named(
  'RemovedMetric',
  shape({
    id: text(),
    /** As it was called. */
    name: text(),
    assetName: text(),
    plantName: text(),
    zone: text(),
    unit: text(),
    removedAt: amount(),
    samples: amount(),
    /** UTC days of the first and the last sample, ms; null = there is none. */
    firstDay: amountOrNull(),
    lastDay: amountOrNull(),
    /** Alarms it had, over or not. */
    alarms: amount(),
    /** Why it cannot be restored; null = it can. */
    taken: textOrNull(),
  }),
);
/** A metric that was removed, with all its data. */
export type RemovedMetric = TypeOf<typeof removedMetric>;

export const removedMetricsApi = contracts({
  'GET /api/removed-metrics': {
    access: 'analyst',
    summary: 'Metrics that were removed and whose data are still there, the newest first.',
    query: yup.object({ search: searchText(), ...pageFields() }).noUnknown(),
    answer: json(pageOf(removedMetric)),
  },
  'POST /api/removed-metrics/:id/restoration': {
    access: 'analyst',
    summary: 'Restores a removed metric with its data. Rules that were withdrawn with it stay withdrawn.',
    answer: nothing,
    errors: {
      404: 'NOT_FOUND for a metric that was not removed',
      409: 'WRONG_STATE when another metric of the asset bears its name now',
    },
  },
  'DELETE /api/removed-metrics/:id': {
    access: 'administrator',
    summary: 'Erases a removed metric with its samples, aggregates and alarms for good.',
    query: yup
      .object({ name: yup.string().max(200).required('Type the name of the metric to confirm') })
      .noUnknown(),
    answer: nothing,
    errors: {
      404: 'NOT_FOUND for a metric that was not removed',
      422: 'BAD_INPUT when the name is not that of the metric',
    },
  },
});
