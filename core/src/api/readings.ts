import * as yup from 'yup';
import { MAX_REQUESTS } from '../board/choices';
import { levelSpan } from '../bands/bandTime';
import { bandSchema, levelSchema, levelTimes } from '../bands/targetBand';
import { measureSchema, MAX_MEASURES } from '../domain/measure';
import { SUMMARIES } from '../domain/metric';
import { provenanceSchema } from '../domain/provenance';
import { notesAnswer, notesAsk } from '../logs/logNotes';
import { queryAnswer, querySchema } from '../domain/query';
import { hoursSchema } from '../schemas/hours';
import { startAndEnd } from '../schemas/parts';
import {
  amount,
  amountOrNull,
  amounts,
  amountsOrNulls,
  list,
  oneOf,
  orNull,
  shape,
  text,
  truth,
  type TypeOf,
  named,
} from '../schemas/shape';
import { BUCKETS } from '../time/buckets';
import { intervalSchema } from '../time/interval';
import { windowSchema } from '../time/windowSpec';
import { content, contracts, json, type AnswerOf, type SentFor } from './contract';
import { BYTES } from './samples';

/* Readings use POST because a measure with its window does not fit into a URL; they change nothing. */

const hours = hoursSchema.nullable().default(null);
const bucketSchema = () => yup.string().oneOf(BUCKETS);

export const readingSchema = named(
  'Reading',
  shape({
    value: amountOrNull(),
    unit: text(),
    level: levelSchema,
    coverage: amount(),
    /** True while the window is not over. */
    partial: truth(),
    /** The same measure over the previous window; null without data. */
    previous: amountOrNull(),
    /** Newest sample used; null without data. */
    asOf: amountOrNull(),
    now: amount(),
    provenance: provenanceSchema,
  }),
);
export type Reading = TypeOf<typeof readingSchema>;

const valueAsk = yup
  .object({
    measure: measureSchema.required(),
    window: windowSchema,
    band: orNull(bandSchema),
    hours,
    /** What `previous` is compared with. */
    compare: yup
      .string()
      .oneOf(['before', 'lastYear'] as const)
      .default('before'),
  })
  .noUnknown();
export type ValueAsk = TypeOf<typeof valueAsk>;

const trendAsk = yup
  .object({
    measure: measureSchema.required(),
    window: windowSchema,
    bucket: bucketSchema().nullable().default(null),
    columns: yup.number().integer().min(10).max(4000).required(),
    hours,
  })
  .noUnknown();
export type TrendAsk = TypeOf<typeof trendAsk>;

const thinPeriod = shape({ start: amount(), end: amount(), value: amount(), coverage: amount() });

const trendAnswer = shape({
  window: intervalSchema,
  zone: text(),
  unit: text(),
  now: amount(),
  /** Columns of equal length; v is null where a gap opens. */
  t: amounts(),
  v: amountsOrNulls(),
  /** The periods of its values; null = samples. */
  bucket: oneOf(BUCKETS).nullable().defined(),
  /** Of periods the end of each; else null. */
  until: amounts().nullable(),
  /** Periods with some data, but under the minimum coverage; their v is null. */
  thin: list(thinPeriod).optional(),
  /** Stretches without data inside the window, up to now. */
  gaps: list(intervalSchema),
  samples: amount(),
  /** Of a measure per an attribute that its asset does not have as a number above 0. */
  lacksAttribute: truth().optional(),
});
export type TrendAnswer = TypeOf<typeof trendAnswer>;

const levelsAsk = yup
  .object({
    measure: measureSchema.required(),
    band: bandSchema,
    ...startAndEnd(),
    /** One value for each of these periods; null = the held samples, or quarter-hours of a long stretch. */
    bucket: bucketSchema().nullable().default(null),
    hours,
  })
  .noUnknown();
export type LevelsAsk = TypeOf<typeof levelsAsk>;

const distributionAsk = yup.object({ measure: measureSchema.required(), window: windowSchema }).noUnknown();
export type DistributionAsk = TypeOf<typeof distributionAsk>;

const distribution = shape({
  /** Sorted, in the unit of the measure. */
  values: amounts(),
  bucket: oneOf(BUCKETS),
  interval: intervalSchema,
});
/** Past values of a measure, to set a band on: periods as long as the readout's window, hours to months. */
export type Distribution = TypeOf<typeof distribution>;

const stretchAsk = yup
  .object({
    measures: yup.array(measureSchema.required()).min(1).max(MAX_MEASURES).required(),
    ...startAndEnd(),
    band: orNull(bandSchema),
    hours,
    /** The periods that a course is drawn by; null = its samples. */
    bucket: bucketSchema().nullable().default(null),
  })
  .noUnknown();
export type StretchAsk = TypeOf<typeof stretchAsk>;

const stretchNumbers = shape({
  /** The measure itself. */
  value: amountOrNull(),
  unit: text(),
  coverage: amount(),
  samples: amount(),
  /** Every summary that the metric's kind has; of a ratio none. */
  values: list(shape({ summary: oneOf(SUMMARIES), value: amountOrNull(), unit: text() })),
  /** ms on each level, together the elapsed stretch; null without a target band, or for a total without periods. */
  levels: levelTimes.nullable(),
  /** What the levels were counted from: values of these periods; null = the held samples. */
  levelsBy: oneOf(BUCKETS).nullable().defined(),
});
/** The numbers of one measure over a chosen stretch of time. */
export type StretchNumbers = TypeOf<typeof stretchNumbers>;

const GONE = { 404: 'NOT_FOUND for a removed metric' } as const;
const LAYOUT =
  'a JSON head (u32 length, the head, padded to 8), then float64 little-endian columns in the order the head names (NaN = no data)';

const ASKS = contracts({
  'POST /api/readings/query': {
    access: 'viewer',
    summary:
      'The planner: measures over one or many metrics, summarised over periods of a window, in groups, scope and recurring hours.',
    body: querySchema,
    answer: {
      ...json(
        queryAnswer,
        'each group has one entry per measure, in the order of the query. ' +
          'If metrics of one name lie below one another in a group, the topmost counts and the others are in withinIds.',
      ),
      bytes: LAYOUT,
    },
    errors: { ...GONE, 422: 'BAD_INPUT for mixed units or an undefined summary' },
  },
  'POST /api/readings/value': {
    access: 'viewer',
    summary:
      'One value of a measure over a window, with its level and provenance: a query for a group of one.',
    body: valueAsk,
    answer: json(readingSchema, 'coverage 0 to 1'),
    errors: GONE,
  },
  'POST /api/readings/trend': {
    access: 'viewer',
    summary:
      'A measure over time: samples thinned to 4 per pixel column, or one value per period (a query for a group of one).',
    body: trendAsk,
    answer: {
      ...json(trendAnswer, 't in ms; v null at gaps'),
      bytes: `columns t, v, until: ${LAYOUT}`,
    },
    errors: GONE,
  },
  'POST /api/readings/levels': {
    access: 'viewer',
    summary:
      'When a measure was Clear, Caution, Breach or without data: from its held samples, or by periods.',
    body: levelsAsk,
    answer: json(list(levelSpan), 'ms; equal neighbours are joined; up to now'),
    errors: GONE,
  },
  'POST /api/readings/distribution': {
    access: 'viewer',
    summary:
      'The distribution of the values of a measure, one per local day (or hour), as a basis for a target band.',
    body: distributionAsk,
    answer: json(distribution, 'values sorted, in the unit of the measure'),
    errors: GONE,
  },
  'POST /api/readings/stretch': {
    access: 'viewer',
    summary: `The numbers of one stretch of time for up to ${MAX_MEASURES} measures, and the time of the first on each level.`,
    body: stretchAsk,
    answer: json(list(stretchNumbers), 'one per measure, in order; levels in ms'),
    errors: GONE,
  },
  'POST /api/readings/notes': {
    access: 'viewer',
    summary:
      'What the stop log and remarks say of assets, each with everything below it, by stretch of time. Assets of plants that the caller may not see say nothing.',
    body: notesAsk,
    answer: json(notesAnswer, 'ms; only those that say something'),
  },
});

/** The kinds of reading that readouts request, alone or in a batch. */
export const ASK_KINDS = ['query', 'value', 'trend', 'levels', 'distribution', 'stretch', 'notes'] as const;
export type AskKind = (typeof ASK_KINDS)[number];
export type AskContract<Kind extends AskKind> = (typeof ASKS)[`POST /api/readings/${Kind}`];
export type AskOf<Kind extends AskKind> = SentFor<AskContract<Kind>['body']>;
export type AskAnswer<Kind extends AskKind> = AnswerOf<AskContract<Kind>>;

/** The contract of a kind of reading. */
export const askContract = <Kind extends AskKind>(kind: Kind): AskContract<Kind> =>
  ASKS[`POST /api/readings/${kind}`];

export const readingsApi = contracts({
  'POST /api/readings': {
    access: 'viewer',
    summary: 'Several readings at once, for a board: shared data is read once.',
    body: yup
      .object({
        asks: yup
          .array(
            yup
              .object({
                kind: yup.string().oneOf(ASK_KINDS).required(),
                /** The body of the endpoint of that kind; each is checked, and told of, by itself. */
                ask: yup.object().required(),
              })
              .noUnknown()
              .required(),
          )
          .min(1)
          .max(MAX_REQUESTS)
          .required(),
      })
      .noUnknown(),
    answer: content(
      BYTES,
      'One frame per request, as soon as it is ready. u32 little-endian number of the ask, status, 1 for columns or 0 for JSON, ' +
        'length; then the body, padded to 8 bytes. A body is what the endpoint of that kind answers; status 422, 404 … with { error } for that ask alone.',
    ),
  },
  ...ASKS,
});
