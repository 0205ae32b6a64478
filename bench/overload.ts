/**
 * Pushes at five times the rate the machine can take, for a minute: how many are still stored, how long
 * readers wait, and how soon it recovers. Run: BENCH_DATABASE_URL=… node --import tsx bench/overload.ts
 * [seconds]
 */
import { Agent, request } from 'node:http';
import { report } from './lib/measure';
import { startBenchServer } from './lib/serverProcess';

const SECONDS = Number(process.argv[2] ?? 60);
const METRICS = 50;
/** The samples of one batch: eight of each metric. */
const BATCH = METRICS * 8;
const TIMES = 5;
const MINUTE = 60_000;

const server = await startBenchServer(process.env.BENCH_DATABASE_URL!);
const agent = new Agent({ keepAlive: true, maxSockets: 2000 });
const call = (
  method: string,
  path: string,
  body: unknown,
  headers: object,
): Promise<{ status: number; body: string }> =>
  new Promise((resolve) => {
    const sent = request(server.url + path, {
      method,
      agent,
      headers: { 'content-type': 'application/json', ...headers },
    });
    sent.on('response', (response) => {
      let text = '';
      response.on('data', (chunk: Buffer) => (text += String(chunk)));
      response.on('end', () => resolve({ status: response.statusCode!, body: text }));
      response.on('error', () => resolve({ status: 0, body: '' }));
    });
    sent.on('error', () => resolve({ status: 0, body: '' }));
    sent.end(JSON.stringify(body));
  });
const asset = JSON.parse(
  (await call('POST', '/api/assets', { name: 'Plant', kind: 'plant', zone: 'Europe/London' }, server.headers))
    .body,
) as { id: string };
const keys: string[] = [];
const ids: string[] = [];
for (let i = 0; i < METRICS; i++) {
  const metric = { assetId: asset.id, name: `Metric ${i}`, unit: 'kW', kind: 'level', intervalMs: MINUTE };
  const made = JSON.parse((await call('POST', '/api/metrics', metric, server.headers)).body) as {
    id: string;
    key: string;
  };
  keys.push(made.key);
  ids.push(made.id);
}

let at = Date.now() - 2000 * 86_400_000;
/** The next eight minutes of every metric, so that a stored day keeps its usual length. */
function batch(): object {
  const t = Array.from({ length: BATCH / METRICS }, (_, i) => at + i * MINUTE);
  at += (BATCH / METRICS) * MINUTE;
  return { series: keys.map((metric) => ({ metric, t, v: t.map((each) => (each / MINUTE) % 97) })) };
}
/** Refused batches are sent again, as senders do. */
const again: object[] = [];
async function push(): Promise<{ status: number }> {
  const sent = again.shift() ?? batch();
  const answer = await call('POST', '/api/samples', sent, { authorization: `Bearer ${server.token}` });
  if (answer.status !== 200) again.push(sent);
  return answer;
}

/** Batches a second with this many in flight at all times. */
async function closedLoop(underWay: number, seconds: number): Promise<number> {
  const until = Date.now() + seconds * 1000;
  let taken = 0;
  await Promise.all(
    Array.from({ length: underWay }, async () => {
      while (Date.now() < until) if ((await push()).status === 200) taken++;
    }),
  );
  return taken / seconds;
}

/** How long somebody looking at a board waits, ms, measured ten times a second until `stop`. */
function reader(): { stop: () => Promise<number[]> } {
  const waits: number[] = [];
  let on = true;
  const done = (async () => {
    while (on) {
      const began = performance.now();
      const measure = { metricId: ids[waits.length % METRICS], summary: 'mean', per: null };
      const ask = { measure, window: { kind: 'rolling', count: 24, unit: 'hour' } };
      const { status } = await call('POST', '/api/readings/value', ask, server.headers);
      waits.push(status === 200 ? performance.now() - began : Infinity);
      await new Promise((resolve) => setTimeout(resolve, Math.max(0, 100 - (performance.now() - began))));
    }
    return waits;
  })();
  return {
    stop: () => {
      on = false;
      return done;
    },
  };
}

const p95 = (waits: readonly number[]): number =>
  [...waits].sort((a, b) => a - b)[Math.floor(waits.length * 0.95)];

await closedLoop(4, 5);
const quietReader = reader();
await new Promise((resolve) => setTimeout(resolve, 8000));
const quiet = p95(await quietReader.stop());
const LEVELS = [2, 4, 8, 16];
const rates: number[] = [];
for (const level of LEVELS) rates.push(await closedLoop(level, 6));
const level = LEVELS[rates.indexOf(Math.max(...rates))];
// With the same reader as under overload.
const bestRate = async (): Promise<number> => {
  const reading = reader();
  const rate = await closedLoop(level, 10);
  await reading.stop();
  return rate;
};
const before = await bestRate();
console.log(
  `batches of ${BATCH} samples a second with 2, 4, 8, 16 under way: ${rates.map((rate) => rate.toFixed(0)).join(', ')}; with ${level} and a reader: ${before.toFixed(1)}`,
);

const answers = new Map<number, number>();
const busyReader = reader();
const began = Date.now();
let sent = 0;
const under = new Set<Promise<unknown>>();
while (Date.now() - began < SECONDS * 1000) {
  const due = ((Date.now() - began) / 1000) * before * TIMES;
  for (; sent < due && under.size < 2000; sent++) {
    const one = push().then(({ status }) => {
      answers.set(status, (answers.get(status) ?? 0) + 1);
      under.delete(one);
    });
    under.add(one);
  }
  await new Promise((resolve) => setTimeout(resolve, 5));
}
const inTime = answers.get(200) ?? 0;
const busy = p95(await busyReader.stop());
const ended = performance.now();
while ((await push()).status !== 200);
const recovered = (performance.now() - ended) / 1000;
// The speed of the machine varies: the best rate is measured before and after.
const after = await bestRate();
const best = (before + after) / 2;
console.log(
  `sent ${(sent / SECONDS / before).toFixed(1)} times the best rate; answers ${JSON.stringify([...answers])}; best rate afterwards ${after.toFixed(1)}`,
);
report(
  'best rate over what is taken under overload',
  best / (inTime / SECONDS),
  1 / 0.9,
  `${(inTime / SECONDS / best).toFixed(2)} of the best is taken`,
);
report(
  'readers: p95 under overload over quiet',
  busy / quiet,
  2,
  `${busy.toFixed(0)} ms / ${quiet.toFixed(0)} ms`,
);
report('recovery, s', recovered, 1);
await server.stop();
process.exit(0);
