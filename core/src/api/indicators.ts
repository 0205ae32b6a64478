import * as yup from 'yup';
import { bandSchema, DIRECTIONS, levelSchema } from '../bands/targetBand';
import { measureSchema } from '../domain/measure';
import {
  indicatorSchema,
  indicatorVersion,
  periodTarget,
  periodTargetsSchema,
} from '../indicators/definition';
import { targetSuggestion } from '../indicators/suggestTargets';
import { hoursSchema } from '../schemas/hours';
import { indicatorListSchema } from '../schemas/lists';
import { countedNumber } from '../schemas/parts';
import {
  amount,
  amountOrNull,
  list,
  oneOf,
  orNull,
  shape,
  text,
  textOrNull,
  type TypeOf,
  named,
} from '../schemas/shape';
import { PAST_BUCKETS } from '../time/automaticPeriod';
import { BUCKETS } from '../time/buckets';
import { intervalSchema } from '../time/interval';
import { windowSchema } from '../time/windowSpec';
import { pageOf } from './assets';
import { contracts, json, nothing } from './contract';
import { readingSchema } from './readings';

const MAX_PERIODS = 120;

const presentFields = {
  /** The current target of the window; null = none. */
  target: amountOrNull(),
  /** The current band; null if it needs a target and there is none. */
  band: orNull(bandSchema),
  reading: readingSchema,
};

export const indicatorReadingSchema = named(
  'IndicatorReading',
  shape({
    id: text(),
    version: amount(),
    definition: indicatorSchema.required(),
    name: text(),
    assetName: text(),
    /** Names of its asset from the plant down: "Quayside / Dryers / Dryer 1". */
    place: text(),
    plantId: text(),
    ownerName: textOrNull(),
    measure: measureSchema.required(),
    window: windowSchema,
    decimals: amount(),
    ...presentFields,
  }),
);
/** An indicator with its current value, target and level, in the unit of its measure. */
export type IndicatorReading = TypeOf<typeof indicatorReadingSchema>;

const indicatorLoss = shape({
  id: text(),
  name: text(),
  assetId: text(),
  assetName: text(),
  /** Names of its asset from the plant down. */
  place: text(),
  /** The metric that leads its measure. */
  metricId: text(),
  /** The stretch of time that is counted. */
  window: intervalSchema,
  plantId: text(),
  breachMs: amount(),
  cautionMs: amount(),
  nodataMs: amount(),
  clearMs: amount(),
  /** What is judged: values of these periods; null = the held samples. */
  by: oneOf(BUCKETS).nullable().defined(),
});
/** Time of an indicator on each level; the four add up to the elapsed window, of recurring hours to the time inside them. */
export type IndicatorLoss = TypeOf<typeof indicatorLoss>;

const judgedPeriod = named(
  'JudgedPeriod',
  shape({
    start: amount(),
    end: amount(),
    value: amountOrNull(),
    coverage: amount(),
    target: amountOrNull(),
    level: levelSchema,
    version: amount(),
  }),
);
/** One period of an indicator's past, judged by the definition and the target in force when it began. */
export type JudgedPeriod = TypeOf<typeof judgedPeriod>;

const pastFields = {
  bucket: oneOf(PAST_BUCKETS),
  zone: text(),
  /** Of the site, 1 to 12. */
  financialYearMonth: amount(),
  periods: list(judgedPeriod),
};
const indicatorPast = shape(pastFields);
export type IndicatorPast = TypeOf<typeof indicatorPast>;

const wholeIndicator = shape({
  indicator: indicatorReadingSchema,
  versions: list(indicatorVersion),
  targets: list(periodTarget),
});
/** One indicator with all its definitions and the targets entered for it. */
export type WholeIndicator = TypeOf<typeof wholeIndicator>;

const indicatorPreview = shape({ ...presentFields, ...pastFields });
/** Current value and past of a draft definition. */
export type IndicatorPreview = TypeOf<typeof indicatorPreview>;

const suggestAsk = yup
  .object({
    measure: measureSchema.required(),
    window: windowSchema,
    hours: hoursSchema.nullable().default(null),
    direction: yup.string().oneOf(DIRECTIONS).required(),
  })
  .noUnknown();
export type SuggestAsk = TypeOf<typeof suggestAsk>;

const suggestedTargets = shape({ bucket: oneOf(PAST_BUCKETS), suggestions: list(targetSuggestion) });
export type SuggestedTargets = TypeOf<typeof suggestedTargets>;

const NOT_TO_BE = 'BAD_INPUT when the asset has one of this name, or when it cannot be computed';
const GONE = 'NOT_FOUND for a missing indicator or metric';

export const indicatorsApi = contracts({
  'GET /api/indicators': {
    access: 'viewer',
    summary: 'Indicators with their current value, target and level, worst first: by id or by search.',
    query: indicatorListSchema,
    answer: json(
      pageOf(indicatorReadingSchema),
      'in the unit of each measure; sorted by levels that may be a minute old',
    ),
  },
  'GET /api/indicators/time-by-level': {
    access: 'viewer',
    summary:
      'Time of each indicator on each level over the last days: from the held samples (over long windows quarter-hour means), or of totals by periods as long as their window, each judged by the definition in force then.',
    query: yup.object({ days: yup.number().integer().min(1).max(90).default(7) }),
    answer: json(list(indicatorLoss), 'ms, longest in breach first'),
  },
  'GET /api/indicators/:id': {
    access: 'viewer',
    summary: 'One indicator with all its definitions and the targets entered for it.',
    answer: json(wholeIndicator),
  },
  'GET /api/indicators/:id/history': {
    access: 'viewer',
    summary:
      'The past of an indicator by periods as long as its window, each judged by the definition and the target in force then.',
    query: yup.object({ periods: yup.number().integer().min(1).max(MAX_PERIODS).default(30) }).noUnknown(),
    answer: json(indicatorPast, 'oldest first'),
  },
  'POST /api/indicators': {
    access: 'analyst',
    summary: 'Adds an indicator.',
    body: indicatorSchema,
    answer: json(shape({ id: text() })),
    errors: { 404: GONE, 422: NOT_TO_BE },
  },
  'PUT /api/indicators/:id': {
    access: 'analyst',
    summary:
      'Puts a new definition in force from now on, wherever the indicator is used. The previous one is kept for its own time.',
    body: yup
      .object({ from: countedNumber().required(), definition: indicatorSchema.required() })
      .noUnknown(),
    answer: nothing,
    errors: { 409: 'CHANGED_MEANWHILE when `from` is no longer the version in force', 422: NOT_TO_BE },
  },
  'PUT /api/indicators/:id/targets': {
    access: 'analyst',
    summary: 'Sets targets by period, also for future periods; null removes one.',
    body: periodTargetsSchema,
    answer: nothing,
  },
  'DELETE /api/indicators/:id': {
    access: 'analyst',
    summary: 'Removes an indicator from all lists. Its definitions stay in the database.',
    answer: nothing,
  },
  'POST /api/indicators/preview': {
    access: 'analyst',
    summary:
      'Current value and past of a draft definition, with `values` as its targets by period; saves nothing.',
    body: yup.object({ definition: indicatorSchema.required() }).concat(periodTargetsSchema).noUnknown(),
    answer: json(indicatorPreview),
    errors: { 404: GONE },
  },
  'POST /api/indicators/suggested-targets': {
    access: 'analyst',
    summary: 'Targets suggested by the past of a measure, each with its reason.',
    body: suggestAsk,
    answer: json(suggestedTargets, 'none from fewer than 8 periods'),
    errors: { 404: GONE },
  },
});
