import * as yup from 'yup';
import { idText } from '../schemas/parts';
import { taggedUnion, type TypeOf } from '../schemas/shape';
import { SUMMARIES } from './metric';

const summary = yup.string().oneOf(SUMMARIES).nullable().default(null);

/** What a name in an expression stands for. */
export const bindingSchema = taggedUnion('Binding', 'kind', {
  /** A metric; in totals, summarised so over each period (null = the usual summary of its kind). */
  metric: { metricId: idText().required(), summary },
  /** The metric of this name of all assets directly below an asset, added up. */
  children: { assetId: idText().required(), metricName: yup.string().max(200).required(), summary },
  /** A number among an asset's attributes, such as its floor area. */
  attribute: { assetId: idText().required(), attribute: yup.string().max(100).required() },
  /** An equivalence factor; its value of the year of each step. */
  factor: { factorId: idText().required() },
});
export type Binding = TypeOf<typeof bindingSchema>;

const MAX_NAMES = 40;

/** The names of an expression with their bindings. */
export const bindingsSchema = yup
  .mixed<Record<string, yup.InferType<typeof bindingSchema>>>()
  .test('bindings', function (value) {
    if (typeof value !== 'object' || value === null || Array.isArray(value)) {
      return this.createError({ message: '${path} must be names with what they stand for' });
    }
    const entries = Object.entries(value);
    if (entries.length > MAX_NAMES) {
      return this.createError({ message: `An expression may use at most ${MAX_NAMES} names` });
    }
    for (const [name, binding] of entries) {
      if (!/^[A-Za-z_][A-Za-z0-9_]{0,59}$/.test(name)) {
        return this.createError({ message: `"${name.slice(0, 40)}" is no name: use letters, digits and _` });
      }
      try {
        bindingSchema.validateSync(binding);
      } catch (error) {
        return this.createError({ message: `${name}: ${(error as Error).message}` });
      }
    }
    return true;
  })
  .meta({ members: bindingSchema });

/**
 * Two ways to evaluate:
 * - `totals`: every name is summarised over the period first, then the expression is evaluated once: sum over
 * sum, right for ratios at any length of period.
 * - `samples`: the expression is evaluated at each sample, and the results are summarised like any metric:
 * right for limits, differences and conversions at one moment.
 */
export const DERIVED_WAYS = ['totals', 'samples'] as const;
export type DerivedWay = (typeof DERIVED_WAYS)[number];

export const definitionSchema = yup.object({
  expression: yup.string().max(4000, 'An expression may have at most 4,000 characters').defined(),
  bindings: bindingsSchema.required(),
  way: yup.string().oneOf(DERIVED_WAYS).required(),
});
export type DerivedDefinition = TypeOf<typeof definitionSchema>;
