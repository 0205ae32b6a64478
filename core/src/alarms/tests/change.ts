import * as yup from 'yup';
import { formatLength, formatNumber, formatValue } from '../../format/format';
import type { Series } from '../../series/series';
import { difference } from '../../stats/decimal';
import { DAY_MS, MINUTE_MS } from '../../time/lengths';
import { deadband, lengthMs, moreThanNothing, nearer, side, someOf } from './fields';
import { plainSignal, testKind, type DisplayUnit } from './testKind';

const SIDES = { rise: 'up by more than', fall: 'down by more than', either: 'changed by more than' } as const;

/** Changed by more than `limit` from the value `overMs` earlier; percent as 5 = 5 %. */
export const changeTest = testKind('change', {
  side: side('rise', 'fall', 'either'),
  limit: moreThanNothing,
  inPercent: yup.boolean().required(),
  overMs: lengthMs(MINUTE_MS, DAY_MS, 'A change is measured over 1 minute to 1 day'),
  deadband,
})({
  label: 'a change',
  ending: 'changes fast',
  metrics: ['level', 'amount'],
  hasLimit: true,
  begin: ({ decimals }, usual) => ({
    kind: 'change',
    side: 'rise',
    limit: someOf(usual, decimals),
    inPercent: false,
    overMs: 30 * MINUTE_MS,
    deadband: 0,
  }),
  words: (test, shown) =>
    `${SIDES[test.side]} ${sizeWords(test.limit, test.inPercent, shown)} in ${formatLength(test.overMs)}`,
  back: (test, shown) =>
    `at a change of ${sizeWords(test.limit - test.deadband, test.inPercent, shown)} or less`,
  limitUnit: ({ inPercent }, shown) => (inPercent ? { unit: '%', decimals: 1 } : shown),
  milder: (test) => ({ ...test, limit: nearer(test.limit, false) }),
  threshold: (test) => ({ limit: test.limit, deadband: test.deadband }),
  lookBackMs: ({ overMs }, { maxGapMs }) => overMs + maxGapMs,
  signal: (test, { maxGapMs }, series) => plainSignal(changes(test, maxGapMs, series), series),
});

const sizeWords = (size: number, inPercent: boolean, { unit, decimals }: DisplayUnit): string =>
  inPercent ? `${formatNumber(size, 1)} %` : formatValue(size, unit, decimals);

/**
 * Compared with the value `overMs` earlier: the newest sample at that time, no older than the longest allowed
 * gap.
 */
function changes(
  {
    side,
    inPercent,
    overMs,
  }: {
    readonly side: keyof typeof SIDES;
    readonly inPercent: boolean;
    readonly overMs: number;
  },
  maxGapMs: number,
  { t, v }: Series,
): Float64Array {
  const x = new Float64Array(t.length).fill(NaN);
  // Samples without a value cannot be compared with.
  let base = -1;
  let next = 0;
  for (let i = 0; i < t.length; i++) {
    const then = t[i] - overMs;
    while (next <= i && t[next] <= then) {
      if (!Number.isNaN(v[next])) base = next;
      next++;
    }
    if (base < 0 || then - t[base] > maxGapMs) continue;
    const change = difference(v[i], v[base]);
    const size = inPercent ? percentOf(change, v[base]) : change;
    x[i] = side === 'either' ? Math.abs(size) : side === 'fall' ? -size : size;
  }
  return x;
}

/**
 * A percentage of a negative base is relative to its absolute value; of zero, only no change has a
 * percentage.
 */
function percentOf(change: number, base: number): number {
  if (base === 0) return change === 0 ? 0 : NaN;
  return (100 * change) / Math.abs(base);
}
