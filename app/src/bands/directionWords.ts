import { DIRECTIONS, type TargetBand } from '@vivid-beacon/core';

/** How each kind of band says what is better. */
export const DIRECTION_WORDS: Readonly<Record<TargetBand['direction'], string>> = {
  lower: 'lower is better',
  higher: 'higher is better',
  inside: 'inside is better',
  cuts: 'custom thresholds',
};

const labelled = <T extends TargetBand['direction']>(value: T) => {
  const words = DIRECTION_WORDS[value];
  return { value, label: `${words[0].toUpperCase()}${words.slice(1)}` };
};

/** Choices of a direction. */
export const DIRECTION_CHOICES = DIRECTIONS.map(labelled);

/** The same and custom thresholds. */
export const BAND_CHOICES = [...DIRECTIONS, 'cuts' as const].map(labelled);
