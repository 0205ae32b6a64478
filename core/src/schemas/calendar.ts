import * as yup from 'yup';
import { CLOCK, dateText } from './parts';

/** A working calendar: shifts, holidays, first weekday, first month of the financial year. */
export const calendarSchema = yup
  .object({
    shifts: yup
      .array(
        yup
          .object({
            name: yup
              .string()
              .trim()
              .min(1, 'Give the shift a name')
              .max(80)
              .required('Give the shift a name'),
            days: yup
              .array(yup.number().integer().min(1).max(7).required())
              .min(1, 'Choose at least one day for the shift')
              .max(7)
              .required(),
            from: yup.string().matches(CLOCK, 'A shift begins at a time such as 06:00').required(),
            to: yup.string().matches(CLOCK, 'A shift ends at a time such as 14:00').required(),
          })
          .noUnknown(),
      )
      .max(40)
      .default([]),
    holidays: yup
      .array(
        yup
          .object({
            date: dateText('A holiday has a date such as 2026-12-25').required(),
            name: yup.string().trim().max(120).default(''),
          })
          .noUnknown(),
      )
      .max(2000)
      .default([]),
    firstWeekday: yup.number().integer().min(1).max(7).default(1),
    financialYearMonth: yup.number().integer().min(1).max(12).default(1),
  })
  .noUnknown();
