import * as yup from 'yup';
import {
  bandSchema,
  BUCKETS,
  hoursSchema,
  measureSchema,
  MOST_MEASURES,
  querySchema,
  startAndEnd,
  windowSchema,
} from '@vivid-beacon/core';
import type { ReadingName } from './readings';

/** More than a board may have readouts. */
export const MOST_ASKS = 80;

/** A kind of reading that readouts ask for, by itself or together with others. */
interface AskKind {
  readonly summary: string;
  readonly answer: string;
  readonly schema: yup.Schema<object>;
  readonly reading: ReadingName;
  /** The same in columns of bytes, where it can be had so. */
  readonly inColumns?: ReadingName;
}

const bucketSchema = () => yup.string().oneOf([...BUCKETS]);
const hours = hoursSchema.nullable().default(null);

export const ASK_KINDS = ['query', 'value', 'trend', 'levels', 'distribution', 'stretch'] as const;
export type AskName = (typeof ASK_KINDS)[number];

export const ASKS: Readonly<Record<AskName, AskKind>> = {
  query: {
    summary:
      'The planner: measures over one or many metrics, summarised over periods of a window, in groups, scope and recurring hours.',
    answer:
      'QueryAnswer: { window, zone, now, units[], start[], end[] (ms), names, groups: [{ name, assetId, measures: [{ metricIds, perMetricIds, withinIds, ' +
      'values[], coverage[], samples[], levels[] or null, partial, asOf, previous, provenance }] }] }, one a measure in the order asked. ' +
      'Where metrics of one name lie below one another in a group, the highest counts and the others are in withinIds. ' +
      'With "accept: application/octet-stream" the same in columns: u32 length of a JSON head, the head, padding to 8, ' +
      'then float64 little-endian columns in the order the head names (NaN = no data). ' +
      '404 NOT_FOUND for a removed metric; 422 BAD_INPUT for mixed units or a summary that makes no sense.',
    schema: querySchema,
    reading: 'query',
    inColumns: 'queryColumns',
  },
  value: {
    summary:
      'One value of a measure over a window, with its level and provenance: a query about a group of one.',
    answer:
      'Reading: { value, unit, level, coverage (0 to 1), partial, previous, asOf, now, provenance }. 404 NOT_FOUND for a removed metric.',
    schema: yup
      .object({
        measure: measureSchema.required(),
        window: windowSchema.required(),
        band: bandSchema.nullable().default(null),
        hours,
        compare: yup
          .string()
          .oneOf(['before', 'lastYear'] as const)
          .default('before'),
      })
      .noUnknown(),
    reading: 'value',
  },
  trend: {
    summary:
      'The course of a measure over a window: samples thinned to 4 a pixel column, or one value a period.',
    answer:
      'TrendAnswer: columns t (ms) and v (null where a gap opens), gaps, window, zone, unit. With "accept: ' +
      'application/octet-stream" as a JSON head and columns t, v (NaN), until, laid out as those of /api/readings/query.',
    schema: yup
      .object({
        measure: measureSchema.required(),
        window: windowSchema.required(),
        bucket: bucketSchema().nullable().default(null),
        columns: yup.number().integer().min(10).max(4000).required(),
        hours,
      })
      .noUnknown(),
    reading: 'trend',
    inColumns: 'trendColumns',
  },
  levels: {
    summary: 'When a measure, by local hour or longer, was Clear, Caution, Breach or without data.',
    answer: '[{ start, end, level }], ms, joined where neighbours are alike, up to now',
    schema: yup
      .object({
        measure: measureSchema.required(),
        band: bandSchema.required(),
        ...startAndEnd(),
        bucket: bucketSchema().default('hour'),
        hours,
      })
      .noUnknown(),
    reading: 'levels',
  },
  distribution: {
    summary: 'How the values of a measure, one a local day (or hour), spread: what a target band is set on.',
    answer: '{ values: number[], bucket, from, to }; values sorted, in the unit of the measure',
    schema: yup.object({ measure: measureSchema.required(), window: windowSchema.required() }).noUnknown(),
    reading: 'distribution',
  },
  stretch: {
    summary:
      'The numbers of one stretch of time for up to 20 measures, and how long the first lay on each level.',
    answer:
      '[{ value, unit, coverage, samples, values: [{ summary, value, unit }], levels: { clear, caution, breach, nodata } in ms or null }], ' +
      'one a measure, in order. 404 NOT_FOUND for a removed metric.',
    schema: yup
      .object({
        measures: yup.array(measureSchema.required()).min(1).max(MOST_MEASURES).required(),
        ...startAndEnd(),
        band: bandSchema.nullable().default(null),
        hours,
      })
      .noUnknown(),
    reading: 'stretch',
  },
};
