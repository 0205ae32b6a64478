import { formatValue } from '../../format/format';
import { deadband, limit, nearer, side } from './fields';
import { plainSignal, testKind } from './testKind';

const SIDES = {
  above: { words: 'above', back: 'at or under', open: 'at or under' },
  atOrAbove: { words: 'at or above', back: 'at or under', open: 'under' },
  below: { words: 'below', back: 'at or over', open: 'at or over' },
  atOrBelow: { words: 'at or below', back: 'at or over', open: 'over' },
} as const;
type Side = keyof typeof SIDES;

const isLow = (test: { readonly side: Side }): boolean => test.side === 'below' || test.side === 'atOrBelow';

/**
 * Above a limit or below it, with or without the limit itself: "above 205" leaves 205 alone, "at or above 205"
 * does not.
 */
export const limitTest = testKind('limit', {
  side: side('above', 'below', 'atOrAbove', 'atOrBelow'),
  limit,
  deadband,
})({
  label: 'a limit',
  ending: 'high',
  metrics: ['level', 'amount'],
  ofPeriods: 'any',
  hasLimit: true,
  begin: (_, usual) => ({ kind: 'limit', side: 'above', limit: usual, deadband: 0 }),
  words: (test, { unit, decimals }) => `${SIDES[test.side].words} ${formatValue(test.limit, unit, decimals)}`,
  back: (test, { unit, decimals }) => {
    const { back, open } = SIDES[test.side];
    const at = isLow(test) ? test.limit + test.deadband : test.limit - test.deadband;
    return `${test.deadband > 0 ? back : open} ${formatValue(at, unit, decimals)}`;
  },
  valueLimits: (test) => [
    { name: 'Limit on the course', value: test.limit, test: (value) => ({ ...test, limit: value }) },
  ],
  clearBand: (test) => ({
    direction: isLow(test) ? 'higher' : 'lower',
    caution: test.limit,
    breach: test.limit,
    target: null,
  }),
  isFromBelow: isLow,
  milder: (test) => (test.limit === 0 ? null : { ...test, limit: nearer(test.limit, isLow(test)) }),
  threshold: (test) => ({
    limit: isLow(test) ? -test.limit : test.limit,
    deadband: test.deadband,
    includesLimit: test.side === 'atOrAbove' || test.side === 'atOrBelow',
  }),
  signal: (test, _, series) => plainSignal(isLow(test) ? series.v.map((value) => -value) : series.v, series),
});
