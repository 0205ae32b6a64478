import { DEFAULT_RULE, type Alarm, type AlarmHealth, type Notice, type PageOf } from '@vivid-beacon/core';
import { putInForce } from '../alarms/rules';
import { addMetric } from '../metrics/sql';
import { onTestServer, push, serverWithMetric, peopleOf } from '../testing/testServer';
import { sendNotices } from './send';

const MINUTE = 60_000;
const AREAS = 2;
const EACH = 500;
const BATCHES = 5;
const { test, analyst, operator } = onTestServer('analyst', 'operator');

describe('1,000 alarms in a minute', () => {
  const keys: string[] = [];
  let token = '';

  beforeAll(async () => {
    const { pool } = test.server.app;
    const people = await peopleOf(analyst);
    const told = people.filter(({ role }) => role === 'operator').map(({ id }) => id);
    for (let area = 0; area < AREAS; area++) {
      const { assetId, token: made } = await serverWithMetric(analyst);
      token = made;
      const ids: string[] = [];
      for (let i = 0; i < EACH; i++) {
        const key = `flood.${area}.${i}`;
        keys.push(key);
        ids.push(
          (await addMetric(pool, {
            assetId,
            key,
            name: `Lane ${i} of area ${area}`,
            unit: '°C',
            kind: 'level',
            intervalMs: MINUTE,
            maxGapMs: 5 * MINUTE,
            rollover: null,
            decimals: 1,
            at: test.clock.now,
          }))!,
        );
      }
      const limit = { kind: 'limit', side: 'above', limit: 90, deadband: 0 } as const;
      for (const metricId of ids) {
        const rule = { ...DEFAULT_RULE, name: `Hot ${area}`, metricId, test: limit, told };
        await putInForce(pool, rule, told[0], test.clock.now);
      }
    }
  }, 60_000);

  it('all stand, and each person is told once, in one digest', async () => {
    const from = test.clock.now + 1;
    for (let i = 0; i < BATCHES; i++) {
      test.clock.now += MINUTE / BATCHES;
      const part = keys.filter((_, k) => k % BATCHES === i);
      await push(
        test.url,
        token,
        part.map((metric) => ({ metric, t: test.clock.now, v: 100 })),
      );
    }
    // Sent once more by a feed that had no answer: nothing is raised twice.
    await push(
      test.url,
      token,
      keys.slice(0, 200).map((metric) => ({ metric, t: test.clock.now, v: 100 })),
    );
    const page = async (offset: number) =>
      (await operator.call<PageOf<Alarm>>('GET', `/api/alarms?offset=${offset}&limit=500`)).body;
    const [first, second] = [await page(0), await page(500)];
    expect([first.total, second.total]).toEqual([AREAS * EACH, AREAS * EACH]);
    const standing = [...first.items, ...second.items];
    expect(new Set(standing.map(({ metricId }) => metricId)).size).toBe(AREAS * EACH);

    expect(await sendNotices(test.server.app, test.server.posts)).toBe(1);
    expect(await sendNotices(test.server.app, test.server.posts)).toBe(0);
    const { notices } = (await operator.call<{ notices: Notice[] }>('GET', '/api/notices')).body;
    const [digest] = notices.filter(({ kind }) => kind === 'digest');
    expect(digest.subject).toContain(`${(AREAS * EACH).toLocaleString('en-GB')} notices`);
    expect(digest.body).toContain('Hot 0 (500 times)');
    expect(digest.body.length).toBeLessThan(5_000);

    test.clock.now += 1000;
    const health = await operator.call<{ health: AlarmHealth }>('GET', '/api/alarm-health?days=1');
    expect(health.body.health).toMatchObject({ count: AREAS * EACH, peak: { count: AREAS * EACH } });
    expect(health.body.health.floods.length).toBeGreaterThan(0);
    expect((await operator.call('GET', '/api/on-watch')).status).toBe(200);
    const { rows } = await test.server.app.pool.query<{ n: number }>(
      'select count(*)::int as n from alarm where raised_at >= to_timestamp($1::float8 / 1000)',
      [from],
    );
    expect(rows[0].n).toBe(AREAS * EACH);
  }, 60_000);
});
