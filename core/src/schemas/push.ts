import { named } from './shape';
import * as yup from 'yup';
import { COLLISION_RULES } from '../intake/layout';
import { metricFields } from './data';
import { idText } from './parts';

const LABEL = /^[a-zA-Z_][a-zA-Z0-9_]{0,99}$/;
const labelName = () =>
  yup
    .string()
    .trim()
    .matches(LABEL, 'A label is letters, digits and _, such as machine')
    .nullable()
    .default(null);

/** How a token's exposition text is matched to metrics. */
export const pushRuleSchema = named(
  'PushRule',
  yup
    .object({
      assetLabel: labelName(),
      metricLabel: labelName(),
      unknown: yup
        .string()
        .oneOf(['wait', 'make'] as const)
        .default('wait'),
      parentId: idText().nullable().default(null),
      collisions: yup
        .string()
        .oneOf([...COLLISION_RULES])
        .default('last'),
    })
    .test('makes', function ({ unknown, assetLabel, parentId }) {
      if (unknown === 'wait' || (assetLabel && parentId)) return true;
      const missing = assetLabel ? 'parentId' : 'assetLabel';
      const message = 'To make metrics, say which label names the asset and under which asset it is made';
      return this.createError({ path: missing, message });
    })
    .noUnknown(),
);

/** Gives a heard series its metric: one that is there, or a new one of an asset. */
export const mapSeriesSchema = yup
  .object({
    series: yup.string().min(1).max(4000).required(),
    /** null = it waits again. */
    metricId: idText().nullable().default(null),
    make: yup
      .object({
        assetId: idText().required(),
        name: metricFields.name,
        unit: metricFields.unit,
        kind: metricFields.kind,
        intervalMs: metricFields.intervalMs,
      })
      .noUnknown()
      .nullable()
      .default(null),
  })
  .noUnknown();
