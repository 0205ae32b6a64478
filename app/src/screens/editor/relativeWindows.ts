import type { WindowSpec } from '@vivid-beacon/core';

/** Relative windows that a person chooses between. */
export const RELATIVE_WINDOWS: readonly WindowSpec[] = [
  { kind: 'rolling', count: 1, unit: 'hour' },
  { kind: 'rolling', count: 24, unit: 'hour' },
  { kind: 'rolling', count: 7, unit: 'day' },
  { kind: 'rolling', count: 30, unit: 'day' },
  { kind: 'toDate', unit: 'day' },
  { kind: 'toDate', unit: 'week' },
  { kind: 'toDate', unit: 'month' },
  { kind: 'toDate', unit: 'quarter' },
  { kind: 'toDate', unit: 'year' },
  { kind: 'toDate', unit: 'financialQuarter' },
  { kind: 'toDate', unit: 'financialYear' },
  { kind: 'periods', count: 1, unit: 'day', current: false },
  { kind: 'periods', count: 1, unit: 'week', current: false },
  { kind: 'periods', count: 1, unit: 'month', current: false },
  { kind: 'periods', count: 1, unit: 'financialQuarter', current: false },
  { kind: 'periods', count: 12, unit: 'month', current: false },
  // What is to come: scheduled work, forecasts, targets.
  { kind: 'next', count: 1, unit: 'day', current: false },
  { kind: 'next', count: 7, unit: 'day', current: false },
  { kind: 'next', count: 30, unit: 'day', current: false },
  { kind: 'next', count: 1, unit: 'week', current: false },
  { kind: 'next', count: 4, unit: 'week', current: false },
  { kind: 'next', count: 1, unit: 'month', current: false },
  { kind: 'next', count: 3, unit: 'month', current: false },
  { kind: 'next', count: 12, unit: 'month', current: false },
];
