/**
 * Quality of a sample, one byte. Good and uncertain samples count; bad ones and those outside the
 * metric's plausible range are kept and shown, but no summary uses them.
 * Good, uncertain and bad as in the status codes of OPC UA Part 8 (from memory).
 */
export const QUALITY = { good: 0, uncertain: 1, bad: 2, implausible: 3 } as const;
export type Quality = (typeof QUALITY)[keyof typeof QUALITY];

export const QUALITY_WORDS: readonly string[] = ['good', 'uncertain', 'bad', 'outside plausible range'];

/** Whether a sample of this quality is used. */
export function isUsable(quality: number): boolean {
  return quality < QUALITY.bad;
}

/** The plausible values of a metric, in its unit; null = no limit on that side. */
export interface PlausibleRange {
  readonly low: number | null;
  readonly high: number | null;
}

/** The quality with the plausible range applied: a good or uncertain value outside it is implausible. */
export function qualityInRange(quality: number, value: number, range: PlausibleRange): number {
  if (quality === QUALITY.bad) return quality;
  const outside = (range.low !== null && value < range.low) || (range.high !== null && value > range.high);
  if (outside) return QUALITY.implausible;
  return quality === QUALITY.implausible ? QUALITY.good : quality;
}
