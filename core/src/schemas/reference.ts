import * as yup from 'yup';
import { REFERENCE_PERIODS } from '../domain/reference';
import { metricFields } from './data';
import { dateText, finite, idText } from './parts';

/* Shapes of reference series and their values. */

export const referenceMetricSchema = yup
  .object({
    assetId: idText().required('Choose an asset'),
    name: metricFields.name,
    unit: metricFields.unit,
    kind: yup.string().oneOf(['level', 'amount']).required(),
    period: yup
      .string()
      .oneOf([...REFERENCE_PERIODS])
      .required(),
    decimals: metricFields.decimals,
  })
  .noUnknown();

export const referenceValuesSchema = yup
  .object({
    values: yup
      .array(
        yup
          .object({
            start: dateText().required(),
            /** null takes the value of this period away. */
            value: finite().nullable().defined(),
          })
          .noUnknown(),
      )
      .min(1)
      .max(5000)
      .required(),
  })
  .noUnknown();
