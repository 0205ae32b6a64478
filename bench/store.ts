/**
 * How large a sample is stored and how fast a window is read, as ratios against the bare work.
 * Run: DATABASE_URL=… node --import tsx bench/store.ts   (a scratch database: it is filled and emptied)
 */
import { performance } from 'node:perf_hooks';
import { DAY_MS, packDay, seriesOf, unpackDay, sortSamples } from '@vivid-beacon/core';
import {
  addAsset,
  addMetric,
  migrate,
  mergeIntoStore,
  openPool,
  readSeries,
  withTransaction,
} from '@vivid-beacon/server';

const RUNS = 7;
const DAYS = 90;
const START = Date.UTC(2026, 0, 1);

function median(values: number[]): number {
  return values.sort((a, b) => a - b)[Math.floor(values.length / 2)];
}

async function time(work: () => unknown): Promise<number> {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

/** Runs the two by turns and prints the ratio of their medians beside the limit. */
async function compare(name: string, ours: () => unknown, bare: () => unknown, limit: number): Promise<void> {
  const a: number[] = [];
  const b: number[] = [];
  for (let i = 0; i < RUNS; i++) {
    a.push(await time(ours));
    b.push(await time(bare));
  }
  console.log(
    `${name}: ${(median(a) / median(b)).toFixed(2)} (limit ${limit}); ${median(a).toFixed(1)} ms against ${median(b).toFixed(1)} ms`,
  );
}

const pool = openPool(process.env.DATABASE_URL!, console.error);
await migrate(pool);
const assetId = (await addAsset(pool, {
  parentId: null,
  name: `Bench ${Date.now()}`,
  kind: 'plant',
  zone: 'UTC',
}))!;
const id = (await addMetric(pool, {
  assetId,
  key: `bench.${Date.now()}`,
  name: 'Wave',
  unit: '',
  kind: 'level',
  intervalMs: 60_000,
  maxGapMs: 600_000,
  rollover: null,
  decimals: 2,
  at: Date.now(),
}))!;
const t = Array.from({ length: (DAYS * DAY_MS) / 60_000 }, (_, i) => START + i * 60_000);
const v = t.map((_, i) => Math.round((50 + 20 * Math.sin(i / 500) + ((i * 7919) % 101) / 100) * 100) / 100);
const series = sortSamples(t, v);

const first = await time(() =>
  withTransaction(pool, (db) => mergeIntoStore(db, new Map([[id, series]]), 'bench', Date.now())),
);
const again = await time(() =>
  withTransaction(pool, (db) => mergeIntoStore(db, new Map([[id, series]]), 'bench', Date.now())),
);
console.log(
  `a batch again: ${(again / first).toFixed(2)} of the first (limit 1.2); ${Math.round(t.length / first)} thousand samples/s the first time`,
);

const { rows } = await pool.query<{ bytes: string }>(
  'select sum(pg_column_size(sample_day.*)) as bytes from sample_day where metric_id = $1',
  [id],
);
console.log(`bytes a sample, stored: ${(Number(rows[0].bytes) / t.length).toFixed(2)} (limit 2.5)`);
const odd = seriesOf(
  t.slice(0, 1440),
  t.slice(0, 1440).map((_, i) => Math.sin(i) * Math.PI),
);
const packed = packDay(odd, START);
console.log(
  `bytes a sample, 17 digits, before compression: ${((packed.times.length + packed.values.length) / 1440).toFixed(2)} (limit 9)`,
);

const days = await pool.query<{ n: number; times: Buffer; vals: Buffer }>(
  'select n, times, vals from sample_day where metric_id = $1 order by day',
  [id],
);
await compare(
  `${DAYS} days of one metric, against the bare read and decode of its rows`,
  () => readSeries(pool, [id], START, START + DAYS * DAY_MS),
  async () => {
    const bare = await pool.query<{ n: number; times: Buffer; vals: Buffer }>(
      'select n, times, vals from sample_day where metric_id = $1 order by day',
      [id],
    );
    bare.rows.forEach((row, i) =>
      unpackDay({ n: row.n, times: row.times, values: row.vals }, START + i * DAY_MS),
    );
  },
  2,
);
console.log(`${days.rows.length} rows read`);
await pool.query('delete from metric where id = $1', [id]);
await pool.query('delete from asset where id = $1', [assetId]);
await pool.end();
