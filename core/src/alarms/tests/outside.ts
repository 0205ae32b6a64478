import { formatNumber, formatValue } from '../../format/format';
import { finite } from '../../schemas/parts';
import { difference, slackOf } from '../../stats/decimal';
import { deadband, roundTo, someOf } from './fields';
import { plainSignal, testKind } from './testKind';

/** By how much one number is above another; nothing where they are equal in decimals. */
function beyond(a: number, b: number): number {
  const by = difference(a, b);
  return Math.abs(by) <= slackOf(a, b) ? 0 : by;
}

/** Below `low` or above `high`. */
export const outsideTest = testKind('outside', {
  low: finite().required('Give the lower end of the band'),
  high: finite().required('Give the upper end of the band'),
  deadband,
})({
  label: 'a band',
  ending: 'outside its band',
  metrics: ['level', 'amount'],
  ofPeriods: 'any',
  hasLimit: false,
  check: ({ low, high }) => (low < high ? null : 'The band must end above its beginning'),
  begin: ({ decimals }, usual) => ({
    kind: 'outside',
    low: roundTo(usual - 2 * someOf(usual, decimals), decimals),
    high: usual,
    deadband: 0,
  }),
  words: ({ low, high }, { unit, decimals }) =>
    `outside ${formatNumber(low, decimals)} to ${formatValue(high, unit, decimals)}`,
  back: (test, { unit, decimals }) =>
    `inside ${formatNumber(test.low + test.deadband, decimals)} to ${formatValue(test.high - test.deadband, unit, decimals)}`,
  valueLimits: (test) => [
    {
      name: 'Upper end on the course',
      value: test.high,
      test: (to) => ({ ...test, high: Math.max(to, test.low) }),
    },
    {
      name: 'Lower end on the course',
      value: test.low,
      test: (to) => ({ ...test, low: Math.min(to, test.high) }),
    },
  ],
  clearBand: ({ low, high }) => ({
    direction: 'inside',
    clearLow: low,
    clearHigh: high,
    breachLow: low,
    breachHigh: high,
    target: null,
  }),
  milder: (test) => {
    const tenth = (test.high - test.low) / 10;
    return {
      ...test,
      low: Number((test.low + tenth).toPrecision(12)),
      high: Number((test.high - tenth).toPrecision(12)),
    };
  },
  isMilder: (milder, test) =>
    milder.low >= test.low && milder.high <= test.high && milder.high - milder.low < test.high - test.low,
  threshold: (test) => ({ limit: 0, deadband: test.deadband }),
  signal: ({ low, high }, _, series) =>
    plainSignal(
      series.v.map((value) => Math.max(beyond(value, high), beyond(low, value))),
      series,
    ),
});
