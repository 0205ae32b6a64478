import * as yup from 'yup';
import { finite, MINIMUM_COVERAGE, resolveWindow, windowSchema, type WindowSpec } from '@vivid-beacon/core';
import {
  bucketSpans,
  DEGREE_DAY_METHODS,
  degreeDaysOfDay,
  elapsedSpans,
  lengthOfSpans,
} from '@vivid-beacon/core/src/engine';
import { calendarOf } from '../calendars/sql';
import { endpoint } from '../http/endpoint';
import { needMetrics } from '../metrics/metrics';
import { summariseMetric, tallyMetrics } from '../readings/planner';

export const feedEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/metrics/:id/coverage',
    access: 'viewer',
    summary: 'How much of each local day a metric has usable data for.',
    answer:
      '{ zone, day: [] (ms, local midnight), coverage: [] (0 to 1), samples: [] }, oldest first, today last',
    query: yup.object({ days: yup.number().integer().min(1).max(1000).default(90) }).noUnknown(),
    handle: async ({ app, params, query }) => {
      const now = app.now();
      const row = (await needMetrics(app.pool, [params.id])).get(params.id)!;
      const calendar = await calendarOf(app.pool, row.plantId);
      const window = resolveWindow(
        { kind: 'periods', count: query.days, unit: 'day', current: true },
        now,
        row.zone,
        calendar,
      );
      const buckets = bucketSpans(window, 'day', null, row.zone, calendar);
      const spans = elapsedSpans(buckets.spans, now);
      const { tallies } = await tallyMetrics(
        { db: app.pool, now },
        [row],
        spans,
        buckets.size,
        new Set(['heldMs']),
      );
      const tally = tallies.get(row.id)!;
      const elapsed = lengthOfSpans(spans, buckets.size);
      return {
        zone: row.zone,
        day: buckets.start,
        coverage: Array.from(elapsed, (ms, i) => (ms > 0 ? Math.min(1, tally.heldMs[i] / ms) : 0)),
        samples: Array.from(tally.n),
      };
    },
  }),
  endpoint({
    method: 'post',
    path: '/api/metrics/:id/degree-days',
    access: 'viewer',
    summary:
      'Degree days of an outside temperature by local day, with the methods named in core/src/degreeDays.',
    answer:
      '{ zone, day: [] (ms), degreeDays: [] (null = too little data), total, missing }; in the unit of the temperature times days',
    body: yup
      .object({
        window: windowSchema.required(),
        base: finite().required('Give the base temperature'),
        kind: yup
          .string()
          .oneOf(['heating', 'cooling'] as const)
          .required(),
        method: yup
          .string()
          .oneOf([...DEGREE_DAY_METHODS])
          .default('mean'),
      })
      .noUnknown(),
    handle: async ({ app, params, body }) => {
      const now = app.now();
      const context = { db: app.pool, now };
      const row = (await needMetrics(app.pool, [params.id])).get(params.id)!;
      const calendar = await calendarOf(app.pool, row.plantId);
      const window = resolveWindow(body.window as WindowSpec, now, row.zone, calendar);
      const buckets = bucketSpans(window, 'day', null, row.zone, calendar);
      const [mean, min, max] = await Promise.all(
        (['mean', 'min', 'max'] as const).map(
          async (summary) => (await summariseMetric(context, row, summary, buckets)).values,
        ),
      );
      // An unfinished day has no mean of its own yet.
      const degreeDays = mean.map(({ value, coverage }, i) => {
        const whole = buckets.end[i] <= now && coverage >= MINIMUM_COVERAGE;
        if (!whole || value === null || min[i].value === null || max[i].value === null) return null;
        const day = { mean: value, min: min[i].value!, max: max[i].value! };
        return degreeDaysOfDay(day, body.base, body.kind, body.method as 'mean' | 'minMax');
      });
      const known = degreeDays.filter((each) => each !== null);
      return {
        zone: row.zone,
        day: buckets.start,
        degreeDays,
        total: known.length === 0 ? null : known.reduce((a, b) => a + b, 0),
        missing: degreeDays.length - known.length,
      };
    },
  }),
];
