import { SEVERITY, type Watch } from '@vivid-beacon/core';
import { listStandingAlarms } from '../alarms/sql';
import { rulesOnMetrics } from '../alarms/watchSql';
import { listAssets } from '../assets/sql';
import { listOpenFlags } from '../flags/sql';
import { readIndicators } from '../indicators/indicators';
import type { ReadContext } from '../readings/readContext';
import { silentFeeds } from './silentFeeds';

/** Everything that needs a person now. */
export async function readWatch(context: ReadContext): Promise<Watch> {
  const { db, now } = context;
  const [assets, alarms, flags, indicators, silent] = await Promise.all([
    listAssets(db),
    listStandingAlarms(db),
    listOpenFlags(db),
    readIndicators(context),
    silentFeeds(db, now),
  ]);
  const silentIds = silent.map(({ id }) => id);
  return {
    now,
    plants: assets
      .filter(({ kind, parentId }) => parentId === null && kind === 'plant')
      .map(({ id, name, zone }) => ({ id, name, zone })),
    alarms,
    flags,
    indicators: indicators.sort(
      (a, b) => SEVERITY[a.reading.level] - SEVERITY[b.reading.level] || a.name.localeCompare(b.name),
    ),
    silentFeeds: silent,
    rulesOn: await rulesOnMetrics(db, silentIds),
  };
}
