import type { MetricKind } from '../domain/metric';

/** Calendar periods over which consumption is counted. */
export const CONSUMPTION_PERIODS = ['hour', 'day', 'month', 'year'] as const;
export type ConsumptionPeriod = (typeof CONSUMPTION_PERIODS)[number];

/** What the points of a control chart are made from. */
export const CHART_POINTS = ['sample', 'hour', 'day'] as const;
export type ChartPoint = (typeof CHART_POINTS)[number];

/**
 * What an alarm rule looks for. Limits, deadbands and amounts are in the metric's unit, percent as 5 = 5 %,
 * lengths of time in ms. A value exactly on a limit is not in alarm.
 */
export type AlarmTest =
  | {
      readonly kind: 'limit';
      readonly side: 'above' | 'below';
      readonly limit: number;
      readonly deadband: number;
    }
  /** Below `low` or above `high`. */
  | { readonly kind: 'outside'; readonly low: number; readonly high: number; readonly deadband: number }
  /** Changed by more than `limit` against the value that stood `overMs` before. */
  | {
      readonly kind: 'change';
      readonly side: 'rise' | 'fall' | 'either';
      readonly limit: number;
      readonly inPercent: boolean;
      readonly overMs: number;
      readonly deadband: number;
    }
  /** No sample for longer than `forMs`. */
  | { readonly kind: 'silence'; readonly forMs: number }
  /** More than `limit` in a calendar period of the site; `pace`: as soon as it would be at the pace so far. */
  | {
      readonly kind: 'consumption';
      readonly limit: number;
      readonly per: ConsumptionPeriod;
      readonly pace: boolean;
    }
  /** The state is (`is`), or is not, the one with this code. */
  | { readonly kind: 'state'; readonly code: number; readonly is: boolean }
  /** One of the numbered run rules (nelson.ts) is broken on a chart of individual values. */
  | { readonly kind: 'runRules'; readonly rules: readonly number[]; readonly point: ChartPoint }
  /** Further from what is usual at this hour of the week than `limit` standard deviations. */
  | {
      readonly kind: 'baseline';
      readonly side: 'above' | 'below' | 'either';
      readonly limit: number;
      readonly deadband: number;
    };

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
