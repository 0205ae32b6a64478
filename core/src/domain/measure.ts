import * as yup from 'yup';
import { finite, idText } from '../schemas/parts';
import { named, type TypeOf } from '../schemas/shape';
import { ADDS_UP, SUMMARIES, type Summary } from './metric';

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

const OF_ONE_SAMPLE: ReadonlySet<Summary> = new Set([
  'mean',
  'min',
  'max',
  'first',
  'last',
  'p5',
  'p50',
  'p95',
]);

/**
 * Whether each single sample can be judged by the limits of a measure: a mean of temperatures can be compared with one
 * temperature, a sum or a ratio cannot.
 */
export function isHeld({ summary, per }: Pick<Measure, 'summary' | 'per'>): boolean {
  return per === null && OF_ONE_SAMPLE.has(summary);
}

/** Whether the values of a measure add up, over time and over assets: amounts do, means and ratios do not. */
export function addsUp({ per, summary }: Pick<Measure, 'summary' | 'per'>): boolean {
  return per === null && ADDS_UP.has(summary);
}
