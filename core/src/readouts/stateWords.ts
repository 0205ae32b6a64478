import { distanceOf, LEVEL_WORDS, type TargetBand } from '../bands/targetBand';
import { formatDistance, formatNumber } from '../format/format';
import type { ReadData } from './readoutData';
import type { ReadoutValue } from './readoutValues';

/** The parts of a value that its state depends on. */
export type JudgedValue = Pick<ReadoutValue, 'value' | 'level' | 'coverage' | 'partial'>;

/** Whether there is a value of too little data to be judged: it is shown faint, with its coverage and without a level. */
export const isThin = ({ value, level }: Pick<ReadoutValue, 'value' | 'level'>): boolean =>
  value !== null && level === 'nodata';

/** The level in a word; of a value that is not judged, its coverage. Without a band no value has a level: "". */
export function levelWord(
  reading: Pick<ReadoutValue, 'value' | 'level' | 'coverage'>,
  judged: boolean,
): string {
  if (isThin(reading)) return `coverage ${formatNumber(reading.coverage * 100, 0)} %`;
  return judged || reading.value === null ? LEVEL_WORDS[reading.level] : '';
}

/** The state of a value in words: "Breach, 1.3 over limit". */
export function stateWords(reading: JudgedValue, band: TargetBand | null, decimals: number): string {
  if (isThin(reading)) return `not judged, coverage only ${formatNumber(reading.coverage * 100, 0)} %`;
  if (reading.value === null) return LEVEL_WORDS.nodata;
  if (!band) return 'no target band';
  const distance = distanceOf(band, reading.value);
  const word = LEVEL_WORDS[reading.level];
  if (!distance) return word;
  const onTarget = distance.words.endsWith('target') && Number(distance.by.toFixed(decimals)) === 0;
  return onTarget
    ? `${word}, on target`
    : `${word}, ${formatDistance(distance.by, decimals)} ${distance.words}`;
}

/**
 * Whether a value has a lamp. Without a target band only missing data has one, because nothing can be Clear; a value of
 * too little data has no level.
 */
export const isLit = (reading: Pick<ReadoutValue, 'value' | 'level'>, band: TargetBand | null): boolean =>
  reading.value === null || (band !== null && !isThin(reading));

/** That a window is not over yet, for the words under a drawing; "" once it is. */
export const unfinishedWords = ({ window, now }: Pick<ReadData, 'window' | 'now'>): string =>
  window.end > now ? 'Unfinished period.' : '';
