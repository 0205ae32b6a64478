import * as yup from 'yup';
import { DISPLAY_SCALES } from '../board/choices';
import {
  bandSchema,
  checkBand,
  checkThresholds,
  DIRECTIONS,
  customThresholdFields,
} from '../bands/targetBand';
import { measureSchema } from '../domain/measure';
import { REFERENCE_PERIODS } from '../domain/reference';
import { BeaconError } from '../errors';
import { hoursSchema } from '../schemas/hours';
import { dateText, finite, idText } from '../schemas/parts';
import { amount, shape, text, truth, taggedUnion, type TypeOf, named } from '../schemas/shape';
import { windowSchema } from '../time/windowSpec';
import { BASELINE_STRETCHES } from './baseline';

const share = (words: string) => finite().min(0).max(1000).required(words);

/** The problem of a band or of custom thresholds; missing fields have their own rules. */
function wrongWith(check: () => void): string | null {
  try {
    check();
    return null;
  } catch (error) {
    return error instanceof BeaconError ? error.message : null;
  }
}

/**
 * How an indicator's value becomes a level.
 * - `limits`: thresholds in the unit of the measure (two levels where they are equal, three, or inside a band).
 * - `target`: shares of the target that must be reached, in percent: from `clear` on Clear, from `caution` on Caution.
 *   Equal shares leave two levels; 100 and 100 are a single target.
 * - `targetCuts`: custom thresholds in percent of the target, each part with a level of its choice.
 */
export const judgeSchema = taggedUnion(
  'Judge',
  'kind',
  {
    limits: { band: bandSchema },
    target: {
      direction: yup.string().oneOf(DIRECTIONS).required(),
      clear: share('Give the share for Clear'),
      caution: share('Give the share for Caution'),
    },
    targetCuts: customThresholdFields,
  },
  {
    limits: ({ band }: { band: Parameters<typeof checkBand>[0] }) => wrongWith(() => checkBand(band)),
    target: ({ clear, caution }: { clear: number; caution: number }) =>
      caution <= clear ? null : 'Caution must begin at or before Clear',
    targetCuts: (cuts: Parameters<typeof checkThresholds>[0]) => wrongWith(() => checkThresholds(cuts)),
  },
);
export type Judge = TypeOf<typeof judgeSchema>;

/** Whether levels need a target. */
export const needsTarget = ({ kind }: Pick<Judge, 'kind'>): boolean => kind !== 'limits';

/** The share of a period's target that part of the period gets. */
export const PRORATIONS = ['calendar', 'working', 'none'] as const;
export type Proration = (typeof PRORATIONS)[number];

const weeks = yup
  .number()
  .integer()
  .min(BASELINE_STRETCHES.least, 'A baseline rests on ${min} weeks at least')
  .max(BASELINE_STRETCHES.most, 'A baseline rests on ${max} weeks at most')
  .required('Give how many weeks the baseline rests on');
const percent = finite().min(-100).max(1000).required('Give the percentage');

/** Where the target of an indicator comes from. Values in the unit of the measure. */
export const targetSourceSchema = taggedUnion('TargetSource', 'kind', {
  none: {},
  /** For the whole window; prorated by elapsed time if the window is unfinished and the measure adds up. */
  fixed: { value: finite().required('Give the target'), prorate: yup.string().oneOf(PRORATIONS) },
  /** Entered by period, also for the future; totals are prorated, means and ratios are not. */
  periods: {
    period: yup.string().oneOf(REFERENCE_PERIODS).required(),
    prorate: yup.string().oneOf(PRORATIONS).required(),
  },
  /** Another measure over the same window, times a factor. */
  measure: { measure: measureSchema.required(), factor: finite().required() },
  /** The same measure over the same window last year, more or less by a percentage. */
  lastYear: { percent },
  /** The usual value at these hours of the week, from a number of weeks before, adjusted by a percentage. */
  baseline: { weeks, percent },
});
export type TargetSource = TypeOf<typeof targetSourceSchema>;

/** What the value is compared with. */
export const referenceSourceSchema = taggedUnion('ReferenceSource', 'kind', {
  none: {},
  fixed: { value: finite().required('Give the reference') },
  before: {},
  lastYear: {},
  /** The usual value at these hours of the week, from a number of weeks before. */
  baseline: { weeks },
  /** Another measure over the same window, such as a budget series. */
  measure: { measure: measureSchema.required() },
});
export type ReferenceSource = TypeOf<typeof referenceSourceSchema>;

/** An indicator as it is governed: defined once, used everywhere. */
export const indicatorSchema = named(
  'IndicatorDefinition',
  yup
    .object({
      name: yup.string().trim().min(1, 'Give it a name').max(120).required('Give it a name'),
      description: yup.string().trim().max(2000).default(''),
      assetId: idText().required('Choose the asset'),
      /** Owner; null = no owner. */
      ownerId: idText().nullable().default(null),
      measure: measureSchema.required('Choose what is measured'),
      window: windowSchema,
      hours: hoursSchema.nullable().default(null),
      judge: judgeSchema,
      target: targetSourceSchema,
      reference: referenceSourceSchema,
      decimals: yup.number().integer().min(0).max(6).required(),
      display: yup.string().oneOf(DISPLAY_SCALES).default('units'),
      /** Board that shows it in its context; null = none. */
      boardId: idText().nullable().default(null),
    })
    .noUnknown()
    .test(
      'needsTarget',
      'Shares of a target need a target: choose where it comes from',
      ({ judge, target }) => Boolean(!judge || !needsTarget(judge) || target?.kind !== 'none'),
    ),
);
export type IndicatorDefinition = TypeOf<typeof indicatorSchema>;

/** A version of an indicator's definition, in force until the next one. */
export const indicatorVersion = shape({
  version: amount(),
  validFrom: amount(),
  by: text(),
  definition: indicatorSchema,
});
export type IndicatorVersion = TypeOf<typeof indicatorVersion>;

/**
 * A target entered for a period; `start` is the local first day of the period, "2026-11-01". `month`: of a single
 * month of a longer period, set otherwise.
 */
export const periodTarget = shape({ start: text(), value: amount(), month: truth() });
export type PeriodTarget = TypeOf<typeof periodTarget>;

/** Targets by period; null removes one. */
export const periodTargetsSchema = yup
  .object({
    values: yup
      .array(
        yup
          .object({
            start: dateText('A period begins on a date such as 2026-11-01').required(),
            value: finite().nullable().defined(),
            month: yup.boolean().default(false),
          })
          .noUnknown()
          .required(),
      )
      .max(400)
      .required(),
  })
  .noUnknown();

/** The version in force at a moment: the newest that had begun, otherwise the first. */
export function versionAt(versions: readonly IndicatorVersion[], t: number): IndicatorVersion {
  const begun = versions.filter(({ validFrom }) => validFrom <= t);
  const newest = (of: readonly IndicatorVersion[]): IndicatorVersion =>
    of.reduce((a, b) => (b.version > a.version ? b : a));
  return begun.length > 0 ? newest(begun) : versions.reduce((a, b) => (b.version < a.version ? b : a));
}
