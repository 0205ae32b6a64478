import { referenceApi } from '@vivid-beacon/core/src/api/reference';
import { DateTime } from 'luxon';
import { BeaconError, dateAt, startOfDate, startOfPeriod, type ReferencePeriod } from '@vivid-beacon/core';
import { markPeriods } from '../alarms/periodSql';
import { calendarOf } from '../calendars/sql';
import { readAs } from '../db/reader';
import { endpoints } from '../http/endpoint';
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
  financialQuarter: 92 * 86_400_000,
  financialYear: 366 * 86_400_000,
};

export const referenceEndpoints = endpoints(referenceApi, {
  'POST /api/reference-series': async ({ app, db, body }) => {
    const length = LENGTH_MS[body.period];
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

  'GET /api/reference-series/:id/values': async ({ app, db, params }) => {
    await needMetrics(db, [params.id]);
    return readReferenceValues(app.pool, params.id);
  },

  'PUT /api/reference-series/:id/values': async ({ app, db, params, body }) => {
    const row = (await needMetrics(db, [params.id])).get(params.id)!;
    if (row.origin !== 'reference' || row.period === null) {
      throw new BeaconError('BAD_INPUT', `${row.name} is not a reference series.`);
    }
    const rules = await calendarOf(app.pool, row.plantId);
    const values = body.values.map(({ start, value }) => {
      const day = DateTime.fromISO(start, { zone: row.zone });
      if (!day.isValid) throw new BeaconError('BAD_INPUT', `There is no date "${start}".`, 'start');
      const from = startOfPeriod(startOfDate(start, row.zone), row.period!, row.zone, rules);
      return { start: dateAt(from, row.zone), value };
    });
    await changeAndNotify(
      app.pool,
      'samples',
      async (db) => {
        await writeReferenceValues(db, params.id, values);
        const from = Math.min(...values.map(({ start }) => startOfDate(start, row.zone)));
        if (values.length > 0) await markPeriods(db, [{ metricId: params.id, from }]);
      },
      () => [params.id],
    );
    return readReferenceValues(app.pool, params.id);
  },
});
