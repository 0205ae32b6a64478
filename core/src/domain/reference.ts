/** Periods that a reference series (output, floor area, headcount, budget, weather) can have a value for. */
export const REFERENCE_PERIODS = [
  'day',
  'week',
  'month',
  'quarter',
  'year',
  'financialQuarter',
  'financialYear',
] as const;
export type ReferencePeriod = (typeof REFERENCE_PERIODS)[number];
