import * as yup from 'yup';
import { bandSchema, levelList, type TargetBand } from '../bands/targetBand';
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
import { FOLDS } from '../time/folds';
import { intervalSchema } from '../time/interval';
import { windowSchema } from '../time/windowSpec';
import {
  DIVIDED_ONCE,
  isDividedOnce,
  MAX_MEASURES,
  perAttributeField,
  summarySchema,
  type Measure,
} from './measure';
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

/**
 * Assets in the scope: the given ones with everything below (null = all), restricted to those with these
 * attributes.
 */
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

/**
 * How metrics are grouped: each on its own, or by asset, plant, kind of asset or attribute; or by the parts of an asset:
 * the assets right below it, each with everything below (null = plants). What is measured at the asset itself is in none.
 */
export const groupBySchema = taggedUnion('GroupBy', 'kind', {
  metric: {},
  asset: {},
  plant: {},
  part: { assetId: idText().nullable().default(null) },
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
          /** Multiplier of the ratio; 100 for percent. */
          factor: finite().default(1),
        })
        .noUnknown()
        .nullable()
        .default(null),
      /** Divided by the sum of this attribute over the assets that are measured, each once; see `divisorOf`. */
      perAttribute: perAttributeField(),
      /** Target band for the levels; without one the answer has none. */
      band: orNull(bandSchema),
    })
    .noUnknown()
    .test('one divisor', DIVIDED_ONCE, isDividedOnce),
);
/**
 * One measure of a query: metrics summarised together; or divided by others (sum over sum in each group), or by an attribute.
 */
export type QueryMeasure = TypeOf<typeof queryMeasureSchema>;

/**
 * A measure as a query asks it: of these metrics, and divided by these.
 * @param per ignored where it is not per another metric.
 */
export function askedOf(
  {
    summary,
    per,
    perAttribute = null,
  }: Pick<Measure, 'summary' | 'perAttribute'> & {
    readonly per: Pick<NonNullable<Measure['per']>, 'summary' | 'factor'> | null;
  },
  select: Selection,
  perSelect: Selection,
  band: TargetBand | null = null,
): QueryMeasure {
  return {
    select,
    summary,
    per: per && { select: perSelect, summary: per.summary, factor: per.factor },
    ...(perAttribute !== null && { perAttribute }),
    band,
  };
}

/** A query to the planner, the same for every readout. A single metric is a group of one. */
export const querySchema = yup
  .object({
    measures: yup.array(queryMeasureSchema.required()).min(1).max(MAX_MEASURES).required(),
    window: windowSchema,
    bucket: yup.string().oneOf(BUCKETS).nullable().default(null),
    /** Hours or days that come again, together: one value for each cell of a grid instead of each period. */
    fold: yup.string().oneOf(FOLDS).nullable().default(null),
    groupBy: orElse(groupBySchema, { kind: 'metric' }),
    /** Groupings around it, outermost first: each group lies in one of each. */
    within: yup.array(groupBySchema).max(6).default([]),
    scope: scopeSchema.default(WHOLE_SCOPE),
    hours: hoursSchema.nullable().default(null),
    /** Reference of each value of the whole window; with periods of each, the first beside the first. Not with a fold. */
    compare: yup
      .string()
      .oneOf(['none', 'before', 'lastYear'] as const)
      .default('none'),
    /** Whether to include the provenance of each value of the whole window; not with periods. */
    provenance: yup.boolean().default(false),
  })
  .noUnknown()
  .test(
    'whole',
    'Values are explained over the whole window, and not compared in a grid: leave out bucket and fold, or provenance and, with a fold, compare',
    ({ bucket, fold, compare, provenance }) =>
      (fold === null || compare === 'none') && ((bucket === null && fold === null) || !provenance),
  )
  .test(
    'periods',
    'A fold has periods of its own: leave out bucket',
    ({ bucket, fold }) => bucket === null || fold === null,
  );
export type Query = TypeOf<typeof querySchema>;

const measureValues = shape({
  metricIds: list(text()),
  /** Metrics in the denominator; empty if there is none. */
  perMetricIds: list(text()),
  /** Metrics of the same name below those, which already include them. */
  withinIds: list(text()),
  /** How many metrics do not count because no asset of theirs has the attribute it is divided by, as a number above 0. */
  withoutAttribute: amount().optional(),
  /** One per period; null without data. */
  values: amountsOrNulls(),
  /** One per period, 0 to 1. */
  coverage: amounts(),
  samples: amounts(),
  /** One per period if the measure has a band, otherwise null. */
  levels: levelList.nullable(),
  /** Whether its window is not over yet. */
  partial: truth(),
  /**
   * Newest sample that counted, ms; with several metrics, of the one furthest behind. Null without data, and
   * with periods.
   */
  asOf: amountOrNull(),
  /** The value of the reference window; null if not requested or with too little data. */
  previous: amountOrNull(),
  /** With periods, the values of those of the reference window, the first beside the first; as `previous` if too little data. */
  before: amountsOrNulls().optional(),
  /** Provenance of the value, if requested. */
  provenance: provenanceSchema.nullable(),
});
/** One measure of one group. */
export type MeasureValues = TypeOf<typeof measureValues>;

const queryGroup = shape({
  /** What the group is called; "" for assets without the attribute. */
  name: text(),
  /** Names of the groups around it, outermost first; none unless asked for. */
  path: list(text()).optional(),
  /** The assets that the groups around it represent, as `assetId` its own. */
  pathAssetIds: list(textOrNull()).optional(),
  /** The asset it represents; for a plant group the plant; null if several. */
  assetId: textOrNull(),
  /** One per measure, in the order of the query. */
  measures: list(measureValues),
});
export type QueryGroup = TypeOf<typeof queryGroup>;

const gridCells = shape({
  columns: amount(),
  /** Hours of each cell that have passed, inside window and recurring hours. */
  hours: amounts(),
  /** Share of each cell's time that the working calendar calls working time, 0 to 1. */
  working: amounts(),
});
/** The cells of a folded grid, row by row, at the site of the first metric. */
export type GridCells = TypeOf<typeof gridCells>;

/** The answer: one value per period for each group and measure. */
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
  /** With a fold; then start and end are the first and the last time of each cell. */
  cells: gridCells.nullable(),
  groups: list(queryGroup),
});
export type QueryAnswer = TypeOf<typeof queryAnswer>;
