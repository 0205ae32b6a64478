import { DAY_MS, HOUR_MS, MINUTE_MS, WHOLE_SCOPE } from '@vivid-beacon/core';
import { emptyReadout, BOARD_FORMAT_VERSION } from '@vivid-beacon/core/src/boards';
import { finishOrder, indicatorDraft, PASSWORD, ruleDraft } from '../testServer';

/** Valid requests by "POST /api/…": the fuzzer changes them, so that it gets past the first checks. */
export type GoodBodies = Readonly<Record<string, readonly object[]>>;

/** How many metrics with samples the world has. */
export const WORLD_METRICS = 24;
export const ADMINISTRATOR = 'administrator@test.example';
/** A series received with the world's token and not yet mapped. */
export const WAITING = 'washed{line="2"}';
const SHAPE = 'a'.repeat(64);

/** The ids that requests use. */
export interface Named {
  readonly plantId: string;
  readonly machineId: string;
  /** Level, amount, register and state by turns. */
  readonly metricIds: readonly string[];
  /** ms since 1970. */
  readonly now: number;
}

/**
 * A valid request for each endpoint with a body: the fuzzer changes them, and the world is built with them.
 */
export function goodBodies({ plantId, machineId, metricIds, now }: Named): GoodBodies {
  const rule = ruleDraft(metricIds[0], { test: { kind: 'limit', side: 'above', limit: 80, deadband: 1 } });
  const indicator = indicatorDraft(plantId, metricIds[0]);
  const window = { kind: 'rolling', count: 7, unit: 'day' };
  const measure = { metricId: metricIds[0], summary: 'mean', per: null };
  const band = { direction: 'lower', caution: 100, breach: 120, target: null };
  const day = { start: now - DAY_MS, end: now };
  const board = {
    title: 'Floor',
    document: {
      version: BOARD_FORMAT_VERSION,
      window,
      readouts: [
        { ...emptyReadout('a', 'trend'), measures: [measure], window },
        { ...emptyReadout('b', 'note'), text: 'Belts' },
      ],
      scope: WHOLE_SCOPE,
      hours: { kind: 'clock', from: '06:00', to: '22:00' },
    },
  };
  const days = [1, 2, 3, 4, 5, 6, 7];
  const shifts = [
    { name: 'Day', days, from: '06:00', to: '18:00' },
    { name: 'Night', days, from: '18:00', to: '06:00' },
  ];
  const calendar = {
    shifts,
    holidays: [{ date: '2026-12-25', name: 'Holiday' }],
    firstWeekday: 1,
    financialYearMonth: 4,
  };
  const derived = {
    assetId: plantId,
    name: 'Mean bed',
    kind: 'level',
    decimals: 1,
    unit: '°C',
    way: 'samples',
    expression: '(a + b) / 2',
    bindings: {
      a: { kind: 'metric', metricId: metricIds[0], summary: null },
      b: { kind: 'metric', metricId: metricIds[4], summary: null },
    },
  };
  const flag = {
    title: 'Look at the bed',
    toPersonId: '1',
    dueAt: now + DAY_MS,
    assetId: plantId,
    metricId: metricIds[0],
  };
  const stop = { assetId: machineId, start: day.start, end: day.end, reason: 'Belt' };
  const job = { assetId: machineId, number: '17', history: [{ at: day.start - DAY_MS, status: 'open' }] };
  const file = { fileName: 'a.csv', fileSize: 10, fileHash: SHAPE, layout: {} };
  const query = {
    measures: [{ select: { metricIds: metricIds.filter((_, i) => i % 4 === 0) }, summary: 'mean' }],
    window,
    bucket: 'hour',
    groupBy: { kind: 'metric' },
    hours: null,
  };
  const values = {
    values: [
      { start: '2026-01-01', value: 5 },
      { start: '2199-01-01', value: 5 },
    ],
  };
  return {
    'POST /api/assets': [
      { name: 'Dryer', kind: 'machine', parentId: plantId, zone: null, attributes: { area: 5 } },
    ],
    'POST /api/metrics': [
      { assetId: plantId, name: 'Steam', unit: 't', kind: 'amount', intervalMs: HOUR_MS },
    ],
    'PUT /api/assets/:id': [{ name: 'Washer', kind: 'machine', parentId: plantId, attributes: {} }],
    'POST /api/assets/list': [
      {
        rows: [
          { line: 1, path: ['Quayside', 'Wash house', 'Washer 3'], kind: 'machine', attributes: { area: 3 } },
        ],
      },
    ],
    'PUT /api/metrics/:id': [{ name: 'Bed temperature', unit: '°C', kind: 'level', intervalMs: MINUTE_MS }],
    'PUT /api/derived/:id': [derived, { ...derived, name: 'Bed' }],
    'PUT /api/stops/:id': [stop],
    'POST /api/jobs/:id/statuses': [{ at: day.end - 1000, status: 'done' }],
    'POST /api/flags/:id/outcome': [{ outcome: 'mended' }],
    'POST /api/flags/:id/taker': [{ toPersonId: '1' }],
    'PUT /api/alarm-rules/:id/aside': [{ kind: 'shelved', forMs: HOUR_MS, reason: 'Test' }],
    'POST /api/boards': [
      board,
      { ...board, shares: [{ to: 'role', role: 'viewer', plantId: null, may: 'see' }] },
    ],
    'PUT /api/boards/:id/sharing': [
      { ownerId: '1', shares: [{ to: 'person', personId: '2', may: 'change' }] },
      { ownerId: '1', shares: [{ to: 'role', role: 'operator', plantId, may: 'see' }] },
    ],
    'PUT /api/boards/:id/labels': [{ labels: ['Energy'] }],
    'PUT /api/boards/:id/archived': [{ archived: false }],
    'PUT /api/boards/:id/favourite': [{ favourite: true }],
    'POST /api/boards/:id/versions/:revision/restoration': [{ revision: 2 }],
    'PUT /api/boards/:id': [
      { ...board, revision: 1 },
      { ...board, document: { ...board.document, readouts: [emptyReadout('a', 'note')] }, revision: 2 },
    ],
    'POST /api/alarm-rules': [rule, { ...rule, latching: true }],
    'POST /api/alarm-rules/rehearsal': [{ ...rule, days: 400 }],
    'POST /api/alarm-rules/rehearsal/limits': [{ ...rule, days: 60 }],
    'POST /api/indicators': [indicator],
    'POST /api/indicators/preview': [{ definition: indicator, values: [] }],
    'POST /api/indicators/suggested-targets': [
      {
        measure,
        window: { kind: 'periods', count: 3, unit: 'month', current: false },
        hours: null,
        direction: 'lower',
      },
    ],
    'PUT /api/indicators/:id': [1, 2, 3].map((from) => ({
      from,
      definition: { ...indicator, name: `Mean ${from}` },
    })),
    'PUT /api/indicators/:id/targets': [values],
    'PUT /api/calendars/:id': [calendar],
    'POST /api/derived': ['Mean bed', ...'abcdef'].map((name) => ({ ...derived, name })),
    'POST /api/derived/preview': [
      { expression: derived.expression, bindings: derived.bindings, way: 'samples', unit: '°C' },
    ],
    'POST /api/flags': [flag],
    'POST /api/stops': [stop],
    'POST /api/stops/list': [{ entries: [{ key: 'a', ...stop }] }],
    'POST /api/jobs': [job],
    'POST /api/jobs/list': [{ jobs: [job] }],
    'POST /api/remarks': [{ assetId: plantId, ...day, kind: 'note', text: 'Door open' }],
    'POST /api/reference-series': [{ assetId: plantId, name: 'Budget', kind: 'amount', period: 'month' }],
    'PUT /api/reference-series/:id/values': [values],
    'POST /api/factors': [{ name: 'Gas', values: [{ from: '2026-01-01', value: 0.2 }] }],
    'POST /api/metrics/:id/degree-days': [{ window, base: 18, kind: 'heating', method: 'minMax' }],
    'POST /api/readings/value': [{ measure, window, band, hours: null }],
    'POST /api/readings/trend': [
      { measure, window, bucket: 'hour', columns: 400 },
      { measure, window, columns: 400 },
    ],
    'POST /api/readings/levels': [{ measure, band, ...day }],
    'POST /api/readings/distribution': [{ measure, window }],
    'POST /api/readings/stretch': [{ measures: [measure], ...day, band }],
    'POST /api/readings/notes': [{ assetIds: [machineId], window, bucket: 'day', hours: null }],
    'POST /api/readings/query': [
      query,
      {
        ...query,
        measures: [{ select: { metricName: 'Bed temperature' }, summary: 'mean', band }],
        groupBy: { kind: 'asset' },
      },
    ],
    'POST /api/intakes': [file],
    'POST /api/intakes/:id/finish': [finishOrder(1), finishOrder(0)],
    'GET /api/handover': [{ plantId }],
    'GET /api/holidays': [{ country: 'GB', from: 2026, to: 2027 }],
    'GET /api/intake-mappings': [{ shape: SHAPE }],
    'POST /api/accounts': [{ name: 'New', email: 'new@test.example', rights: { everywhere: 'viewer' } }],
    'PUT /api/accounts/:id': [
      { name: 'New', email: 'other@test.example', rights: { everywhere: 'administrator' } },
      { name: 'New', email: 'new@test.example', rights: { plants: { [plantId]: 'analyst' } } },
    ],
    'PUT /api/accounts/:id/disabled': [{ disabled: false }],
    'POST /api/accounts/:id/invitation': [{ holdsForH: 24 }],
    'PUT /api/own-account': [
      { name: 'The administrator', startAt: '/boards/1', formats: null },
      {
        name: 'The administrator',
        startAt: '/',
        formats: { numbers: '1.234,5', dateOrder: 'monthDay', clock: '12', firstWeekday: 7 },
      },
    ],
    'POST /api/session': [
      { email: ADMINISTRATOR, password: PASSWORD },
      { email: 'nobody@test.example', password: 'x' },
    ],
    // The beginnings of all shifts of the last day.
    'POST /api/handover/notes': [6, 18].flatMap((hour) =>
      [0, 1].map((ago) => ({
        plantId,
        shift: Math.floor(now / DAY_MS - ago) * DAY_MS + hour * HOUR_MS,
        text: 'Belt is loose',
      })),
    ),
    'PUT /api/push-tokens/:id/rule': [
      { assetLabel: 'machine', metricLabel: null, unknown: 'wait', parentId: null, collisions: 'last' },
    ],
    'POST /api/push-tokens/:id/heard': [{ series: WAITING, metricId: metricIds[1] }],
    'POST /api/alarms/:id/acknowledgement': [{ remark: 'Seen' }],
    'POST /api/alarms/:id/remarks': [{ remark: 'Seen' }],
    'POST /api/flags/:id/comments': [{ remark: 'Seen' }],
    'PUT /api/notice-wish': [
      { byEmail: true, byText: false, quiet: { from: '22:00', to: '06:00' }, zone: 'Europe/London' },
    ],
  };
}
