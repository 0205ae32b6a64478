import * as yup from 'yup';
import { BeaconError, type WorkingCalendar } from '@vivid-beacon/core';
import { calendarSchema } from '@vivid-beacon/core/src/engine';
import { findAsset } from '../assets/sql';
import { endpoint } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { holidayCountries, holidayRegions, publicHolidays } from './holidays';
import { readCalendarFile } from './readCalendarFile';
import { calendarOf, writeCalendar } from './sql';
import type { Reader } from '../db/reader';

const ICALENDAR = 'text/calendar';
/** The library takes some ms a year. */
const MOST_YEARS = 40;

async function needPlant(db: Reader, id: string) {
  const plant = await findAsset(db, id);
  if (!plant || plant.parentId !== null) {
    throw new BeaconError('NOT_FOUND', 'Working calendars belong to plants, the topmost assets.');
  }
  return plant;
}

export const calendarEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/calendars/:id',
    access: 'viewer',
    summary: 'The working calendar of a plant; around the clock where none is set.',
    answer:
      '{ shifts: [{ name, days 1-7, from, to }], holidays: [{ date, name }], firstWeekday, financialYearMonth }',
    handle: async ({ app, db, params }) => {
      await needPlant(db, params.id);
      return calendarOf(app.pool, params.id);
    },
  }),
  endpoint({
    method: 'put',
    path: '/api/calendars/:id',
    access: 'analyst',
    summary: 'Sets the working calendar of a plant. Shifts may run over midnight.',
    answer: 'The calendar as it stands now.',
    body: calendarSchema,
    handle: async ({ app, db, params, body, person }) => {
      await needPlant(db, params.id);
      await changeAndNotify(app.pool, 'samples', (db) =>
        writeCalendar(db, params.id, body as WorkingCalendar, person.id, app.now()),
      );
      return calendarOf(app.pool, params.id);
    },
  }),
  endpoint({
    method: 'get',
    path: '/api/holidays/countries',
    access: 'viewer',
    summary: 'Countries whose public holidays are known; with ?country=GB its regions.',
    answer: '[{ code, name }]',
    query: yup.object({ country: yup.string().max(3).optional() }).noUnknown(),
    handle: async ({ query }) => (query.country ? holidayRegions(query.country) : holidayCountries()),
  }),
  endpoint({
    method: 'get',
    path: '/api/holidays',
    access: 'viewer',
    summary: 'Public holidays of a country or region.',
    answer: '[{ date, name }]. 422 BAD_INPUT for an unknown country.',
    query: yup
      .object({
        country: yup.string().min(2).max(3).required(),
        region: yup.string().max(12).optional(),
        from: yup.number().integer().min(1970).max(2100).required(),
        to: yup
          .number()
          .integer()
          .min(yup.ref('from'), 'The last year must not lie before the first')
          .max(2100)
          .required(),
      })
      .noUnknown()
      .test('years', function ({ from, to }) {
        if (to - from < MOST_YEARS) return true;
        const message = `Ask for at most ${MOST_YEARS} years at a time, got ${from} to ${to}`;
        return this.createError({ path: 'to', message });
      }),
    handle: async ({ query }) => publicHolidays(query.country, query.region ?? null, query.from, query.to),
  }),
  endpoint({
    method: 'post',
    path: '/api/calendars/:id/read',
    access: 'analyst',
    summary: 'Reads the days of an iCalendar file (RFC 5545, text/calendar) without saving them.',
    answer:
      '[{ date, name }]. 422 BAD_INPUT for text that is no iCalendar, an event without a start, over 400 days or in no known year, and for rules whose next day is not found within 1.5 s.',
    text: [ICALENDAR],
    limit: 2_000_000,
    handle: async ({ app, db, params, request }) => {
      const plant = await needPlant(db, params.id);
      if (typeof request.body !== 'string') {
        throw new BeaconError('BAD_SHAPE', `Send the file as ${ICALENDAR}; it must not be empty.`);
      }
      return readCalendarFile(app.workers, { text: request.body, zone: plant.zone, now: app.now() });
    },
  }),
];
