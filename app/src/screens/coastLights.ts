import { isSetAside, needsAcknowledgement, SEVERITY, type Level, type Watch } from '@vivid-beacon/core';
import type { CoastLight } from '../charts/Coast';

const WORDS: Readonly<Record<Exclude<Level, 'clear'>, readonly [string, string]>> = {
  breach: ['breach', 'breaches'],
  caution: ['caution', 'cautions'],
  nodata: ['without data', 'without data'],
};

/** One light for each plant: its worst state, alarms and indicators counted together. */
export function coastLights(watch: Watch): CoastLight[] {
  return watch.plants.map(({ id, name }) => {
    const levels: Level[] = [
      ...watch.alarms
        .filter(
          (alarm) =>
            alarm.plantId === id &&
            !isSetAside(alarm.state) &&
            (alarm.returnedAt === null || needsAcknowledgement(alarm.state)),
        )
        .map((alarm) => (alarm.returnedAt === null ? alarm.level : 'clear')),
      ...watch.indicators.filter((indicator) => indicator.plantId === id).map(({ reading }) => reading.level),
    ];
    const level = levels.reduce<Level>(
      (worst, each) => (SEVERITY[each] < SEVERITY[worst] ? each : worst),
      'clear',
    );
    if (level === 'clear') return { id, name, level, words: 'all clear' };
    const count = levels.filter((each) => each === level).length;
    return { id, name, level, words: `${count} ${WORDS[level][count === 1 ? 0 : 1]}` };
  });
}
