import * as yup from 'yup';
import { DEGREE_DAY_METHODS, DEGREE_DAY_KINDS } from '../degreeDays/degreeDays';
import { CUTS, METRIC_KINDS, STAMPS, METRIC_ORIGINS } from '../domain/metric';
import { REFERENCE_PERIODS } from '../domain/reference';
import { feedHealthSchema } from '../feeds/feedHealth';
import { metricSchema, newMetricSchema } from '../schemas/data';
import { metricListSchema, metricNamesSchema, MAX_ALIKE } from '../schemas/lists';
import { finite } from '../schemas/parts';
import {
  amount,
  amountOrNull,
  amounts,
  amountsOrNulls,
  list,
  oneOf,
  shape,
  text,
  textOrNull,
  type TypeOf,
  named,
} from '../schemas/shape';
import { windowSchema } from '../time/windowSpec';
import { pageOf } from './assets';
import { contracts, json, nothing } from './contract';

export const metric = named(
  'Metric',
  shape({
    id: text(),
    key: text(),
    name: text(),
    /** As the person wrote it. */
    unit: text(),
    /** Its UCUM code, where one was found. */
    ucum: textOrNull(),
    kind: oneOf(METRIC_KINDS),
    /** Where its values come from: samples, an expression over other metrics, or values by period. */
    origin: oneOf(METRIC_ORIGINS),
    /** For a reference series: the period of each value. */
    period: oneOf(REFERENCE_PERIODS).nullable(),
    intervalMs: amount(),
    maxGapMs: amount(),
    rollover: amountOrNull(),
    decimals: amount(),
    plausibleLow: amountOrNull(),
    plausibleHigh: amountOrNull(),
    /** Older samples are deleted, rollups stay; null = all are kept. */
    retentionDays: amountOrNull(),
    /** Of an amount: what the times of its samples stand for; they are shown by the start of their interval. */
    stamped: oneOf(STAMPS),
    /** Of an amount that a window cuts: counts in full where it begins, or by its share. */
    cut: oneOf(CUTS),
    assetId: text(),
    assetName: text(),
    plantId: text(),
    plantName: text(),
    zone: text(),
    last: shape({ t: amount(), v: amount() }).nullable(),
    health: feedHealthSchema,
  }),
);
export type Metric = TypeOf<typeof metric>;

const metricsAlike = shape({
  /** Number of levels below the given asset. */
  level: amount(),
  /** The first of them. */
  metric,
  /** The assets that have one, sorted by full name. */
  assetIds: list(text()),
});
/** Metrics of one level below an asset that are alike in name, unit, kind and origin. */
export type MetricsAlike = TypeOf<typeof metricsAlike>;

/** Deepest level that is read at once. */
const MAX_DEPTH = 5;

export type MetricInput = TypeOf<typeof metricSchema>;

const coverageByDay = shape({
  zone: text(),
  /** Local midnights, ms. */
  day: amounts(),
  /** 0 to 1. */
  coverage: amounts(),
  samples: amounts(),
});
/** Days of one metric with the share of each that has usable data. Columns of equal length, oldest first. */
export type CoverageByDay = TypeOf<typeof coverageByDay>;

const degreeDaysAsk = yup
  .object({
    window: windowSchema,
    /** In the unit of the temperature. */
    base: finite().required('Give the base temperature'),
    kind: yup.string().oneOf(DEGREE_DAY_KINDS).required(),
    method: yup.string().oneOf(DEGREE_DAY_METHODS).default('mean'),
  })
  .noUnknown();
export type DegreeDaysAsk = TypeOf<typeof degreeDaysAsk>;

const degreeDays = shape({
  zone: text(),
  /** Local midnights, ms. */
  day: amounts(),
  degreeDays: amountsOrNulls(),
  total: amountOrNull(),
  missing: amount(),
});
/** Degree days by local day, in the unit of the temperature times days; null = too little data, or unfinished. */
export type DegreeDays = TypeOf<typeof degreeDays>;

export const metricsApi = contracts({
  'GET /api/metrics': {
    access: 'viewer',
    summary:
      'Metrics with their newest sample and the health of their feed, sorted by full name: by id, on or below an asset, ' +
      'or found by words that stand anywhere in the names from the plant down, or in the key.',
    query: metricListSchema,
    answer: json(pageOf(metric), 'units as written, lengths of time in ms'),
  },
  'GET /api/metrics/feeds': {
    access: 'viewer',
    summary: 'Number of feeds in each state.',
    answer: json(
      shape({
        reporting: yup.number().optional(),
        silent: yup.number().optional(),
        never: yup.number().optional(),
        flat: yup.number().optional(),
        outOfRange: yup.number().optional(),
        clockAhead: yup.number().optional(),
      }),
      'empty states are left out',
    ),
  },
  'POST /api/metrics/named': {
    access: 'viewer',
    summary: 'Metrics with one of these keys, or with this name, unit and asset: lookup for names in a file.',
    body: metricNamesSchema,
    answer: json(list(metric)),
  },
  'GET /api/assets/:id/metrics-below': {
    access: 'viewer',
    summary:
      'The metrics on an asset and on those below it, level by level: those of the same name, unit, kind and origin on one level as one.',
    query: yup.object({ depth: yup.number().integer().min(0).max(MAX_DEPTH).default(1) }).noUnknown(),
    answer: json(
      list(metricsAlike),
      `level 0 = the asset itself; of more than ${MAX_ALIKE} different ones the first`,
    ),
    errors: { 404: 'NOT_FOUND for an asset that is not there' },
  },
  'GET /api/latest': {
    access: 'viewer',
    summary: 'The newest sample of every metric, in columns, for screens that poll.',
    answer: json(
      shape({ id: list(text()), t: amounts(), v: amounts(), q: amounts() }),
      't in ms; q 0 good, 1 uncertain, 2 bad, 3 implausible; a metric without samples is left out',
    ),
  },
  'GET /api/metrics/:id': { access: 'viewer', summary: 'One metric.', answer: json(metric) },
  'POST /api/metrics': {
    access: 'analyst',
    summary: 'Adds a metric to an asset. Its key, which pushes name it by, is made from the names.',
    body: newMetricSchema,
    answer: json(metric),
    errors: { 422: 'BAD_INPUT when the asset has a metric of this name' },
  },
  'PUT /api/metrics/:id': {
    access: 'analyst',
    summary: 'Changes a metric; affected rollups are recomputed.',
    body: metricSchema,
    answer: json(metric),
    errors: { 422: 'BAD_INPUT when the asset has another metric of this name' },
  },
  'DELETE /api/metrics/:id': {
    access: 'analyst',
    summary: 'Removes a metric from all lists. Its samples stay in the database.',
    answer: nothing,
  },
});

export const feedsApi = contracts({
  'GET /api/metrics/:id/coverage': {
    access: 'viewer',
    summary: 'Coverage of a metric by local day.',
    query: yup.object({ days: yup.number().integer().min(1).max(1000).default(90) }).noUnknown(),
    answer: json(coverageByDay, 'day: local midnight, ms; coverage 0 to 1; oldest first, today last'),
  },
  'POST /api/metrics/:id/degree-days': {
    access: 'viewer',
    summary:
      'Degree days of an outside temperature by local day, with the methods named in core/src/degreeDays.',
    body: degreeDaysAsk,
    answer: json(degreeDays, 'in the unit of the temperature times days; null = too little data'),
  },
});
