import { gzipSync } from 'node:zlib';
import type { Metric, PushAnswer, ErrorBody } from '@vivid-beacon/core';
import { onTestServer, push, TEST_NOW, serverWithMetric } from '../testing/testServer';
import { applyRetention } from '../jobs/retention';

const MINUTE = 60_000;
const DAY = 86_400_000;
const { test, analyst } = onTestServer('analyst');

const stored = async (metricId: string): Promise<[number, number, number][]> =>
  (
    await test.server.app.pool.query<{ t: Date; v: number; quality: number }>(
      `select * from metric_samples($1, '2000-01-01', '2100-01-01')`,
      [metricId],
    )
  ).rows.map(({ t, v, quality }) => [t.getTime(), v, quality]);

describe('POST /api/samples', () => {
  it('takes columns, lines of JSON and OpenMetrics text, gzip or not', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst);
    const t = (i: number): number => TEST_NOW - i * MINUTE;
    const columns = JSON.stringify({ series: [{ metric: key, t: [t(9), t(8)], v: [1, 2] }] });
    expect((await push<PushAnswer>(test.url, token, columns)).body).toMatchObject({ added: 2, refused: [] });
    const lines = `{"metric":"${key}","t":${t(7)},"v":3}\n\n{broken\n{"metric":"${key}","t":${t(6)},"v":4}\n`;
    const ndjson = await push<PushAnswer>(test.url, token, gzipSync(lines), {
      'content-type': 'application/x-ndjson',
      'content-encoding': 'gzip',
    });
    expect(ndjson.body).toMatchObject({
      added: 2,
      refused: [{ index: 2, reason: 'line 3 is not valid JSON' }],
    });
    const plain = key.replace(/[^a-z0-9]+/g, '_');
    const exposed = `# TYPE x gauge\n${plain} 5 ${t(5) / 1000}\nx{metric="${key}"} 6 ${t(4) / 1000}\n9bad 1\n# EOF\n`;
    const open = await push<PushAnswer>(test.url, token, exposed, {
      'content-type': 'application/openmetrics-text; version=1.0.0',
    });
    expect(open.body.added).toBe(2);
    expect(open.body.refused[0].reason).toContain('line 4');
    expect((await stored(metricId)).map(([, v]) => v)).toEqual([1, 2, 3, 4, 5, 6]);
    const cut = await push<{ error: ErrorBody }>(test.url, token, `${plain} 7 1\n`, {
      'content-type': 'application/openmetrics-text',
    });
    expect([cut.status, cut.body.error.message]).toEqual([422, expect.stringContaining('# EOF')]);
    expect((await push(test.url, token, 'x', { 'content-type': 'text/html' })).status).toBe(422);
    const plainText = `${plain} 8 ${t(2)}\n`;
    const readable = await push<PushAnswer>(test.url, token, plainText, {
      'content-type': 'text/plain; version=0.0.4',
    });
    expect(readable.body).toMatchObject({ added: 1, refused: [] });
  });

  it('refuses a small gzip body that unpacks to more than 5 MB', async () => {
    const { token } = await serverWithMetric(analyst);
    const bomb = gzipSync(Buffer.alloc(20_000_000, 32));
    const answer = await push(test.url, token, bomb, { 'content-encoding': 'gzip' });
    expect([bomb.length < 50_000, answer.status]).toEqual([true, 413]);
  });

  it('keeps quality: bad and implausible samples are stored and shown, but no summary uses them', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, { plausibleHigh: 100 });
    await push(test.url, token, [
      { metric: key, t: TEST_NOW - 3 * MINUTE, v: 10 },
      { metric: key, t: TEST_NOW - 2 * MINUTE, v: 500 },
      { metric: key, t: TEST_NOW - MINUTE, v: null, q: 'bad' },
    ]);
    expect((await stored(metricId)).map(([, v, q]) => [v, q])).toEqual([
      [10, 0],
      [500, 3],
      [NaN, 2],
    ]);
    const { body } = await analyst.call<{ value: number; provenance: { parts: { samples: number }[] } }>(
      'POST',
      '/api/readings/value',
      {
        measure: { metricId, summary: 'max', per: null },
        window: { kind: 'rolling', count: 1, unit: 'hour' },
      },
    );
    expect([body.value, body.provenance.parts[0].samples]).toEqual([10, 1]);
    const corrected = await push<PushAnswer>(test.url, token, [{ metric: key, t: TEST_NOW - MINUTE, v: 20 }]);
    expect(corrected.body.corrected).toBe(1);
    const { rows } = await test.server.app.pool.query(
      'select value_after, quality_before, quality_after from sample_correction where metric_id = $1',
      [metricId],
    );
    expect(rows).toEqual([{ value_after: 20, quality_before: 2, quality_after: 0 }]);
  });

  it('tells a clock that runs ahead, a feed out of range and a stuck one', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, { plausibleHigh: 100 });
    const health = async (): Promise<string> =>
      (await analyst.call<Metric>('GET', `/api/metrics/${metricId}`)).body.health.state;
    await push(test.url, token, [{ metric: key, t: TEST_NOW, v: 500 }]);
    expect(await health()).toBe('outOfRange');
    await push(test.url, token, [{ metric: key, t: TEST_NOW, v: 50 }]);
    expect(await health()).toBe('reporting');
    const ahead = await push<PushAnswer>(test.url, token, [{ metric: key, t: TEST_NOW + 20 * MINUTE, v: 1 }]);
    expect(ahead.body.refused[0].reason).toContain('1200 s in the future');
    expect(await health()).toBe('clockAhead');
    const stuck = await serverWithMetric(analyst);
    await push(
      test.url,
      stuck.token,
      Array.from({ length: 300 }, (_, i) => ({ metric: stuck.key, t: TEST_NOW - (300 - i) * MINUTE, v: 7 })),
    );
    expect((await analyst.call<Metric>('GET', `/api/metrics/${stuck.metricId}`)).body.health).toMatchObject({
      state: 'flat',
      flatMs: 299 * MINUTE,
    });
  });

  it('throws samples away when their time is over, keeps what they added up to, and takes no older ones', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, { retentionDays: 5, maxGapMs: 2 * DAY });
    await test.server.app.pool.query('update metric set retention_days = null where id = $1', [metricId]);
    await push(test.url, token, [
      { metric: key, t: TEST_NOW - 9 * DAY, v: 10 },
      { metric: key, t: TEST_NOW - DAY, v: 20 },
    ]);
    await test.server.app.pool.query('update metric set retention_days = 5 where id = $1', [metricId]);
    expect(await applyRetention(test.server.app.pool, TEST_NOW)).toBe(1);
    expect(await stored(metricId)).toHaveLength(1);
    const { body } = await analyst.call<{ value: number }>('POST', '/api/readings/value', {
      measure: { metricId, summary: 'min', per: null },
      window: { kind: 'periods', count: 12, unit: 'day', current: true },
    });
    expect(body.value).toBe(10);
    const late = await push<PushAnswer>(test.url, token, [{ metric: key, t: TEST_NOW - 9 * DAY, v: 11 }]);
    expect(late.body.refused[0].reason).toContain('older than the 5 days');
  });
});
