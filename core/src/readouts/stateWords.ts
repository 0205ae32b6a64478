import { distanceOf, LEVEL_WORDS, type TargetBand } from '../bands/targetBand';
import { formatDistance, formatNumber } from '../format/format';
import type { ReadoutValue } from './readoutValues';

/** The parts of a value that its state depends on. */
export type JudgedValue = Pick<ReadoutValue, 'value' | 'level' | 'coverage' | 'partial'>;

/** The state of a value in words: "Breach, 1.3 over limit". */
export function stateWords(reading: JudgedValue, band: TargetBand | null, decimals: number): string {
  if (reading.level === 'nodata') {
    return reading.value === null
      ? LEVEL_WORDS.nodata
      : `No data, coverage only ${formatNumber(reading.coverage * 100, 0)} %`;
  }
  if (!band || reading.value === null) return 'no target band';
  const distance = distanceOf(band, reading.value);
  const word = LEVEL_WORDS[reading.level];
  if (!distance) return word;
  const onTarget = distance.words.endsWith('target') && Number(distance.by.toFixed(decimals)) === 0;
  return onTarget
    ? `${word}, on target`
    : `${word}, ${formatDistance(distance.by, decimals)} ${distance.words}`;
}

/**
 * Whether a value has a lamp. Without a target band only missing data has one, because nothing can be Clear.
 */
export const isLit = ({ level }: Pick<ReadoutValue, 'level'>, band: TargetBand | null): boolean =>
  band !== null || level === 'nodata';
