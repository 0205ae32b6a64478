import { IANAZone } from 'luxon';
import * as yup from 'yup';
import { CLOCK } from './parts';

/** An international number: digits, spaces and hyphens after a plus (ITU-T E.164: at most 15 digits). */
const PHONE = /^\+(?:[ -]?\d){7,15}$/;

/** How a person wants notices: by e-mail, by text message, and in which hours only those of high priority. */
export const noticeWishSchema = yup
  .object({
    byEmail: yup.boolean().required(),
    byText: yup.boolean().required(),
    phone: yup
      .string()
      .trim()
      .matches(PHONE, 'Write the number with its country, such as +44 1632 960123')
      .nullable()
      .default(null)
      .when('byText', { is: true, then: (s) => s.required('Give a number for text messages') }),
    quiet: yup
      .object({
        from: yup.string().matches(CLOCK, 'Write the time as 22:00').required(),
        to: yup.string().matches(CLOCK, 'Write the time as 06:00').required(),
      })
      .noUnknown()
      .nullable()
      .default(null),
    zone: yup
      .string()
      .required()
      .test('zone', 'Unknown time zone. Use a name such as Europe/London.', (zone) =>
        IANAZone.isValidZone(zone!),
      ),
  })
  .noUnknown();
