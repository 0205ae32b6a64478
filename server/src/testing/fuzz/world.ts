import { emptyReadout, startBoard, WHOLE_SCOPE, type Asset, type Metric } from '@vivid-beacon/core';
import { DAY_MS, HOUR_MS, MINUTE_MS } from '@vivid-beacon/core';
import { withTransaction, type Pool } from '../../db/database';
import { mergeIntoStore } from '../../samples/store';
import { finishOrder, indicatorDraft, PASSWORD, ruleDraft, type Visitor } from '../testServer';
import type { GoodBodies } from './requests';

const ASSETS = 24;
export const ADMINISTRATOR = 'administrator@test.example';
const SHAPE = 'a'.repeat(64);

/** A plant with something of everything, enough of it that a careless request is dear. @returns requests that are right. */
export async function makeWorld(
  pool: Pool,
  administrator: Visitor,
): Promise<{ good: GoodBodies; token: string }> {
  const make = async <T extends { id: string }>(path: string, body: object): Promise<T> => {
    const answer = await administrator.call<T>('POST', path, body);
    if (answer.status >= 300) throw new Error(`${path}: ${JSON.stringify(answer.body)}`);
    return answer.body;
  };
  const plant = await make('/api/assets', {
    name: 'Quayside',
    kind: 'plant',
    zone: 'Europe/London',
    attributes: { area: 900 },
  });
  const metricIds: string[] = [];
  for (let i = 0; i < ASSETS; i++) {
    const asset = await make('/api/assets', {
      name: `Washer ${i}`,
      kind: 'machine',
      parentId: plant.id,
      attributes: { area: i },
    });
    const kind = (['level', 'amount', 'register', 'state'] as const)[i % 4];
    const metric = {
      assetId: asset.id,
      name: 'Bed temperature',
      unit: kind === 'state' ? '' : '°C',
      kind,
      intervalMs: MINUTE_MS,
    };
    metricIds.push((await make('/api/metrics', metric)).id);
  }
  await fill(pool, metricIds);
  const rule = ruleDraft(metricIds[0], { test: { kind: 'limit', side: 'above', limit: 80, deadband: 1 } });
  const indicator = indicatorDraft(plant.id, metricIds[0]);
  const window = { kind: 'rolling', count: 7, unit: 'day' };
  const measure = { metricId: metricIds[0], summary: 'mean', per: null };
  const band = { direction: 'lower', caution: 100, breach: 120, target: null };
  const day = { start: Date.now() - DAY_MS, end: Date.now() };
  const assets = (await administrator.call<Asset[]>('GET', '/api/assets')).body;
  const metrics = (await administrator.call<Metric[]>('GET', '/api/metrics')).body;
  const board = {
    title: 'Floor',
    document: {
      ...startBoard(assets[0], assets, metrics, 1),
      scope: WHOLE_SCOPE,
      hours: { kind: 'clock', from: '06:00', to: '22:00' },
    },
  };
  const shifts = [{ name: 'Early', days: [1, 2, 3, 4, 5], from: '06:00', to: '14:00' }];
  const calendar = {
    shifts,
    holidays: [{ date: '2026-12-25', name: 'Holiday' }],
    firstWeekday: 1,
    financialYearMonth: 4,
  };
  const derived = {
    assetId: plant.id,
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
    dueAt: Date.now() + DAY_MS,
    assetId: plant.id,
    metricId: metricIds[0],
  };
  const stop = { assetId: assets[1].id, start: day.start, end: day.end, reason: 'Belt' };
  const job = { assetId: assets[1].id, number: '17', history: [{ at: day.start - DAY_MS, status: 'open' }] };
  const file = { fileName: 'a.csv', fileSize: 10, fileHash: SHAPE, layout: {} };
  const { token } = await make<{ id: string; token: string }>('/api/push-tokens', { name: 'Devices' });
  await make('/api/alarm-rules', rule);
  await make('/api/indicators', indicator);
  await make('/api/boards', board);
  await make('/api/derived', derived);
  await make('/api/flags', flag);
  await make('/api/stops', stop);
  await make('/api/jobs', job);
  await make('/api/intakes', file);
  await administrator.call('PUT', `/api/calendars/${plant.id}`, calendar);
  const query = {
    select: { metricIds: metricIds.filter((_, i) => i % 4 === 0) },
    summary: 'mean',
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
  const good: GoodBodies = {
    'POST /api/assets': [
      { name: 'Dryer', kind: 'machine', parentId: plant.id, zone: null, attributes: { area: 5 } },
    ],
    'POST /api/metrics': [
      { assetId: plant.id, name: 'Steam', unit: 't', kind: 'amount', intervalMs: HOUR_MS },
    ],
    'PUT /api/assets/:id': [{ name: 'Washer', kind: 'machine', parentId: plant.id, attributes: {} }],
    'POST /api/assets/list': [
      {
        rows: [
          { line: 1, path: ['Quayside', 'Wash house', 'Washer 3'], kind: 'machine', attributes: { area: 3 } },
        ],
      },
    ],
    'PUT /api/metrics/:id': [{ name: 'Bed temperature', unit: '°C', kind: 'level', intervalMs: MINUTE_MS }],
    'PUT /api/derived/:id': [derived],
    'PUT /api/stops/:id': [stop],
    'POST /api/jobs/:id/statuses': [{ at: day.end - 1000, status: 'done' }],
    'POST /api/flags/:id/outcome': [{ outcome: 'mended' }],
    'POST /api/flags/:id/taker': [{ toPersonId: '1' }],
    'PUT /api/alarm-rules/:id/aside': [{ kind: 'shelved', forMs: HOUR_MS, reason: 'Test' }],
    'POST /api/boards': [board],
    'PUT /api/boards/:id': [
      { ...board, revision: 1 },
      { ...board, document: { ...board.document, readouts: [emptyReadout('a', 'note')] }, revision: 2 },
    ],
    'POST /api/alarm-rules': [rule],
    'POST /api/alarm-rules/rehearsal': [{ ...rule, days: 400 }],
    'POST /api/alarm-rules/rehearsal/limits': [{ ...rule, days: 60 }],
    'POST /api/indicators': [indicator],
    'POST /api/indicators/preview': [{ definition: indicator, values: [] }],
    'POST /api/indicators/suggested-targets': [
      { measure, window: { kind: 'periods', count: 3, unit: 'month', current: false }, hours: null },
    ],
    'PUT /api/indicators/:id': [1, 2, 3].map((from) => ({
      from,
      definition: { ...indicator, name: `Mean ${from}` },
    })),
    'PUT /api/indicators/:id/targets': [values],
    'PUT /api/calendars/:id': [calendar],
    'POST /api/derived': [derived],
    'POST /api/derived/preview': [
      { expression: derived.expression, bindings: derived.bindings, way: 'samples', unit: '°C' },
    ],
    'POST /api/flags': [flag],
    'POST /api/stops': [stop],
    'POST /api/stops/list': [{ entries: [{ key: 'a', ...stop }] }],
    'POST /api/jobs': [job],
    'POST /api/jobs/list': [{ jobs: [job] }],
    'POST /api/remarks': [{ assetId: plant.id, ...day, kind: 'note', text: 'Door open' }],
    'POST /api/reference-series': [{ assetId: plant.id, name: 'Budget', kind: 'amount', period: 'month' }],
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
    'POST /api/readings/query': [
      query,
      { ...query, select: { metricName: 'Bed temperature' }, groupBy: { kind: 'asset' } },
    ],
    'POST /api/intakes': [file],
    'POST /api/intakes/:id/finish': [finishOrder(1), finishOrder(0)],
    'GET /api/handover': [{ plantId: plant.id }],
    'GET /api/holidays': [{ country: 'GB', from: 2026, to: 2027 }],
    'GET /api/intake-mappings': [{ shape: SHAPE }],
    'POST /api/session': [
      { email: ADMINISTRATOR, password: PASSWORD },
      { email: 'nobody@test.example', password: 'x' },
    ],
    'POST /api/handover/notes': [{ plantId: plant.id, shift: Date.now(), text: 'Belt is loose' }],
    'PUT /api/push-tokens/:id/rule': [
      { assetLabel: 'machine', metricLabel: null, unknown: 'wait', parentId: null, collisions: 'last' },
    ],
    'POST /api/push-tokens/:id/heard': [{ series: 'washed', metricId: metricIds[1] }],
    'POST /api/alarms/:id/acknowledgement': [{ remark: 'Seen' }],
    'POST /api/alarms/:id/remarks': [{ remark: 'Seen' }],
    'POST /api/flags/:id/comments': [{ remark: 'Seen' }],
    'PUT /api/notice-wish': [
      { byEmail: true, byText: false, quiet: { from: '22:00', to: '06:00' }, zone: 'Europe/London' },
    ],
  };
  return { good, token };
}

/** Thirty days of minutes for each, and for the first a month of values every two seconds. */
async function fill(pool: Pool, metricIds: readonly string[]): Promise<void> {
  const now = Date.now();
  for (const [i, id] of metricIds.entries()) {
    const step = i === 0 ? 2000 : MINUTE_MS;
    const n = Math.floor((30 * DAY_MS) / step);
    const t = Float64Array.from({ length: n }, (_, k) => now - (n - k) * step);
    const v = t.map((_, k) => (i % 4 === 3 ? k % 3 : i % 4 === 2 ? k : 90 + Math.sin(k / 300) * 20));
    await withTransaction(pool, (db) => mergeIntoStore(db, new Map([[id, { t, v, q: null }]]), 'fuzz', now));
  }
}
