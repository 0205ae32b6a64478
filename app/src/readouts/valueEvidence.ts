import {
  formatNumber,
  formatValue,
  LEVEL_WORDS,
  localWindow,
  windowText,
  type FlagEvidence,
  type Interval,
} from '@vivid-beacon/core';
import type { ReadoutValue } from '@vivid-beacon/core/src/boards';

/** Evidence of a value for a flag: the value as it was seen, and the address of the view with its window. */
export function valueEvidence(
  title: string,
  { value, unit, level, coverage, samples, previous, zone }: ReadoutValue,
  window: Interval,
  decimals: number,
): FlagEvidence {
  const { pathname, search } = globalThis.window.location;
  const address = new URLSearchParams(search);
  address.set('window', windowText(localWindow(window, zone)));
  return {
    title: title.slice(0, 300),
    address: `${pathname}?${address.toString()}`,
    window: { start: Math.round(window.start), end: Math.round(window.end) },
    numbers: [
      { name: 'Value', text: formatValue(value, unit, decimals) },
      { name: 'Level', text: LEVEL_WORDS[level] },
      ...(previous === null ? [] : [{ name: 'Compared with', text: formatValue(previous, unit, decimals) }]),
      { name: 'Coverage', text: `${formatNumber(coverage * 100, 1)} %` },
      { name: 'Samples', text: formatNumber(samples, 0) },
    ],
  };
}
