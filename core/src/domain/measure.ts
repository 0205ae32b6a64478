import * as yup from 'yup';
import { finite, idText } from '../schemas/parts';
import { named, type TypeOf } from '../schemas/shape';
import { SUMMARIES } from './metric';

export const summarySchema = yup.string().oneOf(SUMMARIES).required();

/** What is measured: one metric summarised, or one per another (sum over sum). */
export const measureSchema = named(
  'Measure',
  yup
    .object({
      metricId: idText().required(),
      summary: summarySchema,
      per: yup
        .object({
          metricId: idText().required(),
          summary: summarySchema,
          /** Multiplier of the ratio; 100 for percent. */
          factor: finite().required(),
          /** Unit of the ratio; null = numerator unit / denominator unit. */
          unit: yup.string().max(40).nullable().defined(),
        })
        .noUnknown()
        .nullable()
        .default(null),
    })
    .noUnknown(),
);
/** Most measures that one readout shows. */
export const MAX_MEASURES = 20;

export type Measure = TypeOf<typeof measureSchema>;
