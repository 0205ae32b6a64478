import { execFileSync } from 'node:child_process';
import path from 'node:path';
import pg from 'pg';
import { rightsEverywhere, type PushAnswer } from '@vivid-beacon/core';
import { addAsset } from '../assets/sql';
import { openPool } from '../db/database';
import { migrate } from '../db/migrate';
import { addMetric } from '../metrics/sql';
import { addPerson } from '../people/sql';
import { startServerProcess } from '../testing/serverProcess';
import { push } from '../testing/testServer';
import { addToken } from '../tokens/sql';
import { makeToken } from '../tokens/tokenOfRequest';
import { readSeries } from './readSeries';

const ROOT = path.resolve(__dirname, '../../..');
const MINUTE = 60_000;
const BATCH = 400;
const BATCHES = 40;

/**
 * Starts the durable cluster that this test may kill; after a kill its shared memory takes a moment to be
 * freed.
 */
function startCluster(): { url: string; pid: number } {
  for (let tries = 0; ; tries++) {
    try {
      const said = execFileSync(process.execPath, ['scripts/crashCluster.mjs', 'start'], {
        cwd: ROOT,
        encoding: 'utf8',
      });
      return JSON.parse(said.trim().split('\n').at(-1)!);
    } catch (error) {
      if (tries === 5) throw error;
      execFileSync('sleep', ['2']);
    }
  }
}

afterAll(() => {
  execFileSync(process.execPath, ['scripts/crashCluster.mjs', 'stop'], { cwd: ROOT });
}, 60_000);

describe('a PostgreSQL that is killed while samples arrive', () => {
  it('has kept every acknowledged batch whole and once, with rollups that agree with the samples', async () => {
    const before = startCluster();
    const name = `crash_${Date.now()}`;
    const admin = new pg.Client({ connectionString: before.url });
    await admin.connect();
    await admin.query(`create database ${name}`);
    await admin.end();
    const address = (url: string): string => url.replace(/\/[^/]*$/, `/${name}`);
    const pool = openPool(address(before.url), () => undefined);
    await migrate(pool);
    const at = Date.now();
    const createdBy = await addPerson(pool, {
      email: 'a@b.example',
      name: 'A',
      rights: rightsEverywhere('analyst'),
      passwordHash: 'x',
      at,
    });
    const { token, hash } = makeToken();
    await addToken(pool, { name: 't', hash, createdBy, at });
    const assetId = (await addAsset(pool, { parentId: null, name: 'P', kind: 'plant', zone: 'UTC' }))!;
    const metricId = (await addMetric(pool, {
      assetId,
      key: 'p.m',
      name: 'm',
      unit: 'kW',
      kind: 'level',
      intervalMs: MINUTE,
      maxGapMs: 5 * MINUTE,
      rollover: null,
      decimals: 1,
      at,
    }))!;
    await pool.end();

    const start = Date.now() - BATCHES * BATCH * MINUTE;
    const batch = (n: number) =>
      Array.from({ length: BATCH }, (_, i) => ({ metric: 'p.m', t: start + (n * BATCH + i) * MINUTE, v: n }));
    const { url, child } = await startServerProcess(address(before.url));
    const acknowledged = new Set<number>();
    let killed = false;
    await Promise.all(
      Array.from({ length: BATCHES }, async (_, n) => {
        const answer = await push<PushAnswer>(url, token, batch(n)).catch(() => null);
        if (answer?.status === 200 && !killed) acknowledged.add(n);
        if (acknowledged.size >= 5 && !killed) {
          killed = true;
          process.kill(before.pid, 'SIGKILL');
        }
      }),
    );
    // The server outlives its database.
    await new Promise((resolve) => setTimeout(resolve, 1000));
    expect(child.exitCode).toBeNull();
    child.kill('SIGKILL');
    expect(acknowledged.size).toBeGreaterThanOrEqual(5);
    expect(acknowledged.size).toBeLessThan(BATCHES);

    const after = startCluster();
    const again = openPool(address(after.url), () => undefined);
    const series = (await readSeries(again, [metricId], 0, Date.now())).get(metricId)!;
    const count = new Map<number, number>();
    series.v.forEach((n) => count.set(n, (count.get(n) ?? 0) + 1));
    for (const n of acknowledged) expect(count.get(n)).toBe(BATCH);
    for (const stored of count.values()) expect(stored).toBe(BATCH);
    const second = await startServerProcess(address(after.url));
    for (let n = 0; n < BATCHES; n++) await push(second.url, token, batch(n));
    const whole = (await readSeries(again, [metricId], 0, Date.now())).get(metricId)!;
    expect(whole.t).toHaveLength(BATCHES * BATCH);
    second.child.kill('SIGTERM');
    await again.end();
  }, 120_000);
});
