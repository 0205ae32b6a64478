import { askQuery } from '../testing/askQuery';
import { onTestServer, push, serverWithMetric, TEST_NOW } from '../testing/testServer';
import { applyRetention } from './retention';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const TODAY = Date.UTC(2026, 10, 19);
const FIRST_KEPT = TODAY - 5 * DAY;
const { test, analyst } = onTestServer('analyst');

const iso = (t: number): string => new Date(t).toISOString().slice(0, 19);
async function dayOf(metricId: string, summary: string, start: number) {
  const { body } = await askQuery(analyst, {
    select: { metricIds: [metricId] },
    summary,
    window: { kind: 'absolute', start: iso(start), end: iso(start + DAY) },
  });
  return { value: body.groups[0].values[0], coverage: body.groups[0].coverage[0] };
}
const settle = async (metricId: string, part: object): Promise<void> => {
  const form = {
    name: 'Bed temperature',
    unit: '°C',
    kind: 'level',
    decimals: 1,
    intervalMs: HOUR,
    maxGapMs: DAY,
    retentionDays: 5,
  };
  const { status } = await analyst.call('PUT', `/api/metrics/${metricId}`, { ...form, ...part });
  expect(status).toBe(200);
};

describe('the first day that is kept', () => {
  it('keeps what held into it when it is corrected after the cut', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, { intervalMs: HOUR, maxGapMs: DAY });
    await push(test.url, token, [
      { metric: key, t: FIRST_KEPT - 10 * DAY, v: 1 },
      { metric: key, t: FIRST_KEPT - HOUR, v: 10 },
      { metric: key, t: FIRST_KEPT + 12 * HOUR, v: 20 },
      { metric: key, t: FIRST_KEPT + 20 * HOUR, v: 20 },
    ]);
    await settle(metricId, {});
    const before = await dayOf(metricId, 'mean', FIRST_KEPT);
    expect(before).toEqual({ value: 15, coverage: 1 });
    // Only the day ten days before goes: the last sample before the cut reaches into the first day.
    expect(await applyRetention(test.server.app.pool, TEST_NOW)).toBe(1);
    await push(test.url, token, [{ metric: key, t: FIRST_KEPT + 20 * HOUR, v: 26 }]);
    // 10 for 12 hours, 20 for 8, 26 for 4.
    expect(await dayOf(metricId, 'mean', FIRST_KEPT)).toEqual({
      value: (10 * 12 + 20 * 8 + 26 * 4) / 24,
      coverage: 1,
    });
    // Rollups made anew keep it, and what lies before.
    await settle(metricId, { plausibleHigh: 500 });
    expect((await dayOf(metricId, 'mean', FIRST_KEPT)).coverage).toBe(1);
    expect((await dayOf(metricId, 'last', FIRST_KEPT - 10 * DAY)).value).toBe(1);
    // A day later the next one takes its place.
    expect(await applyRetention(test.server.app.pool, TEST_NOW + DAY)).toBe(1);
  });

  it('keeps the increase of a register since the reading before', async () => {
    const register = { name: 'Meter', unit: 'kWh', kind: 'register', intervalMs: HOUR, maxGapMs: DAY };
    const { metricId, key, token } = await serverWithMetric(analyst, register);
    await push(test.url, token, [
      { metric: key, t: FIRST_KEPT - 12 * HOUR, v: 100 },
      { metric: key, t: FIRST_KEPT + 12 * HOUR, v: 124 },
    ]);
    await settle(metricId, register);
    await applyRetention(test.server.app.pool, TEST_NOW);
    await push(test.url, token, [{ metric: key, t: FIRST_KEPT + 18 * HOUR, v: 130 }]);
    expect((await dayOf(metricId, 'increase', FIRST_KEPT)).value).toBeCloseTo(12 + 6, 9);
  });

  it('needs no day before it that reaches it no more', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, { intervalMs: HOUR, maxGapMs: DAY });
    await push(test.url, token, [{ metric: key, t: FIRST_KEPT - 3 * DAY, v: 1 }]);
    await settle(metricId, {});
    expect(await applyRetention(test.server.app.pool, TEST_NOW)).toBe(1);
  });
});
