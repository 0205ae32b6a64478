/**
 * How long the longest work blocks the thread that answers requests: files of hundreds of thousands of
 * samples, rules that learn, late samples, a metric of 1.3 million samples judged anew, workbooks. Run:
 * BENCH_DATABASE_URL=… node --import tsx bench/held.ts
 */
import { DAY_MS } from '@vivid-beacon/core';
import { startWatchedProcess } from '@vivid-beacon/server/src/testing/fuzz/watchedProcess';
import { makeWorld } from '@vivid-beacon/server/src/testing/fuzz/world';
import { scratchDatabase } from '@vivid-beacon/server/src/testing/scratchDatabase';
import { filePart, finishOrder, push } from '@vivid-beacon/server/src/testing/testServer';
import { report } from './lib/measure';

const PARTS = 6;
const PART = 100_000;
const MAX_HELD_MS = 200;

const database = await scratchDatabase(process.env.BENCH_DATABASE_URL!);
const { url, pool, administrator, ask, stop } = await startWatchedProcess(database.url);
const { good, token } = await makeWorld(url, pool, administrator);
const now = Date.now();

/** Does something and returns how long it took and how long it blocked the thread at most. */
async function held<T extends { status: number; body: unknown }>(
  name: string,
  work: () => Promise<T>,
): Promise<T> {
  await ask('held');
  const began = performance.now();
  const answer = await work();
  const took = performance.now() - began;
  const { longestMs } = await ask('held');
  if (answer.status >= 300) throw new Error(`${name}: ${answer.status} ${JSON.stringify(answer.body)}`);
  report(name, longestMs, MAX_HELD_MS, `${took.toFixed(0)} ms altogether`);
  return answer;
}

await ask('memory');
const rule = good['POST /api/alarm-rules'][0] as object;
const learning = { kind: 'baseline', side: 'above', limit: 3, deadband: 0.1 };
const chart = { kind: 'runRules', rules: [1, 2, 3, 4], point: 'hour' };
for (const test of [learning, chart]) {
  const body = { ...rule, name: `Learns: ${test.kind}`, test };
  await held(`rule that learns: ${test.kind}`, () => administrator.call('POST', '/api/alarm-rules', body));
}
const { body: metric } = await administrator.call<{ key: string }>('GET', '/api/metrics/1');
await held('late sample, 25 days old', () =>
  push(url, token, [{ metric: metric.key, t: now - 25 * DAY_MS + 777, v: 150 }]),
);
const file = { fileName: 'long.csv', fileSize: 10, fileHash: 'b'.repeat(64), layout: {} };
const { body: intake } = await held('intake begun', () =>
  administrator.call<{ id: string }>('POST', '/api/intakes', file),
);
const path = `/api/intakes/${intake.id}`;
for (let seq = 0; seq < PARTS; seq++) {
  const t = Array.from({ length: PART }, (_, i) => now - 29 * DAY_MS + (seq * PART + i) * 1000 + 500);
  const part = filePart(seq, [{ metricId: '1', t, v: t.map((each) => (each / 1000) % 97) }]);
  await held('part of a file, 100,000 samples', () => administrator.call('POST', `${path}/parts`, part));
}
await held('file of 600,000 samples checked', () => administrator.call('GET', `${path}/check`));
const order = finishOrder(PARTS, { taken: PARTS * PART, corrections: 'replace' });
await held('finished', () => administrator.call('POST', `${path}/finish`, order));
await held('undone', () => administrator.call('POST', `${path}/undo`));
for (const plausibleLow of [95, null]) {
  const body = { ...(good['PUT /api/metrics/:id'][0] as object), plausibleLow };
  await held('1.3 million samples judged anew', () => administrator.call('PUT', '/api/metrics/1', body));
}
const days = (n: number): string => `metricIds=1&from=${now - n * DAY_MS}&to=${now}`;
await held('workbook of 86,400 rows', () =>
  administrator.call('GET', `/api/exports/samples?${days(2)}&format=xlsx`),
);
await stop();
await database.drop();
