import * as yup from 'yup';
import { finite, idText } from '../schemas/parts';
import { named, type TypeOf } from '../schemas/shape';
import { ADDS_UP, SUMMARIES, type Summary } from './metric';

export const summarySchema = yup.string().oneOf(SUMMARIES).required();

/** The attribute by which a measure is divided, such as "Floor area (m²)"; null or left out = none. */
export const perAttributeField = () => yup.string().trim().min(1).max(100).nullable().optional();
export const DIVIDED_ONCE = '${path}: a measure is per another metric or per an attribute, not both';
export const isDividedOnce = (
  measure?: { per?: object | null; perAttribute?: string | null } | null,
): boolean => measure?.per == null || measure.perAttribute == null;

/** What is measured: one metric summarised; or one per another (sum over sum), or per an attribute of its assets. */
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
      perAttribute: perAttributeField(),
    })
    .noUnknown()
    .test('one divisor', DIVIDED_ONCE, isDividedOnce),
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
export function isHeld({ summary, per, perAttribute = null }: Divided): boolean {
  return per === null && perAttribute === null && OF_ONE_SAMPLE.has(summary);
}

type Divided = Pick<Measure, 'summary' | 'per' | 'perAttribute'>;

/** Whether the values of a measure add up over time: amounts do, means and ratios do not. */
export function addsUp({ per, summary }: Pick<Measure, 'summary' | 'per'>): boolean {
  return per === null && ADDS_UP.has(summary);
}

/** Whether the values of a measure add up over assets to a whole: what is divided by each one's floor area does not. */
export function addsUpOverAssets(measure: Divided): boolean {
  return addsUp(measure) && (measure.perAttribute ?? null) === null;
}
