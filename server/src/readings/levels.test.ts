import type { IndicatorLoss, LevelSpan, StretchNumbers } from '@vivid-beacon/core';
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

describe('the time on each level of a stretch', () => {
  const stretch = async (metricId: string, summary: string, start: number, end: number, bucket?: string) => {
    const { body } = await analyst.call<StretchNumbers[]>('POST', '/api/readings/stretch', {
      measures: [{ metricId, summary, per: null }],
      start,
      end,
      band: BAND,
      ...(bucket && { bucket }),
    });
    const { levels, levelsBy } = body[0];
    return { ...levels, levelsBy };
  };

  it('is clipped to it to the millisecond, and not of whole quarters of an hour', async () => {
    const { metricId } = await threeHours();
    const turn = TEST_NOW - 2 * HOUR;
    expect(await stretch(metricId, 'mean', turn - 123, turn + 4 * MINUTE + 7)).toEqual({
      ...{ clear: 123, caution: 0, breach: 4 * MINUTE + 7, nodata: 0 },
      levelsBy: null,
    });
  });

  it('of a long stretch comes from quarter-hour means, and says so', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst);
    // 40 degrees for six minutes of a quarter at 10: a mean of 22 is Caution.
    const t = TEST_NOW - 5 * HOUR;
    const values = [...Array(9).fill(10), ...Array(6).fill(40)] as number[];
    await push(
      test.url,
      token,
      values.map((v, i) => ({ metric: key, t: t + i * MINUTE, v })),
    );
    const start = TEST_NOW - 20 * 24 * HOUR;
    const { caution, breach, nodata, clear, levelsBy } = await stretch(metricId, 'mean', start, TEST_NOW - 1);
    expect([caution, breach, levelsBy]).toEqual([15 * MINUTE, 0, 'quarterHour']);
    // The ten minutes that the last sample is trusted fill two thirds of the next quarter: too little for a level.
    expect([nodata! + clear! + caution!, clear]).toEqual([TEST_NOW - 1 - start, 0]);
  });

  it('of a total is that of its periods, and unknown without them', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, { kind: 'amount', intervalMs: HOUR });
    await push(
      test.url,
      token,
      [10, 25, 40].map((v, i) => ({ metric: key, t: TEST_NOW - (3 - i) * HOUR, v })),
    );
    const [start, end] = [TEST_NOW - 2.5 * HOUR, TEST_NOW];
    expect((await stretch(metricId, 'sum', start, end)).levelsBy).toBeNull();
    expect((await stretch(metricId, 'sum', start, end)).clear).toBeUndefined();
    expect(await stretch(metricId, 'sum', start, end, 'hour')).toEqual({
      ...{ clear: HOUR / 2, caution: HOUR, breach: HOUR, nodata: 0 },
      levelsBy: 'hour',
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
  it('counts the time an indicator lay on each level, by its held samples', async () => {
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
        // The last sample, 61 minutes ago, holds for the longest gap of ten minutes.
        breachMs: HOUR + 9 * MINUTE,
        cautionMs: 0,
        clearMs: HOUR,
        nodataMs: 22 * HOUR - 9 * MINUTE,
        by: null,
      }),
    ]);
    expect((await analyst.call('GET', '/api/indicators/time-by-level?days=1000')).status).toBe(422);
  });
});
