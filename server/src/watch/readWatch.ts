import { SEVERITY, type Watch } from '@vivid-beacon/core';
import { listStandingAlarms } from '../alarms/sql';
import { rulesOnMetrics } from '../alarms/watchSql';
import { pageOfAssets } from '../assets/searchSql';
import { listOpenFlags } from '../flags/sql';
import { readIndicators } from '../indicators/indicators';
import type { ReadContext } from '../readings/readContext';
import { silentFeeds } from './silentFeeds';

const MOST_PLANTS = 500;

/** Everything that needs a person now. */
export async function readWatch(context: ReadContext): Promise<Watch> {
  const { db, now } = context;
  const [plants, alarms, flags, indicators, silent] = await Promise.all([
    pageOfAssets(db, { parentId: null }, { offset: 0, limit: MOST_PLANTS }),
    listStandingAlarms(db),
    listOpenFlags(db),
    readIndicators(context),
    silentFeeds(db, null, now),
  ]);
  const silentIds = silent.feeds.map(({ id }) => id);
  return {
    now,
    plants: plants.filter(({ kind }) => kind === 'plant').map(({ id, name, zone }) => ({ id, name, zone })),
    alarms,
    flags,
    indicators: indicators.sort(
      (a, b) => SEVERITY[a.reading.level] - SEVERITY[b.reading.level] || a.name.localeCompare(b.name),
    ),
    silent,
    rulesOn: await rulesOnMetrics(db, silentIds),
  };
}
