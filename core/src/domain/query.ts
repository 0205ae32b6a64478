import * as yup from 'yup';
import { bandSchema, levelList } from '../bands/targetBand';
import { hoursSchema } from '../schemas/hours';
import { finite, idText } from '../schemas/parts';
import {
  amount,
  amountOrNull,
  amounts,
  amountsOrNulls,
  list,
  orElse,
  orNull,
  shape,
  text,
  textOrNull,
  truth,
  taggedUnion,
  type TypeOf,
  named,
} from '../schemas/shape';
import { BUCKETS } from '../time/buckets';
import { intervalSchema } from '../time/interval';
import { windowSchema } from '../time/windowSpec';
import { MOST_MEASURES, summarySchema } from './measure';
import { provenanceSchema } from './provenance';

const byIds = shape({ metricIds: yup.array(idText().required()).min(1).max(5000).required() });
const byName = shape({ metricName: yup.string().trim().min(1).max(200).required() });
const noSelection = yup
  .mixed<never>()
  .test('one', '${path}: give metricIds or metricName', () => false)
  .meta({ variants: { byIds, byName } });

/** Which metrics: by id, or by name on every asset of the scope. */
const selectionSchema = yup.lazy<yup.Schema<yup.InferType<typeof byIds> | yup.InferType<typeof byName>>>(
  (value: unknown) => {
    const given = (value ?? {}) as { metricIds?: unknown; metricName?: unknown };
    const [ids, name] = [given.metricIds !== undefined, given.metricName !== undefined];
    return (ids === name ? noSelection : ids ? byIds : byName) as yup.Schema;
  },
);
export type Selection = TypeOf<typeof selectionSchema>;

const attributeValue = yup
  .mixed<string | number>()
  .required()
  .meta({ jsonSchema: { type: ['string', 'number'] } });
const attributeCondition = yup
  .object({
    name: yup.string().min(1).max(100).required(),
    values: yup.array(attributeValue).min(1).max(500).required(),
  })
  .noUnknown();
/** An attribute that an asset must have, with one of these values. */
export type AttributeCondition = TypeOf<typeof attributeCondition>;
export const attributeConditionsSchema = () => yup.array(attributeCondition).max(20).default([]);

/** Which assets count: given ones with everything below them (null = all), of those with these attributes. */
export const scopeSchema = named(
  'Scope',
  yup
    .object({
      assetIds: yup.array(idText().required()).max(5000).nullable().default(null),
      attributes: attributeConditionsSchema(),
    })
    .noUnknown(),
);
export type Scope = TypeOf<typeof scopeSchema>;
export const WHOLE_SCOPE: Scope = { assetIds: null, attributes: [] };

/** By what metrics are put together: each on its own, or all of an asset, plant, kind of asset or attribute. */
export const groupBySchema = taggedUnion('GroupBy', 'kind', {
  metric: {},
  asset: {},
  plant: {},
  assetKind: {},
  attribute: { name: yup.string().max(100).required('Say by which attribute') },
  all: {},
});
export type GroupBy = TypeOf<typeof groupBySchema>;

const queryMeasureSchema = named(
  'QueryMeasure',
  yup
    .object({
      select: selectionSchema,
      summary: summarySchema,
      per: yup
        .object({
          select: selectionSchema,
          summary: summarySchema,
          /** What the ratio is multiplied by; 100 for percent. */
          factor: finite().default(1),
        })
        .noUnknown()
        .nullable()
        .default(null),
      /** What its values are judged by; without one the answer has no levels. */
      band: orNull(bandSchema),
    })
    .noUnknown(),
);
/** One number of a question: metrics summarised together, or divided by others (sum over sum inside each group). */
export type QueryMeasure = TypeOf<typeof queryMeasureSchema>;

/** One question to the planner; every readout asks in this form. A single metric is a group of one. */
export const querySchema = yup
  .object({
    measures: yup.array(queryMeasureSchema.required()).min(1).max(MOST_MEASURES).required(),
    window: windowSchema,
    bucket: yup.string().oneOf(BUCKETS).nullable().default(null),
    groupBy: orElse(groupBySchema, { kind: 'metric' }),
    scope: scopeSchema.default(WHOLE_SCOPE),
    hours: hoursSchema.nullable().default(null),
    /** What each value of the whole window is compared with. Not with periods. */
    compare: yup
      .string()
      .oneOf(['none', 'before', 'lastYear'] as const)
      .default('none'),
    /** Whether the answer says how each value of the whole window was made. Not with periods. */
    provenance: yup.boolean().default(false),
  })
  .noUnknown()
  .test(
    'whole',
    'Values are compared and explained over the whole window, not by period: leave out bucket, or compare and provenance',
    ({ bucket, compare, provenance }) => bucket === null || (compare === 'none' && !provenance),
  );
export type Query = TypeOf<typeof querySchema>;

const measureValues = shape({
  metricIds: list(text()),
  /** Those they are divided by; empty without. */
  perMetricIds: list(text()),
  /** Metrics of the same name below those: they are part of them, and not counted again. */
  withinIds: list(text()),
  /** One a period; null without data. */
  values: amountsOrNulls(),
  /** One a period, 0 to 1. */
  coverage: amounts(),
  samples: amounts(),
  /** One a period, where the measure has a band; else null. */
  levels: levelList.nullable(),
  /** Whether the end of its window still lies ahead. */
  partial: truth(),
  /** Newest sample that counted, ms; of several metrics of the one that is furthest behind. Null without data, and of periods. */
  asOf: amountOrNull(),
  /** The same over the window it is compared with; null where that was not asked for or has too little data. */
  previous: amountOrNull(),
  /** How the value was made, where that was asked for. */
  provenance: provenanceSchema.nullable(),
});
/** One measure of one group. */
export type MeasureValues = TypeOf<typeof measureValues>;

const queryGroup = shape({
  /** What the group is called; "" for assets without the attribute. */
  name: text(),
  /** The one asset it stands for: of plants the plant; null where it is several. */
  assetId: textOrNull(),
  /** One a measure, in the order they were asked. */
  measures: list(measureValues),
});
export type QueryGroup = TypeOf<typeof queryGroup>;

/** The answer: for each group and measure one value a period. */
export const queryAnswer = shape({
  /** Window, zone and periods of the first metric's site; periods of other sites lie at their own local times. */
  window: intervalSchema,
  zone: text(),
  now: amount(),
  /** One a measure. */
  units: list(text()),
  /** Bounds of the periods, ms; `names` of shifts. */
  start: amounts(),
  end: amounts(),
  names: list(text()).nullable(),
  groups: list(queryGroup),
});
export type QueryAnswer = TypeOf<typeof queryAnswer>;
