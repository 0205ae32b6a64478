import { readTypedNumber } from '@vivid-beacon/core';

/** A number as a person types it; see {@link readTypedNumber}. null = empty or not a number. */
export function readTyped(text: string): number | null {
  return readTypedNumber(text)?.value ?? null;
}
