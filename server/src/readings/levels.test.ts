import type { IndicatorLoss, LevelSpan } from '@vivid-beacon/core';
import { indicatorDraft, onTestServer, push, TEST_NOW, serverWithMetric } from '../testing/testServer';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const BAND = { direction: 'lower', caution: 20, breach: 30, target: 15 } as const;

const { test, analyst } = onTestServer('analyst');

/** Three hours: one Clear, one in Breach, one with nothing. */
async function threeHours() {
  const made = await serverWithMetric(analyst);
  const values = Array.from({ length: 120 }, (_, i) => (i < 60 ? 10 : 40));
  await push(
    test.url,
    made.token,
    values.map((v, i) => ({ metric: made.key, t: TEST_NOW - 3 * HOUR + i * MINUTE, v })),
  );
  return made;
}

describe('POST /api/readings/levels', () => {
  it('tells when a measure was on which level, hours without enough data as No data', async () => {
    const { metricId } = await threeHours();
    const { body } = await analyst.call<LevelSpan[]>('POST', '/api/readings/levels', {
      measure: { metricId, summary: 'mean', per: null },
      band: BAND,
      start: TEST_NOW - 3 * HOUR,
      end: TEST_NOW,
      bucket: 'hour',
    });
    expect(body).toEqual([
      { start: TEST_NOW - 3 * HOUR, end: TEST_NOW - 2 * HOUR, level: 'clear' },
      { start: TEST_NOW - 2 * HOUR, end: TEST_NOW - HOUR, level: 'breach' },
      { start: TEST_NOW - HOUR, end: TEST_NOW, level: 'nodata' },
    ]);
  });

  it('refuses a stretch of time that ends before it starts', async () => {
    const { metricId } = await threeHours();
    const ask = { measure: { metricId, summary: 'mean', per: null }, band: BAND, start: 10, end: 5 };
    expect(await analyst.call('POST', '/api/readings/levels', ask)).toMatchObject({
      status: 422,
      body: { error: { path: 'end' } },
    });
  });
});

describe('POST /api/readings/distribution', () => {
  it('looks at the past when its window is still to come', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const { status, body } = await analyst.call<{ values: number[]; interval: { end: number } }>(
      'POST',
      '/api/readings/distribution',
      {
        measure: { metricId, summary: 'mean', per: null },
        window: { kind: 'next', count: 2, unit: 'year', current: false },
      },
    );
    expect([status, body.values]).toEqual([200, []]);
    expect(body.interval.end).toBeLessThanOrEqual(TEST_NOW);
  });

  it('gives past values of the length of the window, sorted, only from hours with enough data', async () => {
    const { metricId } = await threeHours();
    const { body } = await analyst.call('POST', '/api/readings/distribution', {
      measure: { metricId, summary: 'mean', per: null },
      window: { kind: 'rolling', count: 1, unit: 'hour' },
    });
    expect(body).toMatchObject({ bucket: 'hour', values: [10, 40] });
  });

  it('gives totals by periods as long as the window, without the unfinished one', async () => {
    const { key, token, metricId } = await serverWithMetric(analyst, {
      kind: 'amount',
      unit: 'kg',
      intervalMs: HOUR,
    });
    const from = Date.UTC(2026, 9, 1);
    test.clock.now = Date.UTC(2026, 10, 11);
    const samples = Array.from({ length: 40 * 24 }, (_, i) => ({ metric: key, t: from + i * HOUR, v: 1 }));
    await push(test.url, token, samples);
    const { body } = await analyst.call('POST', '/api/readings/distribution', {
      measure: { metricId, summary: 'sum', per: null },
      window: { kind: 'toDate', unit: 'month' },
    });
    // October in London: 31 days and the hour that came twice, less the one before its midnight.
    expect(body).toMatchObject({ bucket: 'month', values: [31 * 24] });
    test.clock.now = TEST_NOW;
  });
});

describe('GET /api/indicators/time-by-level', () => {
  it('counts the hours an indicator lay on each level', async () => {
    const { metricId, assetId } = await threeHours();
    const made = await analyst.call(
      'POST',
      '/api/indicators',
      indicatorDraft(assetId, metricId, { name: 'Oil', judge: { kind: 'limits', band: BAND } }),
    );
    expect(made.status).toBe(200);
    const { body } = await analyst.call<IndicatorLoss[]>('GET', '/api/indicators/time-by-level?days=1');
    expect(body).toEqual([
      expect.objectContaining({
        name: 'Oil',
        breachMs: HOUR,
        cautionMs: 0,
        clearMs: HOUR,
        nodataMs: 22 * HOUR,
      }),
    ]);
    expect((await analyst.call('GET', '/api/indicators/time-by-level?days=1000')).status).toBe(422);
  });
});
