import type { PushAnswer } from '@vivid-beacon/core';
import { filePart, onTestServer, push, serverWithMetric } from '../testing/testServer';
import { startServerProcess } from '../testing/serverProcess';
import { readSeries } from './readSeries';

const MINUTE = 60_000;
const BATCH = 500;

const { test, analyst } = onTestServer('analyst');

describe('a server that is killed while samples arrive', () => {
  it('has stored every acknowledged batch whole and once, and no batch in part', async () => {
    const { key, token, metricId } = await serverWithMetric(analyst);
    const start = Date.now() - 40 * BATCH * MINUTE;
    const batch = (n: number) =>
      Array.from({ length: BATCH }, (_, i) => ({ metric: key, t: start + (n * BATCH + i) * MINUTE, v: n }));
    const { url, child } = await startServerProcess(test.databaseUrl);
    const acknowledged = new Set<number>();
    const senders = Array.from({ length: 30 }, async (_, n) => {
      const answer = await push<PushAnswer>(url, token, batch(n)).catch(() => null);
      if (answer?.status === 200) acknowledged.add(n);
      if (acknowledged.size === 4) child.kill('SIGKILL');
    });
    await Promise.all(senders);
    expect(acknowledged.size).toBeGreaterThanOrEqual(4);
    expect(acknowledged.size).toBeLessThan(30);

    const series = (await readSeries(test.server.app.pool, [metricId], 0, Date.now())).get(metricId)!;
    const count = new Map<number, number>();
    series.v.forEach((n) => count.set(n, (count.get(n) ?? 0) + 1));
    for (const n of acknowledged) expect(count.get(n)).toBe(BATCH);
    for (const stored of count.values()) expect(stored).toBe(BATCH);

    // The sender does not know what arrived: it sends everything again, and every sample is stored once.
    const again = await startServerProcess(test.databaseUrl);
    for (let n = 0; n < 30; n++) await push(again.url, token, batch(n));
    const whole = (await readSeries(test.server.app.pool, [metricId], 0, Date.now())).get(metricId)!;
    expect(whole.t).toHaveLength(30 * BATCH);
    const stopped = new Promise((resolve) => again.child.once('exit', resolve));
    again.child.kill('SIGTERM');
    expect(await stopped).toBe(0);
  }, 60_000);
});

describe('an intake that is cut off', () => {
  it('leaves nothing in the store when the server dies before it is finished', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const { url, child } = await startServerProcess(test.databaseUrl);
    const cookie = analyst.cookie();
    const session = (await (await fetch(`${url}/api/session`, { headers: { cookie } })).json()) as {
      csrfToken: string;
    };
    const send = async (where: string, body: object | Uint8Array<ArrayBuffer>) => {
      const bytes = body instanceof Uint8Array ? (body as Uint8Array<ArrayBuffer>) : null;
      const type = bytes ? 'application/octet-stream' : 'application/json';
      return fetch(url + where, {
        method: 'POST',
        headers: { cookie, 'content-type': type, 'x-form-token': session.csrfToken },
        body: bytes ?? JSON.stringify(body),
      });
    };
    const begun = (await (
      await send('/api/intakes', { fileName: 'a.csv', fileSize: 10, fileHash: 'b'.repeat(64), layout: {} })
    ).json()) as { id: string };
    const part = { metricId, t: [Date.now() - MINUTE], v: [1] };
    expect((await send(`/api/intakes/${begun.id}/parts`, filePart(0, [part]))).status).toBe(204);
    child.kill('SIGKILL');
    const series = (await readSeries(test.server.app.pool, [metricId], 0, Date.now())).get(metricId)!;
    expect(series.t).toHaveLength(0);
  }, 60_000);
});
