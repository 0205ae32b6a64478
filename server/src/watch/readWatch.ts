import { ALARM_PRIORITIES, ALARM_STATES, SAMPLE_TESTS, waitsForPerson, type Watch } from '@vivid-beacon/core';
import { countStanding, urgentAlarms } from '../alarms/listSql';
import { rulesOnMetrics } from '../alarms/watchSql';
import { pageOfAssets } from '../assets/searchSql';
import { countOpenFlags, pageOfFlags } from '../flags/sql';
import { readIndicatorRows, worstFirst } from '../indicators/indicators';
import { countLevels } from '../indicators/storedLevels';
import { countStoredLevels } from '../indicators/levelSql';
import { pageOfIndicators } from '../indicators/sql';
import type { ReadContext } from '../readings/readContext';
import { silentFeeds } from './silentFeeds';

const MAX_PLANTS = 500;
/** More than anybody goes through; of the rest it is told how many there are. */
const MOST = 50;
const FIRST = { offset: 0, limit: MOST };

const WAITING = ALARM_STATES.filter(waitsForPerson);

/** Everything that needs a person now. */
export async function readWatch(context: ReadContext): Promise<Watch> {
  const { db, now } = context;
  const open = { state: 'open', list: 'all' } as const;
  const [plants, alarms, alarmCounts, late, later, flagCounts, worst, kept, silent] = await Promise.all([
    pageOfAssets(db, { parentId: null }, { offset: 0, limit: MAX_PLANTS }),
    urgentAlarms(db, { states: WAITING, priorities: ALARM_PRIORITIES, most: MOST }),
    countStanding(db),
    pageOfFlags(db, { ...open, due: { late: true, now } }, FIRST, { now }),
    pageOfFlags(db, { ...open, due: { late: false, now } }, FIRST, { now, ownFirst: true }),
    countOpenFlags(db, now),
    pageOfIndicators(db, {}, FIRST),
    countStoredLevels(db),
    silentFeeds(db, null, now),
  ]);
  const indicators = await readIndicatorRows(context, worst.items);
  const read = indicators.map((each, i) => ({ ...each, keptLevel: worst.items[i].keptLevel }));
  const silentIds = silent.feeds.map(({ id }) => id);
  return {
    now,
    plants: plants.items
      .filter(({ kind }) => kind === 'plant')
      .map(({ id, name, zone }) => ({ id, name, zone })),
    alarms,
    alarmCounts,
    flags: [...late.items, ...later.items],
    flagCounts,
    indicators: indicators.sort(worstFirst),
    indicatorCounts: countLevels(kept, read),
    silent,
    rulesOn: await rulesOnMetrics(db, silentIds, SAMPLE_TESTS),
  };
}
