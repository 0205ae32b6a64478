/*
 * Numbers as people write them are decimals, computed ones carry an error in the 16th digit. Two numbers that
 * agree in their first 12 digits are taken as equal, so that 0.1 + 0.2 is on a limit of 0.3.
 */

/** Relative size of what is taken as no difference. */
const SLACK = 1e-12;

/** By how much numbers of this size may differ and still be taken as equal. */
export const slackOf = (...sizes: readonly number[]): number =>
  SLACK * sizes.reduce((most, size) => Math.max(most, Math.abs(size)), 0);

/**
 * Whether a value is above a limit; one that equals it in decimals is not.
 * @example isAbove(0.1 + 0.2, 0.3) // => false
 */
export const isAbove = (value: number, limit: number): boolean => value > limit + slackOf(value, limit);

/** Whether a value is below a limit; one that equals it in decimals is not. */
export const isBelow = (value: number, limit: number): boolean => value < limit - slackOf(value, limit);

/** Where a difference is this much smaller than what is subtracted, its error matters. */
const SMALL = 1e-3;
const DIGITS = 15;

/**
 * a − b without the error of subtracting nearly equal decimals.
 * @example difference(100_000.1, 100_000) // => 0.1
 */
export function difference(a: number, b: number): number {
  const plain = a - b;
  const size = Math.max(Math.abs(a), Math.abs(b));
  if (!(Math.abs(plain) < size * SMALL) || plain === 0 || !Number.isFinite(size)) return plain;
  const decimals = DIGITS - 1 - Math.floor(Math.log10(size));
  // A negative power of ten is no exact number, so small steps divide and large ones multiply.
  const scale = 10 ** Math.abs(decimals);
  return decimals >= 0 ? Math.round(plain * scale) / scale : Math.round(plain / scale) * scale;
}
