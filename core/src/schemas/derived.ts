import * as yup from 'yup';
import { SUMMARIES } from '../domain/metric';
import { metricParts } from './data';
import { dateText, finite, idText } from './parts';

/* Shapes of expressions and of the factors they use. */

const bindingSchema = yup
  .object({
    kind: yup.string().oneOf(['metric', 'children', 'attribute', 'factor']).required(),
    metricId: idText().when('kind', { is: 'metric', then: (s) => s.required(), otherwise: (s) => s.strip() }),
    assetId: idText().when('kind', {
      is: (kind: string) => kind === 'children' || kind === 'attribute',
      then: (s) => s.required(),
      otherwise: (s) => s.strip(),
    }),
    metricName: yup.string().when('kind', {
      is: 'children',
      then: (s) => s.max(200).required(),
      otherwise: (s) => s.strip(),
    }),
    attribute: yup.string().when('kind', {
      is: 'attribute',
      then: (s) => s.max(100).required(),
      otherwise: (s) => s.strip(),
    }),
    factorId: idText().when('kind', { is: 'factor', then: (s) => s.required(), otherwise: (s) => s.strip() }),
    summary: yup.string().when('kind', {
      is: (kind: string) => kind === 'metric' || kind === 'children',
      then: (s) =>
        s
          .oneOf([...SUMMARIES])
          .nullable()
          .default(null),
      otherwise: (s) => s.strip(),
    }),
  })
  .noUnknown();

const MOST_NAMES = 40;

/** Names of an expression with what they stand for. */
export const bindingsSchema = yup.mixed<Record<string, object>>().test('bindings', async function (value) {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) {
    return this.createError({ message: '${path} must be names with what they stand for' });
  }
  const entries = Object.entries(value);
  if (entries.length > MOST_NAMES) {
    return this.createError({ message: `An expression may use at most ${MOST_NAMES} names` });
  }
  for (const [name, binding] of entries) {
    if (!/^[A-Za-z_][A-Za-z0-9_]{0,59}$/.test(name)) {
      return this.createError({ message: `"${name.slice(0, 40)}" is no name: use letters, digits and _` });
    }
    try {
      await bindingSchema.validate(binding);
    } catch (error) {
      return this.createError({ message: `${name}: ${(error as Error).message}` });
    }
  }
  return true;
});

export const expressionSchema = yup
  .object({
    expression: yup.string().max(4000, 'An expression may have at most 4,000 characters').defined(),
    bindings: bindingsSchema.required(),
    way: yup.string().oneOf(['totals', 'samples']).required(),
    unit: yup.string().trim().max(40).default(''),
  })
  .noUnknown();

export const derivedSchema = expressionSchema
  .concat(
    yup.object({
      assetId: idText().required('Choose an asset'),
      name: metricParts.name,
      kind: yup.string().oneOf(['level', 'amount']).required(),
      decimals: metricParts.decimals,
    }),
  )
  .noUnknown();

export const factorSchema = yup
  .object({
    name: yup.string().trim().min(1, 'Give the factor a name').max(120).required('Give the factor a name'),
    unit: yup.string().trim().max(40).default(''),
    source: yup.string().trim().max(300).default(''),
    values: yup
      .array(
        yup
          .object({
            from: dateText('${path} must be a date such as 2026-01-01').required(),
            value: finite().required(),
          })
          .noUnknown(),
      )
      .min(1, 'Give at least one value with the date it holds from')
      .max(200)
      .required(),
  })
  .noUnknown();
