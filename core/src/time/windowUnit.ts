/** What windows are counted in. */
export const WINDOW_UNITS = [
  'minute',
  'hour',
  'day',
  'week',
  'month',
  'quarter',
  'year',
  'financialQuarter',
  'financialYear',
] as const;
export type WindowUnit = (typeof WINDOW_UNITS)[number];
