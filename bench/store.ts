/**
 * Bytes a stored sample takes, how fast batches arrive through HTTP, how fast a window is read. Run:
 * BENCH_DATABASE_URL=… node --import tsx bench/store.ts [large] [quick] A scratch database is made and
 * dropped. "large" also reads with 50 and 100 million samples stored; "quick" leaves the plain rows out.
 */
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { from as copyFrom } from 'pg-copy-streams';
import { DAY_MS, DEFAULT_RULE, seriesOf } from '@vivid-beacon/core';
import { packDay, sortSamples, unpackDay } from '@vivid-beacon/core/src/aggregation';
import { addAsset, addMetric, mergeIntoStore, putInForce, withTransaction } from '@vivid-beacon/server';
import { compare, median, report, timed } from './lib/measure';
import { wave } from './lib/samples';
import { startBenchServer } from './lib/serverProcess';

const MINUTE = 60_000;
const YEAR_DAYS = 365;
const large = process.argv.includes('large');
const plain = !process.argv.includes('quick');
const server = await startBenchServer(process.env.BENCH_DATABASE_URL!);
const { pool, url } = server;
const today = Math.floor(Date.now() / DAY_MS) * DAY_MS;
const start = today - YEAR_DAYS * DAY_MS;

const assetId = (await addAsset(pool, {
  parentId: null,
  name: 'Bench',
  kind: 'plant',
  zone: 'Europe/London',
}))!;
async function makeMetric(n: number): Promise<string> {
  return (await addMetric(pool, {
    assetId,
    key: `bench.m${n}`,
    name: `m${n}`,
    unit: 'kW',
    kind: 'level',
    intervalMs: MINUTE,
    maxGapMs: 5 * MINUTE,
    rollover: null,
    decimals: 2,
    at: Date.now(),
  }))!;
}

/** Fills days of a metric without HTTP. */
async function fill(id: string, seed: number, days: number, decimals: number | null): Promise<void> {
  for (let from = 0; from < days; from += 60) {
    const n = Math.min(60, days - from) * 1440;
    const t = new Float64Array(n);
    const v = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      t[i] = start + (from * 1440 + i) * MINUTE;
      v[i] = wave(from * 1440 + i, seed, decimals);
    }
    await withTransaction(pool, (db) => mergeIntoStore(db, new Map([[id, { t, v }]]), 'bench', Date.now()));
  }
}

const iso = (t: number): string => new Date(t).toISOString().slice(0, 10);

console.log('— Stored size');
async function sizeOf(decimals: number | null, name: string, limit: number): Promise<void> {
  const id = await makeMetric(decimals === null ? 900 : 901);
  await fill(id, 3, 120, decimals);
  const n = 120 * 1440;
  const { rows } = await pool.query<{ raw: string; rollup: string }>(
    `select (select sum(pg_column_size(sample_day.*)) from sample_day where metric_id = $1) as raw,
            (select sum(pg_column_size(rollup_day.*)) from rollup_day where metric_id = $1) as rollup`,
    [id],
  );
  report(`bytes a sample, raw, ${name}`, Number(rows[0].raw) / n, limit);
  report(`bytes a sample, raw and rollups, ${name}`, (Number(rows[0].raw) + Number(rows[0].rollup)) / n, 12);
}
await sizeOf(2, 'two decimals', 2.5);
await sizeOf(null, '17 digits', 9);

console.log('— Ingest through HTTP against COPY of the same rows into a logged table without index');
const SERIES = 100;
const MINUTES_A_BATCH = 100;
const BATCHES = 16;
const ids: string[] = [];
for (let n = 0; n < SERIES; n++) ids.push(await makeMetric(n));
const [person] = (await pool.query<{ id: string }>('select id from person limit 1')).rows;
for (const id of ids.slice(0, 5)) {
  await putInForce(
    pool,
    {
      ...DEFAULT_RULE,
      name: `rule ${id}`,
      metricId: id,
      test: { kind: 'limit', side: 'above', limit: 78, deadband: 1 },
      onDelayMs: 5 * MINUTE,
    },
    person.id,
    start,
  );
}
await pool.query('create table plain (series bigint, t timestamptz, v float8)');
let minute = 0;
interface Round {
  readonly bodies: string[];
  readonly rows: string[];
}
/** The next stretch of live data: minute by minute across the series. */
function nextRound(batches: number): Round {
  const bodies: string[] = [];
  const rows: string[] = [];
  for (let b = 0; b < batches; b++) {
    const from = minute;
    minute += MINUTES_A_BATCH;
    const series = ids.map((_, s) => {
      const t = Array.from({ length: MINUTES_A_BATCH }, (_, i) => start + (from + i) * MINUTE);
      return { metric: `bench.m${s}`, t, v: t.map((_, i) => wave(from + i, s, 2)) };
    });
    bodies.push(JSON.stringify({ series }));
    for (let i = 0; i < MINUTES_A_BATCH; i++) {
      for (let s = 0; s < SERIES; s++) {
        rows.push(`${ids[s]}\t${new Date(series[s].t[i]).toISOString()}\t${series[s].v[i]}\n`);
      }
    }
  }
  return { bodies, rows };
}
async function push(body: string): Promise<void> {
  const response = await fetch(`${url}/api/samples`, {
    method: 'POST',
    headers: { authorization: `Bearer ${server.token}`, 'content-type': 'application/json' },
    body,
  });
  if (!response.ok) throw new Error(`${response.status} ${await response.text()}`);
  await response.arrayBuffer();
}
/** Two senders, as two plants would. */
async function pushAll(bodies: readonly string[]): Promise<void> {
  const queue = [...bodies];
  const sender = async (): Promise<void> => {
    for (let body = queue.shift(); body !== undefined; body = queue.shift()) await push(body);
  };
  await Promise.all([sender(), sender()]);
}
async function copyAll(rows: readonly string[]): Promise<void> {
  const client = await pool.connect();
  const text: string[] = [];
  for (let i = 0; i < rows.length; i += 2000) text.push(rows.slice(i, i + 2000).join(''));
  await pipeline(Readable.from(text), client.query(copyFrom('copy plain from stdin')));
  client.release();
}
const rates: number[] = [];
const again: number[] = [];
const perSecond: number[] = [];
await pushAll(nextRound(4).bodies);
for (let r = 0; r < 7; r++) {
  const { bodies, rows } = nextRound(BATCHES);
  const first = await timed(() => pushAll(bodies));
  const copy = await timed(() => copyAll(rows));
  again.push((await timed(() => pushAll(bodies))) / first);
  rates.push(copy / first);
  perSecond.push(rows.length / (first / 1000));
}
report(
  'COPY rate over push rate (at most 4)',
  1 / median(rates),
  4,
  `${Math.round(median(perSecond) / 1000)} k samples/s`,
);
report('the same batches again over the first time', median(again), 1.2);

console.log('— One year of one metric by the hour');
const yearId = await makeMetric(500);
await fill(yearId, 7, YEAR_DAYS, 2);
const ask = JSON.stringify({
  measures: [{ select: { metricIds: [yearId] }, summary: 'mean' }],
  window: {
    kind: 'absolute',
    start: iso(start),
    end: iso(today),
  },
  bucket: 'hour',
});
const query = async (body: string, bytes = true): Promise<ArrayBuffer> => {
  const response = await fetch(`${url}/api/readings/query`, {
    method: 'POST',
    headers: {
      ...server.headers,
      'content-type': 'application/json',
      ...(bytes ? { accept: 'application/octet-stream' } : {}),
    },
    body,
  });
  if (!response.ok) throw new Error(await response.text());
  return response.arrayBuffer();
};
const readDecode = async (id: string): Promise<void> => {
  const { rows } = await pool.query<{ day: Date; n: number; times: Buffer; vals: Buffer }>(
    'select n, times, vals from sample_day where metric_id = $1 order by day',
    [id],
  );
  rows.forEach((row, i) =>
    unpackDay({ n: row.n, times: row.times, values: row.vals, flags: null }, start + i * DAY_MS),
  );
};
await query(ask);
await compare(
  'HTTP against the bare read and decode of its packed days',
  () => query(ask),
  () => readDecode(yearId),
  2,
);

if (plain) {
  console.log('— The same in SQL over plain rows in arrival order, minute by minute across 100 series');
  await pool.query('truncate plain');
  await pool.query(
    `insert into plain
   select g % 100, to_timestamp($1::float8 / 1000 + (g / 100) * 60), round((60 + 15 * sin(g / 22000.0) + random())::numeric, 2)
   from generate_series(0, $2::int - 1) g`,
    [start, YEAR_DAYS * 1440 * 100],
  );
  await pool.query('create index on plain (series, t)');
  await pool.query('analyze plain');
  await compare(
    'HTTP against the same aggregate in SQL',
    () => query(ask),
    () =>
      pool.query(`select date_trunc('hour', t), avg(v) from plain where series = 7 group by 1 order by 1`),
    1 / 50,
    5,
  );
  await pool.query('drop table plain');
}

console.log('— Often asked');
for (let n = 0; n < 150; n++) {
  const id = await makeMetric(600 + n);
  await withTransaction(pool, (db) =>
    mergeIntoStore(db, new Map([[id, sortSamples([today], [n])]]), 'bench', Date.now()),
  );
}
const get = async (path: string): Promise<void> => {
  await (await fetch(url + path, { headers: server.headers })).arrayBuffer();
};
const many = async (work: () => Promise<unknown>, n = 40): Promise<void> => {
  for (let i = 0; i < n; i++) await work();
};
await compare(
  'latest of all 250 metrics against an endpoint of one row',
  () => many(() => get('/api/latest')),
  () => many(() => get(`/api/metrics/${yearId}`)),
  2,
);
await pool.query(`create table json_rows as
  select now() - i * interval '1 hour' as t, 15 as n, random() as sum, random() as min, random() as max from generate_series(1, 1560) i`);
const { startJsonServer } = await import('./lib/jsonServer');
const json = await startJsonServer(server.databaseUrl);
const quarters = JSON.stringify({
  measures: [{ select: { metricIds: [yearId] }, summary: 'mean' }],
  window: { kind: 'absolute', start: iso(start), end: `${iso(start + 16 * DAY_MS)}T06:00` },
  bucket: 'quarterHour',
});
const few = JSON.stringify({
  measures: [{ select: { metricIds: [yearId] }, summary: 'mean' }],
  window: {
    kind: 'absolute',
    start: iso(start),
    end: iso(start + 65 * DAY_MS),
  },
  bucket: 'hour',
});
await compare(
  '1,560 kept buckets (quarters of an hour) over HTTP against JSON built in PostgreSQL of as many rows (at most 1/0.9)',
  () => many(() => query(quarters)),
  () => many(async () => void (await (await fetch(json.url, { headers: server.headers })).arrayBuffer())),
  1 / 0.9,
);
await compare(
  '1,560 hours, each of four kept buckets, against the same',
  () => many(() => query(few)),
  () => many(async () => void (await (await fetch(json.url, { headers: server.headers })).arrayBuffer())),
  1 / 0.9,
);
json.stop();

if (large) {
  console.log('— Twice the stored total');
  const reads = {
    'year by the hour': () => query(ask),
    'last day, raw': () =>
      get(`/api/metrics/${yearId}/samples?from=${today - DAY_MS}&to=${today}&limit=2000`),
    'latest of all': () => get('/api/latest'),
  };
  // The speed of the machine varies: every read is compared with a one-row answer requested by turns with it.
  const time = async (work: () => Promise<unknown>): Promise<number> => {
    const all: number[] = [];
    for (let i = 0; i < 61; i++) {
      const own = await timed(work);
      all.push(own / (await timed(() => many(() => get(`/api/metrics/${yearId}`), 3))));
    }
    return median(all);
  };
  const grown: string[] = [];
  for (let n = 0; n < 190; n++) grown.push(await makeMetric(2000 + n));
  // All of them have a latest value from the start; only the number of samples behind it grows.
  for (const id of grown) {
    await withTransaction(pool, (db) =>
      mergeIntoStore(db, new Map([[id, sortSamples([today], [1])]]), 'bench', Date.now()),
    );
  }
  const fillUp = async (from: number, to: number): Promise<void> => {
    for (let n = from; n < to; n++) await fill(grown[n], n, YEAR_DAYS, 2);
    // Otherwise the database would vacuum while it is measured.
    await pool.query('vacuum (analyze)');
    await pool.query('checkpoint');
    await new Promise((resolve) => setTimeout(resolve, 5000));
  };
  const measured: number[][] = [];
  for (const [from, to] of [
    [0, 95],
    [95, 190],
  ]) {
    await fillUp(from, to);
    const each: number[] = [];
    for (const work of Object.values(reads)) each.push(await time(work));
    measured.push(each);
  }
  Object.keys(reads).forEach((name, i) => {
    report(`${name}: 100 over 50 million samples`, measured[1][i] / measured[0][i], 1.2);
  });
}
// Checks that the measured answers are right.
const check = packDay(seriesOf([today], [1.25]), today);
if (unpackDay(check, today).v[0] !== 1.25) throw new Error('codec');
await server.stop();
