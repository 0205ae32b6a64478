import { SEVERITY, type Watch } from '@vivid-beacon/core';
import { listStandingAlarms } from '../alarms/sql';
import { listAssets } from '../assets/sql';
import { listOpenFlags } from '../flags/sql';
import { endpoint } from '../http/endpoint';
import { readIndicators } from '../indicators/indicators';
import { rulesOnMetrics } from '../alarms/watchSql';
import { silentFeeds } from './silentFeeds';

export const watchEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/on-watch',
    access: 'viewer',
    summary: 'Everything that needs a person now.',
    answer:
      '{ now, plants, alarms (standing), flags (open), indicators (worst first), silentFeeds (metrics whose feed went quiet), rulesOn ({ [metricId]: how many alarm rules see nothing }) }',
    handle: async ({ app }): Promise<Watch> => {
      const now = app.now();
      const [assets, alarms, flags, indicators, silent] = await Promise.all([
        listAssets(app.pool),
        listStandingAlarms(app.pool),
        listOpenFlags(app.pool),
        readIndicators(app.pool, now),
        silentFeeds(app.pool, now),
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
        rulesOn: await rulesOnMetrics(app.pool, silentIds),
      };
    },
  }),
];
