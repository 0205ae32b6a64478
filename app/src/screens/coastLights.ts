import { formatNumber, LEVELS, plantLevels, SEVERITY, type Level, type Watch } from '@vivid-beacon/core';
import type { CoastLight } from '../charts/Coast';

const WORDS: Readonly<Record<Exclude<Level, 'clear'>, readonly [string, string]>> = {
  breach: ['breach', 'breaches'],
  caution: ['caution', 'cautions'],
  nodata: ['without data', 'without data'],
};

const WORST_FIRST = [...LEVELS].sort((a, b) => SEVERITY[a] - SEVERITY[b]);

/** One light for each plant: its worst state, alarms and indicators counted together. */
export function coastLights(watch: Watch): CoastLight[] {
  return watch.plants.map(({ id, name }) => {
    const counts = plantLevels(watch, id);
    const level = WORST_FIRST.find((each) => counts[each] > 0) ?? 'clear';
    if (level === 'clear') return { id, name, level, words: 'all clear' };
    const count = counts[level];
    return { id, name, level, words: `${formatNumber(count, 0)} ${WORDS[level][count === 1 ? 0 : 1]}` };
  });
}
