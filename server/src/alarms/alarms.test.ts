import type { Alarm, AlarmEvent, Flag, RaisedAlarm, WholeRule } from '@vivid-beacon/core';
import {
  alarmsOf as alarmsOfRule,
  onTestServer,
  push,
  ruleDraft,
  TEST_NOW,
  type Visitor,
  serverWithMetric,
  peopleOf,
} from '../testing/testServer';

const MINUTE = 60_000;
const { test, analyst, operator } = onTestServer('analyst', 'operator');

const ruleOn = async (metricId: string, part: object = {}): Promise<string> =>
  (await analyst.call<{ id: string }>('POST', '/api/alarm-rules', ruleDraft(metricId, part))).body.id;
const alarmsOf = (rule: string): Promise<Alarm[]> => alarmsOfRule(analyst, rule);

describe('an alarm', () => {
  it('is raised, acknowledged, flagged, closed and returns; its history is complete', async () => {
    const { key, token, metricId, assetId } = await serverWithMetric(analyst);
    const rule = await ruleOn(metricId);
    const send = (minute: number, v: number) =>
      push(test.url, token, [{ metric: key, t: TEST_NOW + minute * MINUTE, v }]);
    test.clock.now = TEST_NOW + 10 * MINUTE;
    await send(1, 200);
    expect(await alarmsOf(rule)).toEqual([]);
    await send(2, 212);
    const [alarm] = await alarmsOf(rule);
    expect(alarm).toMatchObject({
      state: 'unacknowledged',
      raisedAt: TEST_NOW + 2 * MINUTE,
      raisedValue: 212,
      latestValue: 212,
    });

    const waiting = async (): Promise<number> =>
      (await operator.call<{ count: number }>('GET', '/api/alarms/waiting')).body.count;
    const onTime = async (from: number, to: number): Promise<string[]> => {
      const at = `metricIds=${metricId}&from=${TEST_NOW + from * MINUTE}&to=${TEST_NOW + to * MINUTE}`;
      const { body } = await operator.call<RaisedAlarm[]>('GET', `/api/alarms/on-time?${at}`);
      return body.map(({ id }) => id);
    };
    expect(await waiting()).toBe(1);
    expect([await onTime(0, 2), await onTime(2, 3)]).toEqual([[], [alarm.id]]);
    expect(
      (await operator.call('POST', `/api/alarms/${alarm.id}/acknowledgement`, { remark: 'Slowed the feed.' }))
        .status,
    ).toBe(200);
    expect(await waiting()).toBe(0);
    expect(
      (await operator.call('POST', `/api/alarms/${alarm.id}/acknowledgement`, { remark: '' })).status,
    ).toBe(409);
    const people = await peopleOf(operator);
    const taker = people.find(({ role }) => role === 'operator')!;
    const flag = await operator.call<Flag>('POST', '/api/flags', {
      title: 'Look at trap B',
      note: '',
      toPersonId: taker.id,
      dueAt: TEST_NOW,
      alarmId: alarm.id,
      assetId,
    });
    expect(flag.status).toBe(200);
    expect(
      (
        await operator.call('POST', `/api/flags/${flag.body.id}/outcome`, {
          outcome: 'mended',
          note: 'Trap changed.',
        })
      ).status,
    ).toBe(200);
    expect(
      (await operator.call('POST', `/api/flags/${flag.body.id}/outcome`, { outcome: 'mended', note: '' }))
        .status,
    ).toBe(409);

    await send(3, 203);
    expect((await alarmsOf(rule))[0].state).toBe('acknowledged');
    await send(4, 200);
    expect((await alarmsOf(rule))[0]).toMatchObject({ state: 'normal', returnedAt: TEST_NOW + 4 * MINUTE });
    const { body } = await operator.call<{ events: AlarmEvent[] }>('GET', `/api/alarms/${alarm.id}`);
    expect(body.events.map(({ kind }) => kind).sort()).toEqual([
      'acknowledged',
      'flagClosed',
      'flagged',
      'raised',
      'returned',
    ]);
    expect(body.events.find(({ kind }) => kind === 'acknowledged')?.remark).toBe('Slowed the feed.');
  });

  it('ends the same when its samples come late, repeated and out of order', async () => {
    const values = [200, 206, 210, 211, 200, 199, 207, 208, 190];
    const straight = await serverWithMetric(analyst);
    const mixed = await serverWithMetric(analyst);
    const from = test.clock.now;
    test.clock.now = from + 20 * MINUTE;
    const rules = [await ruleOn(straight.metricId), await ruleOn(mixed.metricId)];
    // The rules came into force now: samples pushed from here on count.
    const start = test.clock.now;
    test.clock.now = start + 30 * MINUTE;
    const sample = (key: string, i: number) => ({ metric: key, t: start + (i + 1) * MINUTE, v: values[i] });
    for (let i = 0; i < values.length; i++) await push(test.url, straight.token, [sample(straight.key, i)]);
    for (const batch of [[8], [1, 3], [1], [7, 6, 0], [2, 5, 4], [8]]) {
      await push(
        test.url,
        mixed.token,
        batch.map((i) => sample(mixed.key, i)),
      );
    }
    const { rows } = await test.server.app.pool.query(
      'select condition from alarm_watch where rule_id = any($1::bigint[])',
      [rules],
    );
    expect(rows[0].condition).toEqual(rows[1].condition);
    const standing = await Promise.all(
      rules.map(async (rule) => (await alarmsOf(rule)).filter(({ returnedAt }) => returnedAt === null)),
    );
    expect(standing[0]).toHaveLength(0);
    expect(standing[1]).toHaveLength(0);
    expect((await alarmsOf(rules[1])).length).toBeGreaterThan(0);
  });

  it('stands at once when a rule comes into force over a limit already passed', async () => {
    const { key, token, metricId } = await serverWithMetric(analyst);
    await push(test.url, token, [{ metric: key, t: test.clock.now - MINUTE, v: 230 }]);
    const rule = await ruleOn(metricId);
    expect(await alarmsOf(rule)).toMatchObject([{ state: 'unacknowledged', raisedValue: 230 }]);
  });

  it('is no longer raised once its rule is out of force', async () => {
    const { key, token, metricId } = await serverWithMetric(analyst);
    const rule = await ruleOn(metricId);
    expect((await analyst.call('DELETE', `/api/alarm-rules/${rule}`)).status).toBe(204);
    await push(test.url, token, [{ metric: key, t: test.clock.now, v: 300 }]);
    expect(await alarmsOf(rule)).toEqual([]);
  });
});

describe('a rule that is set aside', () => {
  const aside = (rule: string, body: object, who: Visitor = operator) =>
    who.call('PUT', `/api/alarm-rules/${rule}/aside`, body);
  const putBack = (rule: string) => operator.call('DELETE', `/api/alarm-rules/${rule}/aside`);

  it('records what happens and calls nobody; put back, it stands for what its condition is', async () => {
    const { key, token, metricId } = await serverWithMetric(analyst);
    const rule = await ruleOn(metricId);
    const send = (minute: number, v: number) =>
      push(test.url, token, [{ metric: key, t: test.clock.now + minute * MINUTE, v }]);
    await send(1, 212);
    expect((await aside(rule, { kind: 'shelved', forMs: 3_600_000, reason: 'Fitter at work' })).status).toBe(
      204,
    );
    expect(await alarmsOf(rule)).toMatchObject([
      { state: 'shelved', shelvedUntil: test.clock.now + 3_600_000, asideReason: 'Fitter at work' },
    ]);
    await send(2, 190);
    await send(3, 220);
    await send(4, 190);
    expect(await alarmsOf(rule)).toMatchObject([
      { state: 'shelved', returnedAt: test.clock.now + 4 * MINUTE },
    ]);
    expect((await putBack(rule)).status).toBe(204);
    expect((await putBack(rule)).status).toBe(409);
    const [alarm] = await alarmsOf(rule);
    expect(alarm.state).toBe('normal');
    const { body } = await operator.call<{ events: AlarmEvent[] }>('GET', `/api/alarms/${alarm.id}`);
    expect(body.events.map(({ kind }) => kind).sort()).toEqual([
      'putBack',
      'raised',
      'raised',
      'returned',
      'returned',
      'shelved',
    ]);

    // Raised while shelved, and still over the limit when reinstated: now it is announced.
    await aside(rule, { kind: 'shelved', forMs: 3_600_000, reason: 'Again' });
    await send(5, 230);
    expect((await alarmsOf(rule)).at(-1)).toMatchObject({ state: 'shelved', returnedAt: null });
    await putBack(rule);
    expect((await alarmsOf(rule)).at(-1)).toMatchObject({ state: 'unacknowledged' });
  });

  it('comes back by itself, once, though two servers look at the same moment', async () => {
    const { endShelves } = await import('./setAside');
    const { key, token, metricId } = await serverWithMetric(analyst);
    const rule = await ruleOn(metricId);
    await push(test.url, token, [{ metric: key, t: test.clock.now + MINUTE, v: 212 }]);
    await aside(rule, { kind: 'shelved', forMs: 60_000, reason: 'A minute' });
    const { pool } = test.server.app;
    expect(await endShelves(pool, test.clock.now + 59_999)).toBe(0);
    const ended = await Promise.all([
      endShelves(pool, test.clock.now + 60_000),
      endShelves(pool, test.clock.now + 60_000),
    ]);
    expect(ended.reduce((a, b) => a + b)).toBe(1);
    expect(await alarmsOf(rule)).toMatchObject([{ state: 'unacknowledged', shelvedUntil: null }]);
    const { rows } = await pool.query('select kind from alarm_rule_event where rule_id = $1 order by id', [
      rule,
    ]);
    expect(rows).toEqual([{ kind: 'shelved' }, { kind: 'putBack' }]);
  });

  it('needs a reason and an end; out of service is for analysts', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const rule = await ruleOn(metricId);
    expect((await aside(rule, { kind: 'shelved', forMs: 60_000, reason: ' ' })).status).toBe(422);
    expect((await aside(rule, { kind: 'shelved', reason: 'x' })).status).toBe(422);
    expect((await aside(rule, { kind: 'shelved', forMs: 8 * 86_400_000, reason: 'x' })).status).toBe(422);
    expect((await aside(rule, { kind: 'outOfService', reason: 'x' })).status).toBe(403);
    expect((await aside(rule, { kind: 'outOfService', reason: 'Sensor gone' }, analyst)).status).toBe(204);
    const { body } = await operator.call<WholeRule>('GET', `/api/alarm-rules/${rule}`);
    expect(body.watches[0].aside).toEqual(body.rule.watched.how);
    expect(body.rule.watched.how).toMatchObject({
      kind: 'outOfService',
      until: null,
      reason: 'Sensor gone',
    });
    // An operator can neither shelve nor reinstate what an analyst took out of service.
    expect((await aside(rule, { kind: 'shelved', forMs: 60_000, reason: 'x' })).status).toBe(409);
    expect((await putBack(rule)).status).toBe(403);
    // A withdrawn rule has nothing to shelve: its alarm has ended with it.
    expect((await analyst.call('DELETE', `/api/alarm-rules/${rule}`)).status).toBe(204);
    expect((await aside(rule, { kind: 'outOfService', reason: 'x' }, analyst)).status).toBe(404);
  });
});

describe('an alarm that latches', () => {
  it('stands after its return until it is acknowledged and reset', async () => {
    const { key, token, metricId } = await serverWithMetric(analyst);
    const rule = await ruleOn(metricId, { latching: true });
    await push(test.url, token, [
      { metric: key, t: test.clock.now + MINUTE, v: 212 },
      { metric: key, t: test.clock.now + 2 * MINUTE, v: 190 },
    ]);
    const [{ id, state }] = await alarmsOf(rule);
    expect(state).toBe('latchedUnacknowledged');
    expect((await operator.call('POST', `/api/alarms/${id}/reset`)).status).toBe(409);
    await operator.call('POST', `/api/alarms/${id}/acknowledgement`, { remark: '' });
    expect((await alarmsOf(rule))[0].state).toBe('latchedAcknowledged');
    const both = await Promise.all(
      [1, 2].map(() => operator.call('POST', `/api/alarms/${id}/reset`).then(({ status }) => status)),
    );
    expect(both.sort()).toEqual([200, 409]);
    expect((await alarmsOf(rule))[0].state).toBe('normal');
  });
});

describe('rehearsal', () => {
  it('fires as often as live evaluation does', async () => {
    const { key, token, metricId } = await serverWithMetric(analyst);
    const values = Array.from({ length: 300 }, (_, i) => 200 + 8 * Math.sin(i / 9));
    const start = test.clock.now - 300 * MINUTE;
    await push(
      test.url,
      token,
      values.map((v, i) => ({ metric: key, t: start + i * MINUTE, v })),
    );
    const draft = ruleDraft(metricId, {
      test: { kind: 'limit', side: 'above', limit: 205, deadband: 2 },
      onDelayMs: 2 * MINUTE,
      days: 1,
    });
    const { body } = await analyst.call<{ alarms: { start: number }[]; samples: number }>(
      'POST',
      '/api/alarm-rules/rehearsal',
      draft,
    );
    // A wave of 2π · 9 ≈ 57 samples passes the limit at samples 6 + 57 k: six times, the last still standing.
    expect(body.samples).toBe(300);
    expect(body.alarms).toHaveLength(6);
  });
});

describe('live updates', () => {
  it('reach a browser at another server process on the same database', async () => {
    const { runServer } = await import('../runServer');
    const other = await runServer(
      {
        databaseUrl: test.databaseUrl,
        host: '127.0.0.1',
        port: 0,
        sessionSecret: 'x'.repeat(40),
        secureCookies: false,
        webFolder: null,
        demoAccounts: [],
        logLevel: 'silent',
      },
      { now: () => test.clock.now },
    );
    const stop = new AbortController();
    const response = await fetch(`${other.url}/api/live`, {
      headers: { cookie: operator.cookie() },
      signal: stop.signal,
    });
    const reader = response.body!.getReader();
    const { key, token, metricId } = await serverWithMetric(analyst);
    await ruleOn(metricId);
    await push(test.url, token, [{ metric: key, t: test.clock.now, v: 300 }]);
    let text = '';
    while (!text.includes('"topic":"alarms","ids":["'))
      text += new TextDecoder().decode((await reader.read()).value);
    expect(text).toContain('event:change');
    stop.abort();
    await other.stop();
  });
});
