import { LEVEL_WORDS, type Level, type TargetBand } from '../bands/targetBand';

/**
 * What a screen reader is told of a value: its level only where a band gives it one, and "No data" only without a value.
 * @example spokenValue('5.1 %', 'nodata', null) // => '5.1 %, not judged'
 */
export function spokenValue(value: string | null, level: Level, band: TargetBand | null): string {
  if (value === null) return LEVEL_WORDS.nodata;
  if (level === 'nodata') return `${value}, not judged`;
  return band ? `${value}, ${LEVEL_WORDS[level]}` : value;
}
