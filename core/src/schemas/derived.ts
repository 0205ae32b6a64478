import * as yup from 'yup';
import { definitionSchema } from '../domain/derived';
import { metricFields } from './data';
import { dateText, finite, idText } from './parts';

/* Shapes of expressions and of the factors they use. */

export const expressionSchema = definitionSchema
  .shape({ unit: yup.string().trim().max(40).default('') })
  .noUnknown();

export const derivedSchema = expressionSchema
  .concat(
    yup.object({
      assetId: idText().required('Choose an asset'),
      name: metricFields.name,
      kind: yup
        .string()
        .oneOf(['level', 'amount'] as const)
        .required(),
      decimals: metricFields.decimals,
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

/** null = a new one. */
export const savedFactorSchema = factorSchema.shape({ id: idText().nullable().default(null) }).noUnknown();
