import * as yup from 'yup';
import { calendarSchema, holidaySchema } from '../schemas/calendar';
import { list, shape, text } from '../schemas/shape';
import { contracts, json } from './contract';

/** The holiday library takes some ms per year. */
const MAX_YEARS = 40;
export const ICALENDAR = 'text/calendar';

const place = shape({ code: text(), name: text() });

const holidaysQuery = yup
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
    if (to - from < MAX_YEARS) return true;
    const message = `Ask for at most ${MAX_YEARS} years at a time, got ${from} to ${to}`;
    return this.createError({ path: 'to', message });
  });

export const calendarsApi = contracts({
  'GET /api/calendars/:id': {
    access: 'viewer',
    summary: 'The working calendar of a plant; around the clock where none is set.',
    answer: json(calendarSchema.required(), 'weekdays 1 (Monday) to 7'),
  },
  'PUT /api/calendars/:id': {
    access: 'analyst',
    summary: 'Sets the working calendar of a plant. Shifts may run over midnight.',
    body: calendarSchema,
    answer: json(calendarSchema.required(), 'as saved'),
  },
  'GET /api/holidays/countries': {
    access: 'viewer',
    summary: 'Countries with known public holidays; with ?country=GB, its regions.',
    query: yup.object({ country: yup.string().max(3).optional() }).noUnknown(),
    answer: json(list(place)),
  },
  'GET /api/holidays': {
    access: 'viewer',
    summary: 'Public holidays of a country or region.',
    query: holidaysQuery,
    answer: json(list(holidaySchema)),
    errors: { 422: 'BAD_INPUT for an unknown country' },
  },
  'POST /api/calendars/:id/read': {
    access: 'analyst',
    summary: 'Reads the days of an iCalendar file (RFC 5545, UTF-8) without saving them.',
    content: [ICALENDAR],
    limit: 2_000_000,
    answer: json(list(holidaySchema)),
    errors: {
      422: 'BAD_INPUT for text that is no iCalendar, an event without a start, over 400 days or in no known year, and for rules whose next day is not found within 1.5 s',
    },
  },
});
