import { calendarsApi, ICALENDAR } from '@vivid-beacon/core/src/api/calendars';
import { BeaconError } from '@vivid-beacon/core';
import { findAsset } from '../assets/sql';
import { endpoints } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { holidayCountries, holidayRegions, publicHolidays } from './holidays';
import { readCalendarFile } from './readCalendarFile';
import { calendarOf, writeCalendar } from './sql';
import type { Reader } from '../db/reader';

async function needPlant(db: Reader, id: string) {
  const plant = await findAsset(db, id);
  if (!plant || plant.parentId !== null) {
    throw new BeaconError('NOT_FOUND', 'Working calendars belong to plants, the topmost assets.');
  }
  return plant;
}

export const calendarEndpoints = endpoints(calendarsApi, {
  'GET /api/calendars/:id': async ({ app, db, params }) => {
    await needPlant(db, params.id);
    return calendarOf(app.pool, params.id);
  },

  'PUT /api/calendars/:id': async ({ app, db, params, body, person }) => {
    await needPlant(db, params.id);
    await changeAndNotify(app.pool, 'samples', (db) =>
      writeCalendar(db, params.id, body, person.id, app.now()),
    );
    return calendarOf(app.pool, params.id);
  },

  'GET /api/holidays/countries': async ({ query }) =>
    query.country ? holidayRegions(query.country) : holidayCountries(),

  'GET /api/holidays': async ({ query }) =>
    publicHolidays(query.country, query.region ?? null, query.from, query.to),

  'POST /api/calendars/:id/read': async ({ app, db, params, request }) => {
    const plant = await needPlant(db, params.id);
    if (!Buffer.isBuffer(request.body)) {
      throw new BeaconError('BAD_SHAPE', `Send the file as ${ICALENDAR}; it must not be empty.`);
    }
    return readCalendarFile(app.workers, {
      text: request.body.toString('utf8'),
      zone: plant.zone,
      now: app.now(),
    });
  },
});
