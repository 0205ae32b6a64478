import type { Alarm, AlarmEvent, AlarmHealth, AlarmRule, HealthCheck, PageOf } from '@vivid-beacon/core';
import { alarmsOf, onTestServer, push, ruleDraft, TEST_NOW, serverWithMetric } from '../testing/testServer';
import type { RaisingRuleRow } from './annunciationSql';

const MINUTE = 60_000;
const { test, analyst, operator } = onTestServer('analyst', 'operator');

interface Answer {
  readonly health: AlarmHealth;
  readonly checks: HealthCheck[];
  readonly rules: RaisingRuleRow[];
}
const ask = async (query = ''): Promise<Answer> =>
  (await operator.call<Answer>('GET', `/api/alarm-health${query}`)).body;

describe('alarm health', () => {
  it('counts every call, also while an alarm waits for its acknowledgement, and none of a shelved rule', async () => {
    const { key, token, metricId } = await serverWithMetric(analyst);
    const { id } = (await analyst.call<{ id: string }>('POST', '/api/alarm-rules', ruleDraft(metricId))).body;
    let minute = 0;
    const send = async (v: number): Promise<void> => {
      minute++;
      test.clock.now = TEST_NOW + minute * MINUTE;
      await push(test.url, token, [{ metric: key, t: test.clock.now, v }]);
    };
    for (const v of [200, 210, 200, 210, 200]) await send(v);
    const twice = await ask();
    expect(twice.health).toMatchObject({ count: 2, neverAcknowledged: 2, toAcknowledge: null });
    expect(twice.health.topTen).toEqual([{ ruleId: id, count: 2, share: 1 }]);
    expect(twice.rules).toEqual([{ id, name: 'Too hot', inForce: true }]);
    expect(twice.checks.every(({ level }) => level === 'clear')).toBe(true);

    const [{ id: standing }] = await alarmsOf(operator, id);
    test.clock.now += 3 * MINUTE;
    await operator.call('POST', `/api/alarms/${standing}/acknowledgement`, { remark: '' });
    minute += 3;
    expect((await ask()).health.toAcknowledge!.median).toBeGreaterThanOrEqual(3 * MINUTE);

    await operator.call('PUT', `/api/alarm-rules/${id}/aside`, {
      kind: 'shelved',
      forMs: 3_600_000,
      reason: 'Mended',
    });
    for (const v of [210, 200]) await send(v);
    expect((await ask()).health.count).toBe(2);
    await operator.call('DELETE', `/api/alarm-rules/${id}/aside`);
    for (const v of [210, 200]) await send(v);
    expect((await ask()).health.count).toBe(3);
    // Past alarms of a withdrawn rule still count, and say so.
    await analyst.call('DELETE', `/api/alarm-rules/${id}`);
    expect((await ask()).rules).toEqual([{ id, name: 'Too hot', inForce: false }]);
  });

  it('tells rates per operator, over days that may be asked for', async () => {
    const pool = test.server.app.pool;
    await pool.query("update alarm_rule set in_force_from = in_force_from - interval '60 days'");
    const one = await ask('?days=30&operators=1');
    expect(one.health.window.end - one.health.window.start).toBe(30 * 86_400_000);
    const three = await ask('?days=30&operators=3');
    const path = '/api/alarm-health/operators';
    expect((await operator.call('PUT', path, { operators: 2 })).status).toBe(403);
    expect((await analyst.call('PUT', path, { operators: 0 })).status).toBe(422);
    expect((await analyst.call('PUT', path, { operators: 2 })).status).toBe(204);
    expect((await ask()).health.operators).toBe(2);
    expect((await ask('?operators=1')).health.operators).toBe(1);
    // Nothing could raise before the first rule: those days do not lower the rates.
    await pool.query('update alarm_rule set in_force_from = $1', [new Date(test.clock.now - 2 * 86_400_000)]);
    const young = await ask('?days=30&operators=1');
    expect(young.health.perDay).toBeCloseTo(one.health.perDay * 15, 9);
    expect(three.health.perDay).toBeCloseTo(one.health.perDay / 3, 12);
    for (const wrong of ['?days=3', '?operators=0', '?operators=1.5', '?more=1']) {
      expect((await operator.call('GET', `/api/alarm-health${wrong}`)).status).toBe(422);
    }
  });
});

describe('a rule that goes out of force', () => {
  const MINUTES_BACK = 5 * MINUTE;
  async function hot(part: object = {}) {
    const { key, token, metricId } = await serverWithMetric(analyst);
    const draft = ruleDraft(metricId, part);
    const { id } = (await analyst.call<{ id: string }>('POST', '/api/alarm-rules', draft)).body;
    test.clock.now += MINUTE;
    await push(test.url, token, [{ metric: key, t: test.clock.now, v: 210 }]);
    return { id, metricId, draft, alarm: await alarmOf(id) };
  }
  const alarmOf = async (ruleId: string): Promise<Alarm> => (await alarmsOf(operator, ruleId))[0];

  it('ends its acknowledged alarm, and one that nobody has seen once it is acknowledged', async () => {
    const seen = await hot();
    await operator.call('POST', `/api/alarms/${seen.alarm.id}/acknowledgement`, { remark: '' });
    await analyst.call('DELETE', `/api/alarm-rules/${seen.id}`);
    expect(await alarmOf(seen.id)).toMatchObject({ state: 'normal', returnedAt: test.clock.now });
    const unseen = await hot();
    await analyst.call('DELETE', `/api/alarm-rules/${unseen.id}`);
    expect((await alarmOf(unseen.id)).state).toBe('returnedUnacknowledged');
    await operator.call('POST', `/api/alarms/${unseen.alarm.id}/acknowledgement`, { remark: '' });
    expect((await alarmOf(unseen.id)).state).toBe('normal');
    const { body } = await operator.call<{ events: AlarmEvent[] }>('GET', `/api/alarms/${unseen.alarm.id}`);
    expect(body.events.map(({ kind }) => kind)).toEqual(['raised', 'ruleRetired', 'acknowledged']);
    expect((await analyst.call('DELETE', `/api/alarm-rules/${unseen.id}`)).status).toBe(404);
  });

  it('gives its place to the one that replaces it, both or neither', async () => {
    const { id, metricId, draft } = await hot();
    test.clock.now += MINUTES_BACK;
    const limit = (value: number) => ({ kind: 'limit', side: 'above', limit: value, deadband: 0 });
    const next = { ...draft, test: limit(300), replaces: id };
    expect((await analyst.call('POST', '/api/alarm-rules', next)).status).toBe(200);
    const inForce = async (): Promise<unknown[]> =>
      (await operator.call<PageOf<AlarmRule>>('GET', '/api/alarm-rules?limit=500')).body.items
        .filter((rule) => rule.metricId === metricId)
        .map((rule) => rule.test);
    expect(await inForce()).toEqual([limit(300)]);
    // The one it replaces is gone already: nothing is put in force.
    expect((await analyst.call('POST', '/api/alarm-rules', { ...next, test: limit(400) })).status).toBe(404);
    expect(await inForce()).toEqual([limit(300)]);
  });
});
