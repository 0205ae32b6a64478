import { SEVERITY, type Watch } from '@vivid-beacon/core';
import { listStandingAlarms } from '../alarms/sql';
import { listAssets } from '../assets/sql';
import { listOpenFlags } from '../flags/sql';
import { endpoint } from '../http/endpoint';
import { readIndicators } from '../indicators/indicators';
import { toMetric } from '../metrics/metrics';
import { listMetrics } from '../metrics/sql';

export const watchEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/on-watch',
    access: 'viewer',
    summary: 'Everything that needs a person now.',
    answer:
      '{ now, plants, alarms (standing), flags (open), indicators (worst first), silentFeeds (metrics whose feed went quiet) }',
    handle: async ({ app }): Promise<Watch> => {
      const now = app.now();
      const [assets, alarms, flags, indicators, metrics] = await Promise.all([
        listAssets(app.pool),
        listStandingAlarms(app.pool),
        listOpenFlags(app.pool),
        readIndicators(app.pool, now),
        listMetrics(app.pool),
      ]);
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
        // A metric fed by files, a day or more between samples, is not a feed that can go quiet.
        silentFeeds: metrics
          .filter(({ intervalMs }) => intervalMs < 86_400_000)
          .map((row) => toMetric(row, now))
          .filter(({ health }) => health.state === 'silent'),
      };
    },
  }),
];
