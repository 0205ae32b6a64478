import type { Metric, PushAnswer, Reading, TrendAnswer } from '@vivid-beacon/core';
import { onTestServer, push, TEST_NOW, serverWithMetric } from '../testing/testServer';

const MINUTE = 60_000;
const { test, analyst } = onTestServer('analyst');

describe('POST /api/samples', () => {
  it('stores samples and gives their value back; the same batch again changes nothing', async () => {
    const { key, token, metricId } = await serverWithMetric(analyst);
    const samples = [60, 50, 40].map((back, i) => ({ metric: key, t: TEST_NOW - back * MINUTE, v: 10 + i }));
    expect((await push<PushAnswer>(test.url, token, samples)).body).toEqual({
      added: 3,
      unchanged: 0,
      corrected: 0,
      refused: [],
      met: [],
    });
    expect((await push<PushAnswer>(test.url, token, samples)).body).toEqual({
      added: 0,
      unchanged: 3,
      corrected: 0,
      refused: [],
      met: [],
    });
    const metric = await analyst.call<Metric>('GET', `/api/metrics/${metricId}`);
    expect(metric.body.last).toEqual({ t: TEST_NOW - 40 * MINUTE, v: 12 });
  });

  it('corrects a value and keeps what it was before', async () => {
    const { key, token, metricId } = await serverWithMetric(analyst);
    await push(test.url, token, [{ metric: key, t: TEST_NOW, v: 1 }]);
    expect(
      (await push<PushAnswer>(test.url, token, [{ metric: key, t: TEST_NOW, v: 2 }])).body.corrected,
    ).toBe(1);
    const { rows } = await test.server.app.pool.query(
      'select value_before, value_after from sample_correction where metric_id = $1',
      [metricId],
    );
    expect(rows).toEqual([{ value_before: 1, value_after: 2 }]);
  });

  it('refuses bad samples one by one with reasons and keeps the good ones', async () => {
    const { key, token } = await serverWithMetric(analyst);
    const good = { metric: key, t: TEST_NOW - MINUTE, v: 5 };
    const { status, body } = await push<PushAnswer>(test.url, token, [
      good,
      { ...good, metric: 'nothing.like.it' },
      { ...good, t: TEST_NOW + 3_600_000 },
      { ...good, t: '1450-01-01T00:00:00Z' },
      { ...good, t: '2026-11-19T11:00:00' },
      { ...good, v: null },
      { ...good, v: '7' },
      { ...good, unit: '°F' },
      'not a sample',
    ]);
    expect(status).toBe(200);
    expect(body.added).toBe(1);
    expect(body.refused.map(({ index }) => index)).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
    expect(body.refused.map(({ reason }) => reason).join('\n')).toMatch(
      /no metric "nothing.like.it"[\s\S]*in the future[\s\S]*before 1500[\s\S]*with offset[\s\S]*finite number[\s\S]*unit must be "°C"/,
    );
  });

  it('refuses a wrong or revoked token, malformed JSON and too large a batch', async () => {
    const { key, token } = await serverWithMetric(analyst);
    expect((await push(test.url, 'vb_wrong', [])).status).toBe(401);
    expect(await push(test.url, token, '{"samples":[')).toMatchObject({
      status: 400,
      body: { error: { code: 'BAD_SHAPE' } },
    });
    expect((await push(test.url, token, '{"samples":[{"metric":"a","t":1,"v":NaN}]}')).status).toBe(400);
    const many = Array.from({ length: 10_001 }, () => ({ metric: key, t: TEST_NOW, v: 1 }));
    expect(await push(test.url, token, many)).toMatchObject({
      status: 413,
      body: { error: { code: 'TOO_LARGE' } },
    });
    const tokens = await analyst.call<{ id: string }[]>('GET', '/api/push-tokens');
    for (const { id } of tokens.body) await analyst.call('DELETE', `/api/push-tokens/${id}`);
    expect((await push(test.url, token, [])).status).toBe(401);
  });

  it('keeps tokens hashed only', async () => {
    const { token } = await serverWithMetric(analyst);
    const { rows } = await test.server.app.pool.query<{ text: string }>(
      'select row_to_json(push_token)::text as text from push_token',
    );
    expect(rows.some(({ text }) => text.includes(token))).toBe(false);
  });

  it('adds up when two senders push the same metric at once', async () => {
    const { key, token, metricId } = await serverWithMetric(analyst);
    const batch = (from: number) =>
      Array.from({ length: 50 }, (_, i) => ({ metric: key, t: TEST_NOW - (from + i) * MINUTE, v: i }));
    await Promise.all([0, 25, 50, 75].map((from) => push(test.url, token, batch(from))));
    const { rows } = await test.server.app.pool.query(
      'select sum(n)::int as n from sample_day where metric_id = $1',
      [metricId],
    );
    expect(rows).toEqual([{ n: 125 }]);
  });
});

describe('readings', () => {
  it('give value, level, coverage and provenance of a window', async () => {
    const { key, token, metricId } = await serverWithMetric(analyst);
    await push(
      test.url,
      token,
      Array.from({ length: 60 }, (_, i) => ({
        metric: key,
        t: TEST_NOW - (60 - i) * MINUTE,
        v: i < 30 ? 10 : 20,
      })),
    );
    const ask = {
      measure: { metricId, summary: 'mean', per: null },
      window: { kind: 'rolling', count: 1, unit: 'hour' },
      band: { direction: 'lower', caution: 12, breach: 14, target: 11 },
    };
    const { body } = await analyst.call<Reading>('POST', '/api/readings/value', ask);
    expect(body).toMatchObject({
      value: 15,
      unit: '°C',
      level: 'breach',
      coverage: 1,
      partial: false,
      asOf: TEST_NOW - MINUTE,
    });
    expect(body.provenance).toMatchObject({
      zone: 'Europe/London',
      window: { start: TEST_NOW - 60 * MINUTE, end: TEST_NOW },
    });
    expect(body.provenance.parts[0]).toMatchObject({
      samples: 60,
      sources: [{ kind: 'push', name: 'Test sender', samples: 60 }],
    });
    expect(body.provenance.formula).toMatch(/^time-weighted mean of Bed temperature/);
  });

  it('give a ratio as sum over sum, and refuse a summary that makes no sense', async () => {
    const gas = await serverWithMetric(analyst, { name: 'Gas', unit: 'kWh', kind: 'amount' });
    const load = await serverWithMetric(analyst, { name: 'Load', unit: 'kg', kind: 'amount' });
    const at = (back: number) => TEST_NOW - back * MINUTE;
    await push(test.url, gas.token, [
      { metric: gas.key, t: at(2), v: 1 },
      { metric: gas.key, t: at(1), v: 30 },
    ]);
    await push(test.url, load.token, [
      { metric: load.key, t: at(2), v: 10 },
      { metric: load.key, t: at(1), v: 100 },
    ]);
    const per = { metricId: load.metricId, summary: 'sum', factor: 1, unit: null };
    const window = { kind: 'rolling', count: 2, unit: 'minute' };
    const ratio = await analyst.call<Reading>('POST', '/api/readings/value', {
      measure: { metricId: gas.metricId, summary: 'sum', per },
      window,
    });
    expect(ratio.body.value).toBeCloseTo(31 / 110, 12);
    expect(ratio.body.unit).toBe('kWh/kg');
    const wrong = await analyst.call('POST', '/api/readings/value', {
      measure: { metricId: gas.metricId, summary: 'increase', per: null },
      window,
    });
    expect(wrong).toMatchObject({ status: 422, body: { error: { path: 'measure.summary' } } });
  });

  it('leave gaps open in a trend and thin it without losing a spike', async () => {
    const { key, token, metricId } = await serverWithMetric(analyst);
    const minutes = Array.from({ length: 600 }, (_, i) => i).filter((i) => i < 200 || i > 260);
    await push(
      test.url,
      token,
      minutes.map((i) => ({ metric: key, t: TEST_NOW - (600 - i) * MINUTE, v: i === 431 ? 999 : 20 })),
    );
    const { body } = await analyst.call<TrendAnswer>('POST', '/api/readings/trend', {
      measure: { metricId, summary: 'mean', per: null },
      window: { kind: 'rolling', count: 10, unit: 'hour' },
      bucket: null,
      columns: 20,
    });
    expect(body.t.length).toBeLessThanOrEqual(81);
    expect(Math.max(...body.v.filter((v) => v !== null))).toBe(999);
    expect(body.v).toContain(null);
    expect(body.gaps).toEqual([{ start: TEST_NOW - 391 * MINUTE, end: TEST_NOW - 339 * MINUTE }]);
  });
});
