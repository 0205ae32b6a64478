import { formatValue } from '../../format/format';
import { deadband, limit, side } from './fields';
import { plainSignal, testKind } from './testKind';

/** Above a limit, or below it. A value exactly on the limit is not in alarm. */
export const limitTest = testKind('limit', { side: side('above', 'below'), limit, deadband })({
  label: 'a limit',
  ending: 'high',
  metrics: ['level', 'amount'],
  ofPeriods: 'any',
  hasLimit: true,
  begin: (_, usual) => ({ kind: 'limit', side: 'above', limit: usual, deadband: 0 }),
  words: (test, { unit, decimals }) => `${test.side} ${formatValue(test.limit, unit, decimals)}`,
  back: (test, { unit, decimals }) =>
    test.side === 'above'
      ? `at or under ${formatValue(test.limit - test.deadband, unit, decimals)}`
      : `at or over ${formatValue(test.limit + test.deadband, unit, decimals)}`,
  valueLimits: (test) => [
    { name: 'Limit on the course', value: test.limit, test: (value) => ({ ...test, limit: value }) },
  ],
  clearBand: (test) => ({
    direction: test.side === 'above' ? 'lower' : 'higher',
    caution: test.limit,
    breach: test.limit,
    target: null,
  }),
  isFromBelow: (test) => test.side === 'below',
  threshold: (test) => ({
    limit: test.side === 'above' ? test.limit : -test.limit,
    deadband: test.deadband,
  }),
  signal: (test, _, series) =>
    plainSignal(test.side === 'above' ? series.v : series.v.map((value) => -value), series),
});
