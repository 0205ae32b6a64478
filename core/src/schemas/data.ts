import * as yup from 'yup';
import { METRIC_KINDS, SUMMARIES } from '../domain/metric';
import { REFERENCE_PERIODS } from '../domain/reference';
import { finite, idText } from './parts';

/* Shapes of what people set up under Data: assets, metrics, expressions, calendars, logs, reference series. */

const DAY_MS = 86_400_000;
const MOST_ATTRIBUTES = 60;
const CLOCK = /^([01]?\d|2[0-3]):[0-5]\d$|^24:00$/;
const DATE = /^\d{4}-\d{2}-\d{2}$/;

/** Facts about an asset: text or numbers by name. */
export const attributesSchema = yup
  .mixed<Record<string, string | number>>()
  .test('attributes', function (value) {
    if (value === undefined || value === null) return true;
    const wrong = (message: string) => this.createError({ message });
    if (typeof value !== 'object' || Array.isArray(value)) return wrong('${path} must be names with values');
    const entries = Object.entries(value);
    if (entries.length > MOST_ATTRIBUTES) {
      return wrong(`An asset may have at most ${MOST_ATTRIBUTES} attributes, got ${entries.length}`);
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
  });

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
            line: yup.number().integer().min(1).required(),
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

const metricParts = {
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
    .max(4000 * DAY_MS)
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
};

export const newMetricSchema = yup
  .object({ assetId: idText().required('Choose an asset'), ...metricParts })
  .noUnknown();

export const metricSchema = yup.object(metricParts).noUnknown();

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
            from: yup.string().matches(DATE, '${path} must be a date such as 2026-01-01').required(),
            value: finite().required(),
          })
          .noUnknown(),
      )
      .min(1, 'Give at least one value with the date it holds from')
      .max(200)
      .required(),
  })
  .noUnknown();

export const calendarSchema = yup
  .object({
    shifts: yup
      .array(
        yup
          .object({
            name: yup
              .string()
              .trim()
              .min(1, 'Give the shift a name')
              .max(80)
              .required('Give the shift a name'),
            days: yup
              .array(yup.number().integer().min(1).max(7).required())
              .min(1, 'Choose at least one day for the shift')
              .max(7)
              .required(),
            from: yup.string().matches(CLOCK, 'A shift begins at a time such as 06:00').required(),
            to: yup.string().matches(CLOCK, 'A shift ends at a time such as 14:00').required(),
          })
          .noUnknown(),
      )
      .max(40)
      .default([]),
    holidays: yup
      .array(
        yup
          .object({
            date: yup.string().matches(DATE, 'A holiday has a date such as 2026-12-25').required(),
            name: yup.string().trim().max(120).default(''),
          })
          .noUnknown(),
      )
      .max(2000)
      .default([]),
    firstWeekday: yup.number().integer().min(1).max(7).default(1),
    financialYearMonth: yup.number().integer().min(1).max(12).default(1),
  })
  .noUnknown();

const moment = () => yup.number().integer();

const stopParts = {
  assetId: idText().required('Choose the asset that stopped'),
  start: moment().required('Say since when it stopped'),
  end: moment()
    .nullable()
    .default(null)
    .test('order', 'A stop must end after it starts', (end, { parent }) => end == null || end > parent.start),
  category: yup.string().trim().max(80).default(''),
  reason: yup.string().trim().min(1, 'Give the reason').max(300).required('Give the reason'),
  note: yup.string().trim().max(2000).default(''),
};
export const stopSchema = yup.object(stopParts).noUnknown();

const MOST_ENTRIES = 5000;
export const stopsSchema = yup
  .object({
    entries: yup
      .array(
        yup
          .object({ key: yup.string().trim().min(1).max(120).nullable().default(null), ...stopParts })
          .noUnknown(),
      )
      .min(1)
      .max(MOST_ENTRIES)
      .required(),
  })
  .noUnknown();

const statusParts = yup
  .object({
    at: moment().required('Say since when'),
    status: yup.string().trim().min(1, 'Give the status').max(80).required('Give the status'),
  })
  .noUnknown();

export const jobSchema = yup
  .object({
    assetId: idText().required('Choose the desk'),
    number: yup.string().trim().min(1, 'Give the job a number').max(80).required('Give the job a number'),
    category: yup.string().trim().max(80).default(''),
    customer: yup.string().trim().max(120).default(''),
    owner: yup.string().trim().max(120).default(''),
    fields: attributesSchema.default({}),
    history: yup
      .array(statusParts.required())
      .min(1, 'A job begins with a status')
      .max(200)
      .required()
      .test('order', 'The statuses of a job must follow one another in time', (list) =>
        (list ?? []).every((each, i) => i === 0 || each.at > list![i - 1].at),
      ),
  })
  .noUnknown();

export const jobsSchema = yup
  .object({ jobs: yup.array(jobSchema.required()).min(1).max(MOST_ENTRIES).required() })
  .noUnknown();

export const statusSchema = statusParts;

export const statusKindsSchema = yup
  .object({
    kinds: yup
      .array(
        yup
          .object({
            status: yup.string().trim().min(1).max(80).required(),
            stopsClock: yup.boolean().required(),
            endsJob: yup.boolean().required(),
          })
          .noUnknown(),
      )
      .max(60)
      .required(),
  })
  .noUnknown();

export const referenceMetricSchema = yup
  .object({
    assetId: idText().required('Choose an asset'),
    name: metricParts.name,
    unit: metricParts.unit,
    kind: yup.string().oneOf(['level', 'amount']).required(),
    period: yup
      .string()
      .oneOf([...REFERENCE_PERIODS])
      .required(),
    decimals: metricParts.decimals,
  })
  .noUnknown();

export const referenceValuesSchema = yup
  .object({
    values: yup
      .array(
        yup
          .object({
            start: yup.string().matches(DATE, '${path} must be a date such as 2026-11-01').required(),
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

export const stretchRemarkSchema = yup
  .object({
    assetId: idText().required('Choose an asset'),
    start: moment().required('Say when it began'),
    end: moment()
      .required('Say when it ended')
      .moreThan(yup.ref('start'), 'A remark must end after it starts'),
    kind: yup.string().oneOf(['reason', 'abnormal', 'note']).default('note'),
    text: yup.string().trim().min(1, 'Write the remark').max(2000).required('Write the remark'),
  })
  .noUnknown();
