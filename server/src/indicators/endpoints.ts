import { DAY_MS } from '@vivid-beacon/core';
import * as yup from 'yup';
import { endpoint } from '../http/endpoint';
import { readIndicatorLosses, readIndicators } from './indicators';

export const indicatorEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/indicators',
    access: 'viewer',
    summary: 'Lists the indicators with their present value and level.',
    answer: '[{ id, name, assetName, plantId, measure, window, band, decimals, reading }]',
    handle: ({ app }) => readIndicators(app.pool, app.now()),
  }),
  endpoint({
    method: 'get',
    path: '/api/indicators/time-by-level',
    access: 'viewer',
    summary: 'How long each indicator, by the hour, was on each level over the last days.',
    answer:
      '[{ id, name, assetName, plantId, breachMs, cautionMs, nodataMs, clearMs }], longest in breach first',
    query: yup.object({ days: yup.number().integer().min(1).max(90).default(7) }),
    handle: ({ app, query }) => {
      const now = app.now();
      return readIndicatorLosses(app.pool, { start: now - query.days * DAY_MS, end: now }, now);
    },
  }),
];
