import { DateTime } from 'luxon';
import { BeaconError, startOfPeriod, type ReferencePeriod } from '@vivid-beacon/core';
import { referenceMetricSchema, referenceValuesSchema } from '@vivid-beacon/core/src/engine';
import { calendarOf } from '../calendars/sql';
import { readAs } from '../db/reader';
import { endpoint } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { makeMetric } from '../metrics/makeMetric';
import { needMetrics, toMetric } from '../metrics/metrics';
import { readReferenceValues } from '../readings/reference';
import { writeReferenceValues } from './sql';

/** About how long a period is, for lists; the periods themselves follow the calendar. */
const LENGTH_MS: Readonly<Record<ReferencePeriod, number>> = {
  day: 86_400_000,
  week: 7 * 86_400_000,
  month: 31 * 86_400_000,
  quarter: 92 * 86_400_000,
  year: 366 * 86_400_000,
  financialYear: 366 * 86_400_000,
};

export const referenceEndpoints = [
  endpoint({
    method: 'post',
    path: '/api/reference-series',
    access: 'analyst',
    summary:
      'Adds a reference series: one value a period, such as a monthly budget (amount) or a floor area (level).',
    answer: 'Metric',
    body: referenceMetricSchema,
    handle: async ({ app, db, body }) => {
      const length = LENGTH_MS[body.period as ReferencePeriod];
      const series = {
        ...body,
        origin: 'reference' as const,
        intervalMs: length,
        maxGapMs: length,
        rollover: null,
        at: app.now(),
      };
      const id = await changeAndNotify(
        app.pool,
        'metrics',
        (own) => makeMetric(readAs(own, db.asker), series),
        (made) => [made],
      );
      return toMetric((await needMetrics(db, [id])).get(id)!, app.now());
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/reference-series/:id/values',
    access: 'viewer',
    summary: 'The values of a reference series.',
    answer: '[{ start: local first day of the period, value }]',
    handle: async ({ app, db, params }) => {
      await needMetrics(db, [params.id]);
      return readReferenceValues(app.pool, params.id);
    },
  }),
  endpoint({
    method: 'put',
    path: '/api/reference-series/:id/values',
    access: 'analyst',
    summary:
      'Sets values by period; null takes one away. Periods not named stay. A day inside a period stands for it.',
    answer: '[{ start, value }] as they stand now. 422 BAD_INPUT names a date that does not exist.',
    body: referenceValuesSchema,
    limit: 2_000_000,
    handle: async ({ app, db, params, body }) => {
      const row = (await needMetrics(db, [params.id])).get(params.id)!;
      if (row.origin !== 'reference' || row.period === null) {
        throw new BeaconError('BAD_INPUT', `${row.name} is not a reference series.`);
      }
      const rules = await calendarOf(app.pool, row.plantId);
      const values = body.values.map(({ start, value }) => {
        const day = DateTime.fromISO(start, { zone: row.zone });
        if (!day.isValid) throw new BeaconError('BAD_INPUT', `There is no date "${start}".`, 'start');
        return { start: startOfPeriod(day, row.period!, rules).toISODate()!, value };
      });
      await changeAndNotify(
        app.pool,
        'samples',
        (db) => writeReferenceValues(db, params.id, values),
        () => [params.id],
      );
      return readReferenceValues(app.pool, params.id);
    },
  }),
];
