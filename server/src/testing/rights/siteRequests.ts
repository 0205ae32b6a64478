import { DAY_MS, HOUR_MS, MINUTE_MS } from '@vivid-beacon/core';
import { indicatorDraft, ruleDraft } from '../testServer';
import { peopleRequests } from './peopleRequests';
import type { SiteRequest } from './siteRequest';
import type { Site } from './siteWorld';

const plant = (path: SiteRequest['path'] | null, body?: SiteRequest['body']): SiteRequest => ({
  concern: 'plant',
  ...(path ? { path } : {}),
  body,
});
const list = (path?: SiteRequest['path'], body?: SiteRequest['body']): SiteRequest => ({
  concern: 'list',
  path,
  body,
});
const none: SiteRequest = { concern: 'none' };
const all: SiteRequest = { concern: 'all' };

const measure = ({ metricId }: Site) => ({ metricId, summary: 'mean', per: null });
const window = { kind: 'rolling', count: 1, unit: 'day' };
const band = { direction: 'lower', caution: 100, breach: 120, target: null };
const valueAsk = (site: Site) => ({ measure: measure(site), window, band, hours: null });
const day = (now: number) => ({ start: now - DAY_MS, end: now });
const around = (now: number) => `from=${now - DAY_MS}&to=${now + DAY_MS}`;
const derived = ({ metricId, machineId, mark }: Site, name: string) => ({
  assetId: machineId,
  name: `${name} ${mark}`,
  kind: 'level',
  decimals: 1,
  unit: '°C',
  way: 'samples',
  expression: '(a + a) / 2',
  bindings: { a: { kind: 'metric', metricId, summary: null } },
});
const months = { values: [{ start: '2026-01-01', value: 5 }] };

/** A request to each endpoint about one plant, by address. @param now of the server, ms. */
export function siteRequests(now: number): Readonly<Record<string, SiteRequest>> {
  return {
    'GET /api/health': none,
    'GET /api/session': none,
    'POST /api/session': none,
    'DELETE /api/session': none,
    'GET /api/people': plant(({ machineId }) => `/api/people?assetId=${machineId}`),
    ...peopleRequests,
    'GET /api/push-tokens': list(),
    'POST /api/push-tokens': plant(null, ({ plantId, mark }) => ({ name: `Other ${mark}`, plantId })),
    'DELETE /api/push-tokens/:id': plant(({ tokenId }) => `/api/push-tokens/${tokenId}`),
    'PUT /api/push-tokens/:id/rule': plant(
      ({ tokenId }) => `/api/push-tokens/${tokenId}/rule`,
      ({ machineId }) => ({
        assetLabel: 'm',
        metricLabel: null,
        unknown: 'wait',
        parentId: machineId,
        collisions: 'last',
      }),
    ),
    'GET /api/push-tokens/:id/heard': plant(({ tokenId }) => `/api/push-tokens/${tokenId}/heard`),
    'POST /api/push-tokens/:id/heard': plant(
      ({ tokenId }) => `/api/push-tokens/${tokenId}/heard`,
      ({ spareMetricId }) => ({ series: 'washed{line="2"}', metricId: spareMetricId }),
    ),
    'GET /api/assets': list(),
    'GET /api/assets/attributes': list(),
    'POST /api/assets/named': list(undefined, ({ mark }) => ({ names: [`Washer ${mark}`] })),
    'POST /api/assets': plant(null, ({ plantId, mark }) => ({
      name: `Dryer ${mark}`,
      kind: 'machine',
      parentId: plantId,
      zone: null,
    })),
    'PUT /api/assets/:id': plant(
      ({ machineId }) => `/api/assets/${machineId}`,
      ({ plantId, mark }) => ({ name: `Washer ${mark}`, kind: 'machine', parentId: plantId, attributes: {} }),
    ),
    'DELETE /api/assets/:id': plant(({ spareAssetId }) => `/api/assets/${spareAssetId}`),
    'POST /api/assets/list': plant(null, ({ mark }) => ({
      rows: [{ line: 1, path: [`Plant ${mark}`, `Row ${mark}`], kind: 'machine', attributes: {} }],
    })),
    'GET /api/metrics': list(),
    'GET /api/metrics/feeds': none,
    'POST /api/metrics/named': list(undefined, ({ metricKey }) => ({
      metrics: [{ key: metricKey, name: 'x', asset: 'x', unit: '' }],
    })),
    'GET /api/assets/:id/metrics-below': plant(({ plantId }) => `/api/assets/${plantId}/metrics-below`),
    'GET /api/latest': list(),
    'GET /api/metrics/:id': plant(({ metricId }) => `/api/metrics/${metricId}`),
    'POST /api/metrics': plant(null, ({ machineId, mark }) => ({
      assetId: machineId,
      name: `Steam ${mark}`,
      unit: 't',
      kind: 'amount',
      intervalMs: HOUR_MS,
    })),
    'PUT /api/metrics/:id': plant(
      ({ metricId }) => `/api/metrics/${metricId}`,
      ({ mark }) => ({
        name: `Bed ${mark}`,
        unit: '°C',
        kind: 'level',
        intervalMs: MINUTE_MS,
        maxGapMs: 2 * HOUR_MS,
      }),
    ),
    'DELETE /api/metrics/:id': plant(({ spareMetricId }) => `/api/metrics/${spareMetricId}`),
    'GET /api/metrics/:id/removal': plant(({ metricId }) => `/api/metrics/${metricId}/removal`),
    'GET /api/removals/:kind/:id': plant(({ plantId }) => `/api/removals/asset/${plantId}`),
    'GET /api/removals': list(),
    'POST /api/removals/:kind/:id/restoration': plant(
      ({ removedAssetId }) => `/api/removals/asset/${removedAssetId}/restoration`,
    ),
    'GET /api/removed-metrics': list(),
    'POST /api/removed-metrics/:id/restoration': plant(
      ({ removedMetricId }) => `/api/removed-metrics/${removedMetricId}/restoration`,
    ),
    'DELETE /api/removed-metrics/:id': plant(
      ({ erasedMetricId, mark }) =>
        `/api/removed-metrics/${erasedMetricId}?name=${encodeURIComponent(`Worn ${mark}`)}`,
    ),
    'POST /api/samples': none,
    'GET /api/calendars/:id': plant(({ plantId }) => `/api/calendars/${plantId}`),
    'PUT /api/calendars/:id': plant(
      ({ plantId }) => `/api/calendars/${plantId}`,
      () => ({ shifts: [], holidays: [], firstWeekday: 1, financialYearMonth: 4 }),
    ),
    'GET /api/holidays/countries': none,
    'GET /api/holidays': none,
    'POST /api/calendars/:id/read': plant(
      ({ plantId }) => `/api/calendars/${plantId}/read`,
      () => ({}),
    ),
    'GET /api/derived/functions': none,
    'POST /api/derived/preview': plant(null, (site) => {
      const { expression, bindings } = derived(site, '');
      return { expression, bindings, way: 'samples', unit: '°C' };
    }),
    'GET /api/derived/:id': plant(({ derivedId }) => `/api/derived/${derivedId}`),
    'POST /api/derived': plant(null, (site) => derived(site, 'Again')),
    'PUT /api/derived/:id': plant(
      ({ derivedId }) => `/api/derived/${derivedId}`,
      (site) => derived(site, 'Twice'),
    ),
    'GET /api/factors': none,
    'POST /api/factors': all,
    'GET /api/stops': list(() => `/api/stops?${around(now)}`),
    'GET /api/stops/reasons': list(({ machineId }) => `/api/stops/reasons?assetId=${machineId}`),
    'POST /api/stops': plant(null, ({ machineId, mark }) => ({
      assetId: machineId,
      ...day(now),
      reason: `Belt ${mark}`,
    })),
    'PUT /api/stops/:id': plant(
      ({ stopId }) => `/api/stops/${stopId}`,
      ({ machineId, mark }) => ({ assetId: machineId, ...day(now), reason: `Jam ${mark}` }),
    ),
    'DELETE /api/stops/:id': plant(({ stopId }) => `/api/stops/${stopId}`),
    'POST /api/stops/list': plant(null, ({ machineId }) => ({
      entries: [{ key: 'a', assetId: machineId, ...day(now), reason: 'Belt' }],
    })),
    'GET /api/jobs': list(() => '/api/jobs?days=30'),
    'POST /api/jobs': plant(null, ({ machineId, mark }) => ({
      assetId: machineId,
      number: `18 ${mark}`,
      history: [{ at: now - DAY_MS, status: 'open' }],
    })),
    'POST /api/jobs/list': plant(null, ({ machineId }) => ({
      jobs: [{ assetId: machineId, number: '19', history: [{ at: now - DAY_MS, status: 'open' }] }],
    })),
    'POST /api/jobs/:id/statuses': plant(
      ({ jobId }) => `/api/jobs/${jobId}/statuses`,
      () => ({ at: now - 1000, status: 'done' }),
    ),
    'GET /api/desks/:id/statuses': list(({ machineId }) => `/api/desks/${machineId}/statuses`),
    'PUT /api/desks/:id/statuses': plant(
      ({ machineId }) => `/api/desks/${machineId}/statuses`,
      () => ({ kinds: [{ status: 'open', stopsClock: false, endsJob: false }] }),
    ),
    'POST /api/reference-series': plant(null, ({ plantId, mark }) => ({
      assetId: plantId,
      name: `Plan ${mark}`,
      kind: 'amount',
      period: 'month',
    })),
    'GET /api/reference-series/:id/values': plant(
      ({ referenceId }) => `/api/reference-series/${referenceId}/values`,
    ),
    'PUT /api/reference-series/:id/values': plant(
      ({ referenceId }) => `/api/reference-series/${referenceId}/values`,
      () => months,
    ),
    'GET /api/remarks': list(({ machineId }) => `/api/remarks?assetId=${machineId}&${around(now)}`),
    'POST /api/remarks': plant(null, ({ machineId, mark }) => ({
      assetId: machineId,
      ...day(now),
      kind: 'note',
      text: `Lid ${mark}`,
    })),
    'DELETE /api/remarks/:id': plant(({ remarkId }) => `/api/remarks/${remarkId}`),
    'GET /api/metrics/:id/coverage': plant(({ metricId }) => `/api/metrics/${metricId}/coverage`),
    'POST /api/metrics/:id/degree-days': plant(
      ({ metricId }) => `/api/metrics/${metricId}/degree-days`,
      () => ({ window, base: 18, kind: 'heating', method: 'minMax' }),
    ),
    'GET /api/metrics/:id/samples': plant(
      ({ metricId }) => `/api/metrics/${metricId}/samples?${around(now)}`,
    ),
    'GET /api/exports/samples': plant(
      ({ metricId }) => `/api/exports/samples?metricIds=${metricId}&${around(now)}&format=csv`,
    ),
    'POST /api/readings': list(undefined, (site) => ({ asks: [{ kind: 'value', ask: valueAsk(site) }] })),
    'POST /api/readings/query': plant(null, ({ metricId }) => ({
      measures: [{ select: { metricIds: [metricId] }, summary: 'mean' }],
      window,
      bucket: 'hour',
      groupBy: { kind: 'metric' },
      hours: null,
    })),
    'POST /api/readings/value': plant(null, valueAsk),
    'POST /api/readings/trend': plant(null, (site) => ({ measure: measure(site), window, columns: 400 })),
    'POST /api/readings/levels': plant(null, (site) => ({ measure: measure(site), band, ...day(now) })),
    'POST /api/readings/distribution': plant(null, (site) => ({ measure: measure(site), window })),
    'POST /api/readings/notes': list(undefined, (site) => ({
      assetIds: [site.machineId],
      window,
      bucket: 'day',
    })),
    'POST /api/readings/stretch': plant(null, (site) => ({ measures: [measure(site)], ...day(now), band })),
    'GET /api/intakes': list(),
    'GET /api/intakes/:id': plant(({ intakeId }) => `/api/intakes/${intakeId}`),
    'GET /api/intakes/:id/balance.csv': plant(({ intakeId }) => `/api/intakes/${intakeId}/balance.csv`),
    'GET /api/intake-mappings': none,
    'POST /api/intakes': none,
    // An intake under way belongs to the person who began it, whatever their plants.
    'POST /api/intakes/:id/parts': none,
    'GET /api/intakes/:id/check': none,
    'POST /api/intakes/:id/finish': none,
    'DELETE /api/intakes/:id': none,
    'POST /api/intakes/:id/undo': plant(({ intakeId }) => `/api/intakes/${intakeId}/undo`),
    'GET /api/boards': { concern: 'board' },
    'GET /api/boards/:id': { concern: 'board', path: ({ boardId }) => `/api/boards/${boardId}` },
    'POST /api/boards': { concern: 'board' },
    'PUT /api/boards/:id': { concern: 'board', path: ({ boardId }) => `/api/boards/${boardId}` },
    'GET /api/boards/labels': { concern: 'board' },
    'POST /api/boards/:id/restoration': { concern: 'board' },
    'GET /api/boards/:id/sharing': { concern: 'board' },
    'PUT /api/boards/:id/sharing': { concern: 'board' },
    'PUT /api/boards/:id/labels': { concern: 'board' },
    'PUT /api/boards/:id/archived': { concern: 'board' },
    'PUT /api/boards/:id/favourite': { concern: 'board' },
    'GET /api/boards/:id/versions': { concern: 'board' },
    'GET /api/boards/:id/versions/:revision': { concern: 'board' },
    'POST /api/boards/:id/versions/:revision/restoration': { concern: 'board' },
    'DELETE /api/boards/:id': { concern: 'board', path: ({ boardId }) => `/api/boards/${boardId}` },
    'GET /api/boards/:id/readouts/:picture': plant(({ boardId }) => `/api/boards/${boardId}/readouts/a.csv`),
    'GET /api/boards/:id/numbers.xlsx': {
      concern: 'board',
      path: ({ boardId }) => `/api/boards/${boardId}/numbers.xlsx`,
    },
    'GET /api/alarms': list(),
    'GET /api/alarms/waiting': none,
    'GET /api/alarms/on-time': list(
      ({ metricId }) => `/api/alarms/on-time?metricIds=${metricId}&${around(now)}`,
    ),
    'GET /api/alarms/:id': plant(({ alarmId }) => `/api/alarms/${alarmId}`),
    'POST /api/alarms/:id/acknowledgement': plant(
      ({ alarmId }) => `/api/alarms/${alarmId}/acknowledgement`,
      () => ({ remark: '' }),
    ),
    // Not latched just now: 409 to whoever reaches it.
    'POST /api/alarms/:id/reset': plant(({ alarmId }) => `/api/alarms/${alarmId}/reset`),
    'POST /api/alarms/:id/remarks': plant(
      ({ alarmId }) => `/api/alarms/${alarmId}/remarks`,
      () => ({ remark: 'Seen' }),
    ),
    'GET /api/alarm-rules': list(),
    'GET /api/alarm-rules/:id': plant(({ ruleId }) => `/api/alarm-rules/${ruleId}`),
    'POST /api/alarm-rules': plant(null, ({ metricId, mark }) =>
      ruleDraft(metricId, { name: `Warm ${mark}` }),
    ),
    'DELETE /api/alarm-rules/:id': plant(({ ruleId }) => `/api/alarm-rules/${ruleId}`),
    'PUT /api/alarm-rules/:id/aside': plant(
      ({ ruleId }) => `/api/alarm-rules/${ruleId}/aside`,
      () => ({ kind: 'shelved', forMs: HOUR_MS, reason: 'Test' }),
    ),
    'DELETE /api/alarm-rules/:id/aside': plant(({ ruleId }) => `/api/alarm-rules/${ruleId}/aside`),
    'POST /api/alarm-rules/rehearsal': plant(null, ({ metricId }) => ({ ...ruleDraft(metricId), days: 7 })),
    'POST /api/alarm-rules/rehearsal/course': plant(null, ({ metricId }) => ({
      ...ruleDraft(metricId),
      days: 7,
    })),
    'POST /api/alarm-rules/rehearsal/limits': plant(null, ({ metricId }) => ({
      ...ruleDraft(metricId),
      days: 7,
    })),
    'GET /api/alarm-health': list(() => '/api/alarm-health?days=1'),
    'PUT /api/alarm-health/operators': all,
    'GET /api/first-steps': none,
    'PUT /api/first-steps': none,
    'GET /api/flags': list(() => '/api/flags?list=all'),
    'GET /api/flags/on-time': list(
      ({ metricId }) => `/api/flags/on-time?metricIds=${metricId}&${around(now)}`,
    ),
    'GET /api/flags/:id': plant(({ flagId }) => `/api/flags/${flagId}`),
    'POST /api/flags': plant(null, ({ machineId, metricId, mark }) => ({
      title: `Look ${mark}`,
      note: '',
      toPersonId: '4',
      dueAt: now + DAY_MS,
      assetId: machineId,
      metricId,
    })),
    'POST /api/flags/:id/in-hand': plant(({ flagId }) => `/api/flags/${flagId}/in-hand`),
    'POST /api/flags/:id/comments': plant(
      ({ flagId }) => `/api/flags/${flagId}/comments`,
      () => ({ remark: 'Seen' }),
    ),
    'POST /api/flags/:id/taker': plant(
      ({ flagId }) => `/api/flags/${flagId}/taker`,
      () => ({ toPersonId: '4' }),
    ),
    'POST /api/flags/:id/outcome': plant(
      ({ flagId }) => `/api/flags/${flagId}/outcome`,
      () => ({ outcome: 'mended' }),
    ),
    'DELETE /api/flags/:id/outcome': plant(({ closedFlagId }) => `/api/flags/${closedFlagId}/outcome`),
    'GET /api/flag-causes': none,
    'POST /api/flag-causes': all,
    'DELETE /api/flag-causes/:id': all,
    'GET /api/notices': none,
    'GET /api/notice-wish': none,
    'PUT /api/notice-wish': none,
    'GET /api/indicators': list(),
    'GET /api/indicators/time-by-level': list(() => '/api/indicators/time-by-level?days=1'),
    'GET /api/indicators/:id': plant(({ indicatorId }) => `/api/indicators/${indicatorId}`),
    'GET /api/indicators/:id/history': plant(({ indicatorId }) => `/api/indicators/${indicatorId}/history`),
    'POST /api/indicators': plant(null, ({ plantId, metricId, mark }) =>
      indicatorDraft(plantId, metricId, { name: `New ${mark}` }),
    ),
    'PUT /api/indicators/:id': plant(
      ({ indicatorId }) => `/api/indicators/${indicatorId}`,
      ({ plantId, metricId, mark }) => ({
        from: 1,
        definition: indicatorDraft(plantId, metricId, { name: `Mean ${mark}` }),
      }),
    ),
    'PUT /api/indicators/:id/targets': plant(
      ({ indicatorId }) => `/api/indicators/${indicatorId}/targets`,
      () => months,
    ),
    'DELETE /api/indicators/:id': plant(({ spareIndicatorId }) => `/api/indicators/${spareIndicatorId}`),
    'POST /api/indicators/preview': plant(null, ({ plantId, metricId }) => ({
      definition: indicatorDraft(plantId, metricId),
      values: [],
    })),
    'POST /api/indicators/suggested-targets': plant(null, (site) => ({
      measure: measure(site),
      window: { kind: 'periods', count: 3, unit: 'month', current: false },
      hours: null,
      direction: 'lower',
    })),
    'GET /api/on-watch': list(),
    'GET /api/handover': plant(({ plantId }) => `/api/handover?plantId=${plantId}`),
    'POST /api/handover/notes': plant(null, ({ plantId, mark }) => ({
      plantId,
      shift: Math.floor(now / DAY_MS) * DAY_MS,
      text: `Loose ${mark}`,
    })),
    'GET /api/live': none,
  };
}
