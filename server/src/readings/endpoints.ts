import * as yup from 'yup';
import {
  bandSchema,
  BUCKETS,
  hoursSchema,
  measureSchema,
  MOST_MEASURES,
  querySchema,
  windowSchema,
  type Measure,
  type Query,
  type WindowSpec,
  startAndEnd,
} from '@vivid-beacon/core';
import { endpoint } from '../http/endpoint';
import { answerReading } from './answerReading';
import { wantsColumns } from './columns';
import type { ReadAsk } from './read';
import type { StretchAsk } from './stretch';
import type { LevelsAsk, TrendAsk } from './trend';

const bucketSchema = yup.string().oneOf([...BUCKETS]);

/* Readings are asked for by POST because a measure with its window does not fit an address; they change nothing. */
export const readingEndpoints = [
  endpoint({
    method: 'post',
    path: '/api/readings/value',
    access: 'viewer',
    summary: 'One value of a measure over a window, with its level and provenance.',
    answer:
      'Reading: { value, unit, level, coverage (0 to 1), partial, previous, asOf, now, provenance }. 404 NOT_FOUND for a removed metric.',
    body: yup
      .object({
        measure: measureSchema.required(),
        window: windowSchema.required(),
        band: bandSchema.nullable().default(null),
        hours: hoursSchema.nullable().default(null),
        compare: yup
          .string()
          .oneOf(['before', 'lastYear'] as const)
          .default('before'),
      })
      .noUnknown(),
    handle: (call) => answerReading(call, 'value', call.body as unknown as ReadAsk),
  }),
  endpoint({
    method: 'post',
    path: '/api/readings/trend',
    access: 'viewer',
    summary:
      'The course of a measure over a window: samples thinned to 4 a pixel column, or one value a period.',
    answer:
      'TrendAnswer: columns t (ms) and v (null where a gap opens), gaps, window, zone, unit. With "accept: ' +
      'application/octet-stream" as a JSON head and columns t, v (NaN), until, laid out as those of /api/readings/query.',
    body: yup
      .object({
        measure: measureSchema.required(),
        window: windowSchema.required(),
        bucket: bucketSchema.nullable().default(null),
        columns: yup.number().integer().min(10).max(4000).required(),
        hours: hoursSchema.nullable().default(null),
      })
      .noUnknown(),
    handle: (call) => {
      const name = wantsColumns(call.request) ? 'trendColumns' : 'trend';
      return answerReading(call, name, call.body as unknown as TrendAsk);
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/readings/levels',
    access: 'viewer',
    summary: 'When a measure, by local hour or longer, was Clear, Caution, Breach or without data.',
    answer: '[{ start, end, level }], ms, joined where neighbours are alike, up to now',
    body: yup
      .object({
        measure: measureSchema.required(),
        band: bandSchema.required(),
        ...startAndEnd(),
        bucket: bucketSchema.default('hour'),
        hours: hoursSchema.nullable().default(null),
      })
      .noUnknown(),
    handle: (call) => {
      const { start, end, ...ask } = call.body;
      return answerReading(call, 'levels', {
        ...(ask as unknown as Omit<LevelsAsk, 'interval'>),
        interval: { start, end },
      });
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/readings/distribution',
    access: 'viewer',
    summary: 'How the values of a measure, one a local day (or hour), spread: what a target band is set on.',
    answer: '{ values: number[], bucket, from, to }; values sorted, in the unit of the measure',
    body: yup
      .object({
        measure: measureSchema.required(),
        window: windowSchema.required(),
      })
      .noUnknown(),
    handle: (call) =>
      answerReading(call, 'distribution', {
        measure: call.body.measure as Measure,
        window: call.body.window as WindowSpec,
      }),
  }),
  endpoint({
    method: 'post',
    path: '/api/readings/stretch',
    access: 'viewer',
    summary:
      'The numbers of one stretch of time for up to 20 measures, and how long the first lay on each level.',
    answer:
      '[{ value, unit, coverage, samples, values: [{ summary, value, unit }], levels: { clear, caution, breach, nodata } in ms or null }], ' +
      'one a measure, in order. 404 NOT_FOUND for a removed metric.',
    body: yup
      .object({
        measures: yup.array(measureSchema.required()).min(1).max(MOST_MEASURES).required(),
        ...startAndEnd(),
        band: bandSchema.nullable().default(null),
        hours: hoursSchema.nullable().default(null),
      })
      .noUnknown(),
    handle: (call) => {
      const { start, end, ...ask } = call.body;
      return answerReading(call, 'stretch', {
        ...(ask as unknown as Omit<StretchAsk, 'interval'>),
        interval: { start, end },
      });
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/readings/query',
    access: 'viewer',
    summary:
      'The planner: one or many metrics, summarised over periods of a window, in groups, scope and recurring hours.',
    answer:
      'QueryAnswer: { window, zone, now, unit, start[], end[] (ms), names, groups: [{ name, metricIds, withinIds, values[], coverage[], samples[] }] }. Where metrics of one name lie below ' +
      'one another in a group, the highest counts and the others are in withinIds. ' +
      'With "accept: application/octet-stream" the same in columns: u32 length of a JSON head, the head, padding to 8, ' +
      'then float64 little-endian columns in the order the head names (NaN = no data). ' +
      '422 BAD_INPUT for mixed units or a summary that makes no sense.',
    body: querySchema,
    handle: (call) => {
      const name = wantsColumns(call.request) ? 'queryColumns' : 'query';
      return answerReading(call, name, call.body as unknown as Query);
    },
  }),
];
