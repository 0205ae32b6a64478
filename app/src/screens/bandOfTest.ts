import type { AlarmTest, TargetBand } from '@vivid-beacon/core';

/** The values in which a test finds nothing, as a band on a trend of the metric; null where no value decides. */
export function bandOfTest(test: AlarmTest): TargetBand | null {
  if (test.kind === 'limit') {
    const { limit } = test;
    return {
      direction: test.side === 'above' ? 'lower' : 'higher',
      caution: limit,
      breach: limit,
      target: null,
    };
  }
  if (test.kind === 'outside') {
    const { low, high } = test;
    return {
      direction: 'inside',
      clearLow: low,
      clearHigh: high,
      breachLow: low,
      breachHigh: high,
      target: null,
    };
  }
  return null;
}
