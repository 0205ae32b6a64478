import { DAY_MS, MINUTE_MS } from '@vivid-beacon/core';
import { withTransaction, type Pool } from '../../db/database';
import { mergeIntoStore } from '../../samples/store';
import { push, type Visitor } from '../testServer';
import { goodBodies, WAITING, WORLD_METRICS } from './goodBodies';
import type { GoodBodies } from './goodBodies';

/**
 * A plant with some of everything, and enough of it that a careless request is expensive. @returns valid
 * requests.
 */
export async function makeWorld(
  url: string,
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
  const metricKeys: string[] = [];
  let machineId = '';
  for (let i = 0; i < WORLD_METRICS; i++) {
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
    const made = await make<{ id: string; key: string }>('/api/metrics', metric);
    metricIds.push(made.id);
    metricKeys.push(made.key);
    machineId = asset.id;
  }
  await fill(pool, metricIds);
  const good = goodBodies({ plantId: plant.id, machineId, metricIds, now: Date.now() });
  await administrator.call('PUT', `/api/calendars/${plant.id}`, good['PUT /api/calendars/:id'][0]);
  const made: Record<string, number> = {};
  for (const path of MADE) {
    made[path] = (made[path] ?? 0) + 1;
    const bodies = good[`POST ${path}`];
    await make(path, bodies[(made[path] - 1) % bodies.length]);
  }
  const { token, id: tokenId } = await make<{ id: string; token: string }>('/api/push-tokens', {
    name: 'Devices',
  });
  await administrator.call(
    'PUT',
    `/api/push-tokens/${tokenId}/rule`,
    good['PUT /api/push-tokens/:id/rule'][0],
  );
  const now = Date.now();
  await push(url, token, `${WAITING} 1 ${now / 1000}\n# EOF\n`, {
    'content-type': 'application/openmetrics-text',
  });
  // Above the limit of the rules: an alarm to acknowledge and one that waits to be reset.
  await push(url, token, [
    { metric: metricKeys[0], t: now - 1000, v: 500 },
    { metric: metricKeys[0], t: now, v: 60 },
  ]);
  return { good, token };
}

/** One of each of these is there, and one more where ids 1 to 3 are often asked for. */
const MADE = [
  '/api/alarm-rules',
  '/api/alarm-rules',
  '/api/indicators',
  '/api/boards',
  '/api/boards',
  '/api/derived',
  '/api/flags',
  '/api/flags',
  '/api/stops',
  '/api/jobs',
  '/api/intakes',
  '/api/remarks',
  '/api/reference-series',
  '/api/factors',
];

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
