import * as yup from 'yup';
import { summarySchema } from '../domain/measure';
import { SUMMARY_WORDS } from '../domain/metric';
import { idText } from '../schemas/parts';
import type { TypeOf } from '../schemas/shape';
import { DAY_MS, HOUR_MS } from '../time/lengths';

/* A rule that judges the values of whole periods instead of single samples: "gas per kg over each full hour". */

/** Periods whose values a rule can judge. */
export const RULE_PERIODS = ['hour', 'shift', 'day', 'week', 'month'] as const;
export type RulePeriod = (typeof RULE_PERIODS)[number];

/**
 * What a rule judges: the summary of its metric over each period, once it has closed, or an indicator with its
 * own measure, hours and target band.
 */
export const overSchema = yup
  .object({
    period: yup.string().oneOf(RULE_PERIODS).required(),
    summary: summarySchema,
    indicatorId: idText().nullable().default(null),
  })
  .noUnknown();
export type RuleOver = TypeOf<typeof overSchema>;

/** Shortest and longest of each period, ms: clocks change, months differ. */
const LENGTHS: Readonly<Record<RulePeriod, { readonly shortest: number; readonly longest: number }>> = {
  hour: { shortest: HOUR_MS, longest: HOUR_MS },
  shift: { shortest: HOUR_MS, longest: DAY_MS },
  day: { shortest: DAY_MS - HOUR_MS, longest: DAY_MS + HOUR_MS },
  week: { shortest: 7 * DAY_MS - HOUR_MS, longest: 7 * DAY_MS + HOUR_MS },
  month: { shortest: 28 * DAY_MS - HOUR_MS, longest: 31 * DAY_MS + HOUR_MS },
};

/** The longest that a period of this kind takes, ms. */
export const longestPeriod = (period: RulePeriod): number => LENGTHS[period].longest;

/**
 * Beyond this, ms, a value has no neighbour: an on-delay does not run on over a missing period. Shifts may lie
 * a weekend apart.
 */
export const gapOfPeriods = (period: RulePeriod): number =>
  period === 'shift' ? 4 * DAY_MS : 1.5 * LENGTHS[period].longest;

/**
 * The on-delay that makes a rule wait for so many bad periods in a row, ms. The end of each is as far from the next
 * as the shortest of them at least.
 *
 * @example delayOfPeriods('hour', 3) // => 7_200_000
 */
export const delayOfPeriods = (period: RulePeriod, inARow: number): number =>
  (inARow - 1) * LENGTHS[period].shortest;

/** How many bad periods in a row a delay waits for. @example periodsOfDelay('hour', 7_200_000) // => 3 */
export const periodsOfDelay = (period: RulePeriod, delayMs: number): number =>
  Math.round(delayMs / LENGTHS[period].shortest) + 1;

/**
 * What is judged, in words, to follow the metric: "over each full hour".
 * @example overWords({ period: 'day', summary: 'max', indicatorId: null }) // => 'highest, over each full day'
 */
export function overWords({ period, summary, indicatorId }: RuleOver): string {
  const usual = indicatorId !== null || summary === 'mean' || summary === 'sum' || summary === 'increase';
  return `${usual ? '' : `${SUMMARY_WORDS[summary]}, `}over each full ${period}`;
}
