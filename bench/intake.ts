/**
 * Imports a large CSV as the browser's worker does, against the push rate; also the memory of the server.
 * Run: BENCH_DATABASE_URL=… node --import tsx bench/intake.ts [megabytes, default 1000]
 */
import { createWriteStream, mkdtempSync, openAsBlob, rmSync, statSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { once } from 'node:events';
import { DAY_MS } from '@vivid-beacon/core';
import type { FileTargets } from '@vivid-beacon/core/src/intakeFiles';
import { addAsset, addMetric } from '@vivid-beacon/server';
import { scanFile } from '../app/src/workers/scanFile';
import { openText } from '../app/src/workers/sources/openFile';
import { readFile } from '../app/src/workers/readFile';
import type { FileLike } from '../app/src/workers/sources/source';
import { report, timed } from './lib/measure';
import { wave } from './lib/samples';
import { startBenchServer } from './lib/serverProcess';

const MINUTE = 60_000;
const COLUMNS = 8;
const megabytes = Number(process.argv[2] ?? 1000);
const server = await startBenchServer(process.env.BENCH_DATABASE_URL!);
const { pool, url } = server;
const folder = mkdtempSync(path.join(os.tmpdir(), 'bench-intake-'));
const file = path.join(folder, 'large.csv');

const assetId = (await addAsset(pool, {
  parentId: null,
  name: 'Bench',
  kind: 'plant',
  zone: 'Europe/London',
}))!;
const ids: string[] = [];
for (let n = 0; n < COLUMNS + 1; n++) {
  ids.push(
    (await addMetric(pool, {
      assetId,
      key: `bench.m${n}`,
      name: `m${n}`,
      unit: 'kW',
      kind: 'level',
      intervalMs: 10_000,
      maxGapMs: MINUTE,
      rollover: null,
      decimals: 2,
      at: Date.now(),
    }))!,
  );
}
const out = createWriteStream(file);
const start = Date.UTC(2008, 0, 1);
out.write(`time,${Array.from({ length: COLUMNS }, (_, c) => `m${c} (kW)`).join(',')}\n`);
let rows = 0;
for (let written = 0; written < megabytes * 1e6;) {
  const lines: string[] = [];
  for (let i = 0; i < 5000; i++, rows++) {
    const t = new Date(start + rows * 10_000).toISOString();
    lines.push(`${t},${Array.from({ length: COLUMNS }, (_, c) => wave(rows, c, 2)).join(',')}\n`);
  }
  const text = lines.join('');
  written += text.length;
  if (!out.write(text)) await once(out, 'drain');
}
out.end();
await once(out, 'finish');
console.log(`${(statSync(file).size / 1e6).toFixed(0)} MB, ${rows} rows, ${rows * COLUMNS} samples`);

const blob = await openAsBlob(file);
const asFile: FileLike = { name: 'large.csv', size: blob.size, slice: (from, to) => blob.slice(from, to) };
let peak = 0;
const watch = setInterval(() => {
  peak = Math.max(peak, server.memory());
}, 200);
const post = async (where: string, body: unknown, type = 'application/json'): Promise<Response> => {
  const response = await fetch(url + where, {
    method: 'POST',
    headers: { ...server.headers, 'content-type': type },
    body: type === 'application/json' ? JSON.stringify(body) : (body as BodyInit),
  });
  if (!response.ok) throw new Error(`${where}: ${response.status} ${await response.text()}`);
  return response;
};
const before = server.memory();
let reading = 0;
const options = { zone: 'Europe/London', latest: Date.now() + DAY_MS };
let look: Awaited<ReturnType<typeof scanFile>> | null = null;
const looking = await timed(async () => {
  look = await scanFile(await openText(asFile, null), { ...options, correct: {}, progress: () => undefined });
});
const { recognised, inOrder } = look!;
const whole = await timed(async () => {
  const source = await openText(asFile, null);
  const { layout } = recognised;
  const targets: FileTargets = Object.fromEntries(
    ids.slice(0, COLUMNS).map((metricId, i) => [String(i + 1), { metricId, earliest: null, shiftMs: 0 }]),
  );
  const begun = await post('/api/intakes', {
    fileName: 'large.csv',
    fileSize: blob.size,
    fileHash: 'a'.repeat(64),
    layout: {},
  });
  const { id } = (await begun.json()) as { id: string };
  let result: Awaited<ReturnType<typeof readFile>> | null = null;
  reading = await timed(async () => {
    result = await readFile(
      source,
      { ...options, layout, targets, inOrder },
      async (bytes) => void (await post(`/api/intakes/${id}/parts`, bytes, 'application/octet-stream')),
      () => undefined,
    );
  });
  const { parts, balance } = result!;
  const done = await post(`/api/intakes/${id}/finish`, { batches: parts, balance });
  const { intake } = (await done.json()) as { intake: { added: number } };
  if (intake.added !== rows * COLUMNS)
    throw new Error(`${intake.added} of ${rows * COLUMNS} samples arrived`);
});
clearInterval(watch);
const rate = (rows * COLUMNS) / (whole / 1000);
console.log(
  `${Math.round(rate / 1000)} k samples/s (${(reading / 1000).toFixed(0)} s reading and sending, ${((whole - reading) / 1000).toFixed(0)} s storing); server ${(before / 1e6).toFixed(0)} MB before`,
);
report('server memory, MB', peak / 1e6, 400);
report(
  'look at the whole file over reading and sending it',
  looking / reading,
  0.5,
  `${(looking / 1000).toFixed(0)} s`,
);

const BATCH = 10_000;
const bodies = Array.from({ length: 40 }, (_, b) => {
  const t = Array.from({ length: BATCH }, (_, i) => start + (b * BATCH + i) * 10_000);
  return JSON.stringify({ series: [{ metric: `bench.m${COLUMNS}`, t, v: t.map((_, i) => wave(i, b, 2)) }] });
});
const push = await timed(async () => {
  for (const body of bodies) {
    const response = await fetch(`${url}/api/samples`, {
      method: 'POST',
      headers: { authorization: `Bearer ${server.token}`, 'content-type': 'application/json' },
      body,
    });
    if (!response.ok) throw new Error(await response.text());
    await response.arrayBuffer();
  }
});
const pushRate = (bodies.length * BATCH) / (push / 1000);
report(
  'push rate over intake rate (at most 3)',
  pushRate / rate,
  3,
  `push of the same shape ${Math.round(pushRate / 1000)} k samples/s`,
);
rmSync(folder, { recursive: true });
await server.stop();
