import * as yup from 'yup';
import { DIRECTIONS, MOST_CUTS, VALUE_LEVELS } from '../bands/targetBand';
import { SUMMARIES } from '../domain/metric';
import { FIRST_TIME, LAST_TIME } from '../time/bounds';
import { WINDOW_UNITS } from '../time/windowUnit';

/* Shapes that both ends check: the server every request, the app every form. */

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
const LARGEST_ID = 9_223_372_036_854_775_807n;

export function isId(text: unknown): text is string {
  return typeof text === 'string' && /^[1-9]\d{0,18}$/.test(text) && BigInt(text) <= LARGEST_ID;
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

export const windowSchema = yup
  .object({
    kind: yup.string().oneOf(['rolling', 'periods', 'next', 'toDate', 'absolute']).required(),
    count: yup.number().when('kind', {
      is: (kind: string) => kind === 'rolling' || kind === 'periods' || kind === 'next',
      then: (n) => n.integer().min(1).max(1000).required(),
      otherwise: (n) => n.strip(),
    }),
    unit: yup.string().when('kind', {
      is: 'absolute',
      then: (s) => s.strip(),
      otherwise: (s) => s.oneOf([...WINDOW_UNITS]).required(),
    }),
    current: yup.boolean().when('kind', {
      is: (kind: string) => kind === 'periods' || kind === 'next',
      then: (b) => b.required(),
      otherwise: (b) => b.strip(),
    }),
    start: yup.string().when('kind', {
      is: 'absolute',
      then: (s) => s.max(40).required(),
      otherwise: (s) => s.strip(),
    }),
    end: yup.string().when('kind', {
      is: 'absolute',
      then: (s) => s.max(40).required(),
      otherwise: (s) => s.strip(),
    }),
  })
  .noUnknown();

export const measureSchema = yup
  .object({
    metricId: idText().required(),
    summary: yup
      .string()
      .oneOf([...SUMMARIES])
      .required(),
    per: yup
      .object({
        metricId: idText().required(),
        summary: yup
          .string()
          .oneOf([...SUMMARIES])
          .required(),
        factor: finite().required(),
        unit: yup.string().max(40).nullable().defined(),
      })
      .noUnknown()
      .nullable()
      .default(null),
  })
  .noUnknown();

const forDirection = (...directions: readonly string[]) => ({
  is: (direction: string) => directions.includes(direction),
  then: (n: yup.NumberSchema) => n.required(),
  otherwise: (n: yup.NumberSchema) => n.strip(),
});

/** Own cuts, each part with a level: in the unit of a band, or in percent of a target. */
export const ownCutsShape = {
  cuts: yup
    .array(finite().required('Give each cut a value'))
    .min(1)
    .max(MOST_CUTS, `At most ${MOST_CUTS} cuts`)
    .required('Give the cuts'),
  levels: yup
    .array(
      yup
        .string()
        .oneOf([...VALUE_LEVELS])
        .required('Choose a level for each part'),
    )
    .max(MOST_CUTS + 1)
    .required('Choose a level for each part'),
};

const onlyForCuts = (schema: yup.Schema) => ({
  is: 'cuts',
  then: () => schema,
  otherwise: () => yup.mixed().strip(),
});

export const bandSchema = yup
  .object({
    direction: yup
      .string()
      .oneOf([...DIRECTIONS, 'cuts'])
      .required(),
    caution: finite().when('direction', forDirection('lower', 'higher')),
    breach: finite().when('direction', forDirection('lower', 'higher')),
    clearLow: finite().when('direction', forDirection('inside')),
    clearHigh: finite().when('direction', forDirection('inside')),
    breachLow: finite().when('direction', forDirection('inside')),
    breachHigh: finite().when('direction', forDirection('inside')),
    cuts: yup.mixed().when('direction', onlyForCuts(ownCutsShape.cuts)),
    levels: yup.mixed().when('direction', onlyForCuts(ownCutsShape.levels)),
    target: finite().nullable().default(null),
  })
  .noUnknown();
