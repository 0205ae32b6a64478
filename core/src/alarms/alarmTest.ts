import * as yup from 'yup';
import type { MetricKind } from '../domain/metric';
import { finite, wholeNumber } from '../schemas/parts';
import { taggedUnion, type TypeOf } from '../schemas/shape';
import { DAY_MS, MINUTE_MS } from '../time/lengths';
import { RUN_RULES } from './nelson';

/** Calendar periods over which consumption is counted. */
export const CONSUMPTION_PERIODS = ['hour', 'day', 'month', 'year'] as const;
export type ConsumptionPeriod = (typeof CONSUMPTION_PERIODS)[number];

/** What the points of a control chart are made from. */
export const CHART_POINTS = ['sample', 'hour', 'day'] as const;
export type ChartPoint = (typeof CHART_POINTS)[number];

const side = <const Side extends string>(...sides: readonly Side[]) =>
  yup.string().oneOf<Side>(sides).required();
const limit = finite().required('Give a limit');
const moreThanNothing = finite().required('Give a limit').moreThan(0, 'The limit must be more than 0');
const deadband = finite().min(0, 'The deadband must be at least 0').required();
const lengthMs = (shortest: number, longest: number, words: string) =>
  yup.number().integer().min(shortest, words).max(longest, words).required(words);

/**
 * What an alarm rule looks for. Limits, deadbands and amounts are in the metric's unit, percent as 5 = 5 %,
 * lengths of time in ms. A value exactly on a limit is not in alarm.
 */
export const alarmTestSchema = taggedUnion(
  'AlarmTest',
  'kind',
  {
    limit: { side: side('above', 'below'), limit, deadband },
    /** Below `low` or above `high`. */
    outside: {
      low: finite().required('Give the lower end of the band'),
      high: finite().required('Give the upper end of the band'),
      deadband,
    },
    /** Changed by more than `limit` against the value that stood `overMs` before. */
    change: {
      side: side('rise', 'fall', 'either'),
      limit: moreThanNothing,
      inPercent: yup.boolean().required(),
      overMs: lengthMs(MINUTE_MS, DAY_MS, 'A change is told over 1 minute to 1 day'),
      deadband,
    },
    /** No sample for longer than `forMs`. */
    silence: { forMs: lengthMs(MINUTE_MS, 31 * DAY_MS, 'Silence is told after 1 minute to 31 days') },
    /** More than `limit` in a calendar period of the site; `pace`: as soon as it would be at the pace so far. */
    consumption: {
      limit: moreThanNothing,
      per: yup.string().oneOf(CONSUMPTION_PERIODS).required(),
      pace: yup.boolean().required(),
    },
    /** The state is (`is`), or is not, the one with this code. */
    state: { code: wholeNumber().required('Give the state'), is: yup.boolean().required() },
    /** One of the numbered run rules (nelson.ts) is broken on a chart of individual values. */
    runRules: {
      rules: yup
        .array(
          yup
            .number()
            .oneOf(RUN_RULES.map(({ rule }) => rule))
            .required(),
        )
        .min(1, 'Choose at least one run rule')
        .required(),
      point: yup.string().oneOf(CHART_POINTS).required(),
    },
    /** Further from what is usual at this hour of the week than `limit` standard deviations. */
    baseline: { side: side('above', 'below', 'either'), limit: moreThanNothing, deadband },
  },
  {
    outside: ({ low, high }: { low: number; high: number }) =>
      low < high ? null : 'The band must end above its beginning',
  },
);
export type AlarmTest = TypeOf<typeof alarmTestSchema>;

export type AlarmTestKind = AlarmTest['kind'];

export const ALARM_TEST_KINDS: readonly AlarmTestKind[] = [
  'limit',
  'outside',
  'change',
  'silence',
  'consumption',
  'state',
  'runRules',
  'baseline',
];

/** What can be looked for in a kind of metric, the usual one first. */
export const TESTS_OF_KIND: Readonly<Record<MetricKind, readonly AlarmTestKind[]>> = {
  level: ['limit', 'outside', 'change', 'silence', 'baseline', 'runRules'],
  amount: ['limit', 'outside', 'change', 'silence', 'consumption', 'baseline', 'runRules'],
  register: ['consumption', 'silence'],
  state: ['state', 'silence'],
};

/** The one number that decides how often a test fires, in the unit a person reads; null = it has none. */
export function limitOf(test: AlarmTest): number | null {
  switch (test.kind) {
    case 'limit':
    case 'change':
    case 'consumption':
    case 'baseline':
      return test.limit;
    default:
      return null;
  }
}

/** The same test with another such number. */
export function withLimit(test: AlarmTest, limit: number): AlarmTest {
  return limitOf(test) === null ? test : ({ ...test, limit } as AlarmTest);
}
