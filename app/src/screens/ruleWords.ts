import { formatLength } from '@vivid-beacon/core';

/** A delay in words; none is "a single sample". */
export function delayWords(ms: number): string {
  return ms === 0 ? 'a single sample' : formatLength(ms);
}
