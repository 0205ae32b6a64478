import { DAY_MS } from '../time/lengths';
import * as yup from 'yup';
import { CUTS, METRIC_KINDS, STAMPS } from '../domain/metric';
import { countedNumber, finite, idText } from './parts';

/* Shapes of assets and metrics. */

const MAX_ATTRIBUTES = 60;

/** Facts about an asset: text or numbers by name. */
export const attributesSchema = yup
  .mixed<Record<string, string | number>>()
  .test('attributes', function (value) {
    if (value === undefined || value === null) return true;
    const wrong = (message: string) => this.createError({ message });
    if (typeof value !== 'object' || Array.isArray(value)) return wrong('${path} must be names with values');
    const entries = Object.entries(value);
    if (entries.length > MAX_ATTRIBUTES) {
      return wrong(`An asset may have at most ${MAX_ATTRIBUTES} attributes, got ${entries.length}`);
    }
    for (const [name, each] of entries) {
      if (name.trim() === '' || name.length > 100)
        return wrong('An attribute needs a name of 1 to 100 characters');
      const fits =
        typeof each === 'string' ? each.length <= 300 : typeof each === 'number' && Number.isFinite(each);
      if (!fits)
        return wrong(`Attribute "${name.slice(0, 40)}" must be a number or a text of at most 300 characters`);
    }
    return true;
  })
  .meta({ jsonSchema: { type: 'object', additionalProperties: { type: ['string', 'number'] } } });

const assetName = yup
  .string()
  .trim()
  .min(1, 'Give the asset a name')
  .max(200)
  .required('Give the asset a name');

export const assetSchema = yup
  .object({
    name: assetName,
    parentId: idText().nullable().default(null),
    kind: yup.string().trim().min(1, 'Say what kind of asset it is').max(40).required(),
    zone: yup.string().max(60).nullable().default(null),
    attributes: attributesSchema.default({}),
  })
  .noUnknown();

/** Rows of an asset list: a path from the plant down, "Quayside / Wash house / Washer 1". */
export const assetImportSchema = yup
  .object({
    rows: yup
      .array(
        yup
          .object({
            line: countedNumber().min(1).required(),
            path: yup.array(yup.string().trim().min(1).max(200).required()).min(1).max(12).required(),
            kind: yup.string().trim().max(40).default(''),
            zone: yup.string().trim().max(60).nullable().default(null),
            attributes: attributesSchema.default({}),
          })
          .noUnknown(),
      )
      .min(1)
      .max(5000, 'At most 5,000 assets at a time')
      .required(),
  })
  .noUnknown();

export const metricFields = {
  name: yup.string().trim().min(1, 'Give the metric a name').max(200).required('Give the metric a name'),
  unit: yup.string().trim().max(40).default(''),
  kind: yup
    .string()
    .oneOf([...METRIC_KINDS])
    .required(),
  intervalMs: yup
    .number()
    .integer()
    .min(1000, 'The logging interval must be at least 1 s')
    .max(400 * DAY_MS)
    .required(),
  maxGapMs: yup
    .number()
    .integer()
    .min(1000, 'The longest allowed gap must be at least 1 s')
    .max(1200 * DAY_MS, 'A value is trusted for at most 1,200 days')
    .nullable()
    .default(null),
  rollover: finite().positive('A counter rolls over at a number above 0').nullable().default(null),
  decimals: yup.number().integer().min(0).max(9).default(1),
  plausibleLow: finite().nullable().default(null),
  plausibleHigh: finite()
    .nullable()
    .default(null)
    .test('order', 'The plausible range must not end below its start', (high, { parent }) =>
      high == null || parent.plausibleLow == null ? true : high >= parent.plausibleLow,
    ),
  retentionDays: yup.number().integer().min(1).max(40_000).nullable().default(null),
  /** Of an amount: what the times of its samples stand for, and where one counts that a window cuts. */
  stamped: yup
    .string()
    .oneOf([...STAMPS])
    .default('start'),
  cut: yup
    .string()
    .oneOf([...CUTS])
    .default('start'),
};

export const newMetricSchema = yup
  .object({ assetId: idText().required('Choose an asset'), ...metricFields })
  .noUnknown();

export const metricSchema = yup.object(metricFields).noUnknown();
