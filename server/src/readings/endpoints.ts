import { readingsApi } from '@vivid-beacon/core/src/api/readings';
import { endpoints } from '../http/endpoint';
import { answerReading } from './answerReading';
import { answerBatch } from './answerBatch';
import { wantsColumns } from './columns';
import {
  distributionReading,
  levelsReading,
  queryColumns,
  queryReading,
  notesReading,
  stretchReading,
  trendColumns,
  trendReading,
  valueReading,
} from './readings';

export const readingEndpoints = endpoints(readingsApi, {
  'POST /api/readings': (call) => answerBatch(call, call.body.asks),
  'POST /api/readings/query': (call) =>
    wantsColumns(call.request)
      ? answerReading(call, queryColumns, call.body)
      : answerReading(call, queryReading, call.body),
  'POST /api/readings/value': (call) => answerReading(call, valueReading, call.body),
  'POST /api/readings/trend': (call) =>
    wantsColumns(call.request)
      ? answerReading(call, trendColumns, call.body)
      : answerReading(call, trendReading, call.body),
  'POST /api/readings/levels': (call) => answerReading(call, levelsReading, call.body),
  'POST /api/readings/distribution': (call) => answerReading(call, distributionReading, call.body),
  'POST /api/readings/stretch': (call) => answerReading(call, stretchReading, call.body),
  'POST /api/readings/notes': (call) => answerReading(call, notesReading, call.body),
});
