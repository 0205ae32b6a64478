import { readingsApi } from '@vivid-beacon/core/src/api/readings';
import { endpoints } from '../http/endpoint';
import { answerReading } from './answerReading';
import { answerTogether } from './answerTogether';
import { wantsColumns } from './columns';

export const readingEndpoints = endpoints(readingsApi, {
  'POST /api/readings': (call) => answerTogether(call, call.body.asks),
  'POST /api/readings/query': (call) =>
    answerReading(call, wantsColumns(call.request) ? 'queryColumns' : 'query', call.body),
  'POST /api/readings/value': (call) => answerReading(call, 'value', call.body),
  'POST /api/readings/trend': (call) =>
    answerReading(call, wantsColumns(call.request) ? 'trendColumns' : 'trend', call.body),
  'POST /api/readings/levels': (call) => answerReading(call, 'levels', call.body),
  'POST /api/readings/distribution': (call) => answerReading(call, 'distribution', call.body),
  'POST /api/readings/stretch': (call) => answerReading(call, 'stretch', call.body),
});
