import * as yup from 'yup';
import { FIRST_TIME, LAST_TIME } from '../time/knownYears';

/* Schemas checked at both ends: by the server for every request, by the app for every form. */

/** A time of day, "06:30" or "24:00". */
export const CLOCK = /^([01]?\d|2[0-3]):[0-5]\d$|^24:00$/;

/** A date, "2026-11-19", that is in the calendar and in the years the product knows. */
export const dateText = (words = '${path} must be a date such as 2026-11-01') =>
  yup
    .string()
    .matches(/^\d{4}-\d{2}-\d{2}$/, words)
    .test('day', '${path} must be a day between the years 1500 and 2199, got ${value}', (text) => {
      if (text === undefined || text === null) return true;
      const t = Date.parse(`${text}T00:00:00Z`);
      // Date.parse takes 30 February for 2 March.
      return t >= FIRST_TIME && t < LAST_TIME && new Date(t).toISOString().startsWith(text);
    });

/** Largest bigint: PostgreSQL manual, chapter 8.1, numeric types. */
const MAX_ID = 9_223_372_036_854_775_807n;

export function isId(text: unknown): text is string {
  return typeof text === 'string' && /^[1-9]\d{0,18}$/.test(text) && BigInt(text) <= MAX_ID;
}

export const idText = () =>
  yup
    .string()
    .test('id', '${path} must be an id', (text) => text === undefined || text === null || isId(text));

/** Ids with commas between them, as they stand in an address. */
export const idList = (most: number) =>
  yup.string().test('ids', `\${path} are up to ${most} ids with commas between them`, (text) => {
    // Whether there must be any is another question.
    const ids = text?.split(',') ?? [];
    return ids.length <= most && ids.every(isId);
  });

/** A time in ms since the Unix epoch, in the years the product knows. */
export const momentMs = () =>
  yup
    .number()
    .integer('${path} must be a time in whole ms')
    .min(FIRST_TIME, '${path} must lie between the years 1500 and 2199')
    .max(LAST_TIME, '${path} must lie between the years 1500 and 2199');

/** A stretch of time in ms, to be spread into a shape: `start` and `end`, or `from` and `to`. */
export const startAndEnd = () => ({
  start: momentMs().required(),
  end: momentMs().required().moreThan(yup.ref('start'), 'end must be after start'),
});
export const fromAndTo = () => ({
  from: momentMs().required(),
  to: momentMs().required().moreThan(yup.ref('from'), 'to must be after from'),
});

/** A whole number that is exact in JSON, and so in a bigint. */
export const wholeNumber = () =>
  yup.number().integer().min(Number.MIN_SAFE_INTEGER).max(Number.MAX_SAFE_INTEGER);
/** How many, or the how-manieth, from 0: what fits PostgreSQL's integer. */
export const countedNumber = () => yup.number().integer().min(0).max(2_147_483_647);
export const finite = () =>
  yup
    .number()
    .typeError('${path} must be a number')
    .test(
      'finite',
      '${path} must be a finite number',
      (x) => x === undefined || x === null || Number.isFinite(x),
    );
