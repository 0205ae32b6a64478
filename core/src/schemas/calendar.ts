import * as yup from 'yup';
import { CLOCK, dateText } from './parts';
import { named, type TypeOf } from './shape';

const shiftSchema = yup
  .object({
    name: yup.string().trim().min(1, 'Give the shift a name').max(80).required('Give the shift a name'),
    /** Days on which it begins, 1 = Monday … 7 = Sunday (ISO 8601). */
    days: yup
      .array(yup.number().integer().min(1).max(7).required())
      .min(1, 'Choose at least one day for the shift')
      .max(7)
      .required(),
    /** Local wall-clock times, "06:00"; `to` may be "24:00". */
    from: yup.string().matches(CLOCK, 'A shift begins at a time such as 06:00').required(),
    to: yup.string().matches(CLOCK, 'A shift ends at a time such as 14:00').required(),
  })
  .noUnknown();
/** A weekly shift. It may cross midnight: with `to` ≤ `from` it ends the next day. */
export type Shift = TypeOf<typeof shiftSchema>;

export const holidaySchema = yup
  .object({
    /** Local date, "2026-12-25". A shift that begins on it is off. */
    date: dateText('A holiday has a date such as 2026-12-25').required(),
    name: yup.string().trim().max(120).default(''),
  })
  .noUnknown();
export type Holiday = TypeOf<typeof holidaySchema>;

/** Working hours of a site, with what else counts time there. */
export const calendarSchema = named(
  'WorkingCalendar',
  yup
    .object({
      shifts: yup.array(shiftSchema).max(40).default([]),
      holidays: yup.array(holidaySchema).max(2000).default([]),
      /** 1 = Monday … 7 = Sunday. */
      firstWeekday: yup.number().integer().min(1).max(7).default(1),
      /** First month of the financial year, 1 to 12. */
      financialYearMonth: yup.number().integer().min(1).max(12).default(1),
    })
    .noUnknown(),
);
export type WorkingCalendar = TypeOf<typeof calendarSchema>;
