import type { AlarmTest, Metric } from '@vivid-beacon/core';

/** The unit that the limit of a test is in, and its decimals. */
export function unitOfLimit(
  test: AlarmTest,
  { unit, decimals }: Pick<Metric, 'unit' | 'decimals'>,
): { readonly unit: string; readonly decimals: number } {
  if (test.kind === 'baseline') return { unit: 'σ', decimals: 1 };
  if (test.kind === 'change' && test.inPercent) return { unit: '%', decimals: 1 };
  return { unit, decimals };
}
