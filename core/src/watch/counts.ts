import { isSetAside, waitsForPerson } from '../alarms/lifecycle';
import type { AlarmCount, LevelCounts, Watch } from '../api/watch';
import { LEVELS } from '../bands/targetBand';

/** Active alarms, by what they ask of a person. */
export interface StandingCounts {
  /** For an acknowledgement or a reset. */
  readonly waiting: number;
  readonly acknowledged: number;
  readonly setAside: number;
}

/** How many of a plant's alarms ask for what; null = of all plants. */
export function standingCounts(counts: readonly AlarmCount[], plantId: string | null): StandingCounts {
  const sum = (which: (state: AlarmCount['state']) => boolean): number =>
    counts
      .filter((each) => (plantId === null || each.plantId === plantId) && which(each.state))
      .reduce((total, { n }) => total + n, 0);
  return {
    waiting: sum(waitsForPerson),
    acknowledged: sum((state) => state === 'acknowledged'),
    setAside: sum(isSetAside),
  };
}

/** How many flags of a plant are open, late and not yet; null = of all plants. */
export function openFlags(
  counts: Watch['flagCounts'],
  plantId: string | null,
): { readonly late: number; readonly later: number } {
  const all = plantId === null ? Object.values(counts) : [counts[plantId] ?? { late: 0, later: 0 }];
  return {
    late: all.reduce((sum, { late }) => sum + late, 0),
    later: all.reduce((sum, { later }) => sum + later, 0),
  };
}

/** How many indicators of a plant there are; null = of all plants. */
export function indicatorTotal(counts: Watch['indicatorCounts'], plantId: string | null): number {
  const all = plantId === null ? Object.values(counts) : [counts[plantId] ?? NO_LEVELS];
  return all.reduce((sum, levels) => sum + LEVELS.reduce((n, level) => n + levels[level], 0), 0);
}

export const NO_LEVELS: LevelCounts = { clear: 0, caution: 0, breach: 0, nodata: 0 };

/** The levels of a plant: of its alarms that stand and are not set aside, and of its indicators, together. */
export function plantLevels(
  { alarmCounts, indicatorCounts }: Pick<Watch, 'alarmCounts' | 'indicatorCounts'>,
  plantId: string,
): LevelCounts {
  const counts = { ...NO_LEVELS, ...indicatorCounts[plantId] };
  for (const each of alarmCounts) {
    if (each.plantId === plantId && each.stands && !isSetAside(each.state)) counts[each.level] += each.n;
  }
  return counts;
}
