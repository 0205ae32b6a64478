import type { AlarmEvent, WholeRule } from '@vivid-beacon/core';
import { alarmsOf, onTestServer, push, ruleDraft, serverWithMetric } from '../testing/testServer';
import { evaluateTimers } from './evaluate';
import { keepScopes } from './rules';
import { lockScopedRules } from './rulesSql';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const { test, analyst } = onTestServer('analyst');

const put = (metricId: string, part: object) =>
  analyst.call<{ id: string; error?: { message: string } }>(
    'POST',
    '/api/alarm-rules',
    ruleDraft(metricId, part),
  );
const ruleOn = async (metricId: string, part: object): Promise<string> => {
  const { status, body } = await put(metricId, part);
  expect([status, body]).toEqual([200, { id: expect.any(String) }]);
  return body.id;
};
const ruleNow = (id: string) => analyst.call<WholeRule>('GET', `/api/alarm-rules/${id}`);
const later = (ms: number): void => void (test.clock.now += ms);
const send = (metric: { key: string; token: string }, v: number, t = test.clock.now) =>
  push(test.url, metric.token, [{ metric: metric.key, t, v }]);
const statesOf = async (rule: string): Promise<string[]> =>
  (await alarmsOf(analyst, rule)).map(
    ({ state, returnedAt }) => `${state}${returnedAt === null ? '' : ' (over)'}`,
  );

describe('silence', () => {
  const test20 = { test: { kind: 'silence', forMs: 20 * MINUTE } };

  it('raises an alarm though nothing comes, once, and the next sample ends it', async () => {
    const metric = await serverWithMetric(analyst);
    await send(metric, 200);
    const rule = await ruleOn(metric.metricId, test20);
    const last = test.clock.now;
    later(20 * MINUTE);
    await evaluateTimers(test.server.app.pool, test.clock.now);
    expect(await statesOf(rule)).toEqual([]);
    later(1);
    const { pool } = test.server.app;
    await Promise.all([evaluateTimers(pool, test.clock.now), evaluateTimers(pool, test.clock.now)]);
    expect(await alarmsOf(analyst, rule)).toMatchObject([
      { state: 'unacknowledged', raisedAt: last + 20 * MINUTE, raisedValue: 200 },
    ]);
    later(HOUR);
    await evaluateTimers(pool, test.clock.now);
    await send(metric, 201);
    expect(await statesOf(rule)).toEqual(['returnedUnacknowledged (over)']);
  });

  it('that late samples fill was none: the alarm ends and says so', async () => {
    const metric = await serverWithMetric(analyst);
    await send(metric, 200);
    const rule = await ruleOn(metric.metricId, test20);
    later(25 * MINUTE);
    await evaluateTimers(test.server.app.pool, test.clock.now);
    expect(await statesOf(rule)).toEqual(['unacknowledged']);
    await send(metric, 200, test.clock.now - 10 * MINUTE);
    const [alarm] = await alarmsOf(analyst, rule);
    expect(alarm.state).toBe('returnedUnacknowledged');
    const { body } = await analyst.call<{ events: AlarmEvent[] }>('GET', `/api/alarms/${alarm.id}`);
    expect(body.events.map(({ kind }) => kind)).toContain('recalculated');
  });

  it('of a metric that never sent anything stands from the beginning, without a value', async () => {
    const metric = await serverWithMetric(analyst);
    const rule = await ruleOn(metric.metricId, test20);
    expect(await alarmsOf(analyst, rule)).toMatchObject([{ state: 'unacknowledged', raisedValue: null }]);
  });
});

describe('consumption', () => {
  it('counts what the period had before the rule came into force, late samples too', async () => {
    test.clock.now = Math.ceil(test.clock.now / HOUR) * HOUR + 30 * MINUTE;
    const metric = await serverWithMetric(analyst, { name: 'Water', unit: 'm³', kind: 'amount' });
    await send(metric, 70, test.clock.now - 20 * MINUTE);
    const rule = await ruleOn(metric.metricId, {
      test: { kind: 'consumption', limit: 100, per: 'hour', pace: false },
    });
    later(2 * MINUTE);
    await send(metric, 20);
    expect(await statesOf(rule)).toEqual([]);
    await send(metric, 11, test.clock.now - MINUTE);
    expect(await alarmsOf(analyst, rule)).toMatchObject([{ state: 'unacknowledged', raisedValue: 101 }]);
    later(HOUR);
    await send(metric, 5);
    expect(await statesOf(rule)).toEqual(['returnedUnacknowledged (over)']);
  });
});

describe('hours in which a rule watches', () => {
  it('end an alarm at their end though no sample comes', async () => {
    const metric = await serverWithMetric(analyst);
    // London is on UTC in winter.
    test.clock.now = Date.UTC(2026, 10, 25, 21, 50);
    const rule = await ruleOn(metric.metricId, { hours: { kind: 'clock', from: '06:00', to: '22:00' } });
    later(MINUTE);
    await send(metric, 230);
    expect(await statesOf(rule)).toEqual(['unacknowledged']);
    later(10 * MINUTE);
    await evaluateTimers(test.server.app.pool, test.clock.now);
    expect(await alarmsOf(analyst, rule)).toMatchObject([
      { state: 'returnedUnacknowledged', returnedAt: Date.UTC(2026, 10, 25, 22) },
    ]);
    await send(metric, 240);
    expect(await statesOf(rule)).toEqual(['returnedUnacknowledged (over)']);
  });
});

describe('suppression by design', () => {
  const stateOf = (assetId: string) =>
    analyst.call<{ id: string; key: string }>('POST', '/api/metrics', {
      assetId,
      name: 'State',
      unit: '',
      kind: 'state',
      intervalMs: MINUTE,
      maxGapMs: HOUR,
    });

  it('hears nothing while the machine is stopped, and what still stands when it runs again', async () => {
    const metric = await serverWithMetric(analyst);
    const made = await stateOf(metric.assetId);
    const state = { key: made.body.key, token: metric.token };
    await send(state, 1);
    const rule = await ruleOn(metric.metricId, {
      test: { kind: 'limit', side: 'below', limit: 100, deadband: 0 },
      suppress: { metricId: made.body.id, code: 1, is: false },
    });
    later(MINUTE);
    await send(state, 0);
    later(MINUTE);
    await send(metric, 60);
    expect(await statesOf(rule)).toEqual(['suppressed']);
    expect((await analyst.call<{ count: number }>('GET', '/api/alarm-health')).body).toMatchObject({
      health: { topTen: expect.not.arrayContaining([expect.objectContaining({ ruleId: rule })]) },
    });
    later(MINUTE);
    await send(state, 1);
    expect(await statesOf(rule)).toEqual(['unacknowledged']);
    later(MINUTE);
    await send(state, 0);
    expect(await statesOf(rule)).toEqual(['suppressed']);
    // Shelved it stays shelved, whatever the machine does; put back it is suppressed again.
    await analyst.call('PUT', `/api/alarm-rules/${rule}/aside`, {
      kind: 'shelved',
      forMs: HOUR,
      reason: 'x',
    });
    later(MINUTE);
    await send(state, 1);
    later(MINUTE);
    await send(state, 0);
    expect(await statesOf(rule)).toEqual(['shelved']);
    await analyst.call('DELETE', `/api/alarm-rules/${rule}/aside`);
    expect(await statesOf(rule)).toEqual(['suppressed']);
    await send(metric, 120);
    later(MINUTE);
    await send(state, 1);
    expect(await statesOf(rule)).toEqual(['normal (over)']);
  });

  it('judges an alarm in a batch by the state at its own time', async () => {
    const metric = await serverWithMetric(analyst);
    const made = await stateOf(metric.assetId);
    const rule = await ruleOn(metric.metricId, { suppress: { metricId: made.body.id, code: 0, is: true } });
    const from = test.clock.now;
    later(10 * MINUTE);
    const at = (minute: number, v: number, key = metric.key) => ({
      metric: key,
      t: from + minute * MINUTE,
      v,
    });
    const stateKey = made.body.key;
    await push(test.url, metric.token, [
      ...[at(1, 0, stateKey), at(4, 1, stateKey)],
      ...[at(2, 230), at(3, 190), at(5, 230), at(6, 190)],
    ]);
    // The first came while the machine stood: nobody is notified for it.
    expect(await statesOf(rule)).toEqual(['normal (over)', 'returnedUnacknowledged (over)']);
    const { rows } = await test.server.app.pool.query<{ unheard: boolean }>(
      "select unheard from alarm_event where alarm_id = any($1) and kind = 'raised' order by at",
      [(await alarmsOf(analyst, rule)).map(({ id }) => id)],
    );
    expect(rows).toEqual([{ unheard: true }, { unheard: false }]);
  });
});

describe('a rule over a scope', () => {
  it('has an alarm for each asset, takes in a metric that comes and lets go of one that is removed', async () => {
    const one = await serverWithMetric(analyst);
    const addMachine = async (name: string) => {
      const machine = { name, kind: 'machine', parentId: one.assetId };
      const asset = await analyst.call<{ id: string }>('POST', '/api/assets', machine);
      const metric = await analyst.call<{ id: string; key: string }>('POST', '/api/metrics', {
        assetId: asset.body.id,
        name: 'Bed temperature',
        unit: '°C',
        kind: 'level',
        intervalMs: MINUTE,
      });
      return { ...metric.body, token: one.token, asset: { ...machine, id: asset.body.id } };
    };
    const two = await addMachine('Ironer 2');
    const rule = await ruleOn(one.metricId, { under: one.assetId });
    later(MINUTE);
    await send(one, 230);
    await send(two, 231);
    expect((await alarmsOf(analyst, rule)).map(({ metricId }) => metricId).sort()).toEqual(
      [one.metricId, two.id].sort(),
    );

    const aside = { kind: 'shelved', forMs: HOUR, reason: 'Only this one', metricId: two.id };
    expect((await analyst.call('PUT', `/api/alarm-rules/${rule}/aside`, aside)).status).toBe(204);
    const states = new Map((await alarmsOf(analyst, rule)).map((alarm) => [alarm.metricId, alarm.state]));
    expect([states.get(one.metricId), states.get(two.id)]).toEqual(['unacknowledged', 'shelved']);

    const three = await addMachine('Ironer 3');
    const { pool } = test.server.app;
    await keepScopes(pool, test.clock.now);
    later(MINUTE);
    await send(three, 240);
    expect((await alarmsOf(analyst, rule)).map(({ metricId }) => metricId)).toContain(three.id);

    const ofWeld = { under: one.assetId, attributes: [{ name: 'Maker', values: ['Weld', 'Acre'] }] };
    const made = await analyst.call('POST', '/api/alarm-rules', ruleDraft(one.metricId, ofWeld));
    // None has a maker yet.
    expect(made.status).toBe(422);
    const maker = ({ id, ...asset }: typeof two.asset, name: string) =>
      analyst.call('PUT', `/api/assets/${id}`, { ...asset, attributes: { Maker: name } });
    await maker(three.asset, 'Acre');
    const only = await ruleOn(one.metricId, ofWeld);
    later(MINUTE);
    for (const each of [one, two, three]) await send(each, 245);
    const alarmed = async () => (await alarmsOf(analyst, only)).map(({ metricId }) => metricId);
    expect(await alarmed()).toEqual([three.id]);
    await maker(two.asset, 'Weld');
    await keepScopes(pool, test.clock.now);
    later(MINUTE);
    await send(two, 246);
    expect((await alarmed()).sort()).toEqual([two.id, three.id].sort());

    await analyst.call('DELETE', `/api/metrics/${two.id}`);
    await keepScopes(pool, test.clock.now);
    const { body } = await ruleNow(rule);
    expect(body.rule.watched).toEqual({ metrics: 2, suppressed: 0, aside: 0, how: null, problem: null });
    const watched = body.watches.map(({ metricId }) => metricId);
    expect(watched.sort()).toEqual([one.metricId, three.id].sort());
    expect((await alarmsOf(analyst, rule)).find(({ metricId }) => metricId === two.id)!.state).toBe('normal');
  });

  it('does not stand in the way of an alarm while its scope is being kept', async () => {
    const metric = await serverWithMetric(analyst);
    const rule = await ruleOn(metric.metricId, { under: metric.assetId });
    const { pool } = test.server.app;
    const [keeper, raiser] = [await pool.connect(), await pool.connect()];
    try {
      await keeper.query('begin');
      expect((await lockScopedRules(keeper)).map(({ id }) => id)).toContain(rule);
      // What a reference to the rule locks; a push that waited here while it holds the watch would end in a deadlock.
      const { rowCount } = await raiser.query('select 1 from alarm_rule where id = $1 for key share nowait', [
        rule,
      ]);
      expect(rowCount).toBe(1);
    } finally {
      await keeper.query('rollback');
      keeper.release();
      raiser.release();
    }
  });

  it('on a single metric goes out of force with it, and its alarm ends', async () => {
    const metric = await serverWithMetric(analyst);
    const rule = await ruleOn(metric.metricId, {});
    later(MINUTE);
    await send(metric, 230);
    await analyst.call('DELETE', `/api/metrics/${metric.metricId}`);
    await keepScopes(test.server.app.pool, test.clock.now);
    expect((await ruleNow(rule)).body.rule.inForce).toBe(false);
    expect(await statesOf(rule)).toEqual(['returnedUnacknowledged (over)']);
  });
});

describe('what a rule can look for', () => {
  it.each([
    ['a state in a level', { kind: 'state', code: 1, is: true }],
    ['a band that ends below its beginning', { kind: 'outside', low: 6, high: 3, deadband: 0 }],
    [
      'a change of less than nothing',
      { kind: 'change', side: 'rise', limit: -1, inPercent: false, overMs: MINUTE, deadband: 0 },
    ],
    ['no run rule', { kind: 'runRules', rules: [], point: 'hour' }],
    ['a limit that is missing', { kind: 'limit', side: 'above', deadband: 0 }],
    ['something else', { kind: 'dream' }],
  ])('is not %s', async (_, wrong) => {
    const { metricId } = await serverWithMetric(analyst);
    expect((await put(metricId, { test: wrong })).status).toBe(422);
  });

  it('is suppressed by a state only, and by one that there is', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const other = await serverWithMetric(analyst);
    const by = async (id: string): Promise<number> =>
      (await put(metricId, { suppress: { metricId: id, code: 0, is: true } })).status;
    expect(await by(other.metricId)).toBe(422);
    expect(await by('999999')).toBe(404);
  });

  it('leaves out of a test what does not belong to it', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const rule = await ruleOn(metricId, { test: { kind: 'silence', forMs: HOUR, limit: 5, side: 'above' } });
    expect((await ruleNow(rule)).body.rule.test).toEqual({ kind: 'silence', forMs: HOUR });
  });
});

describe('a rehearsal of very many samples', () => {
  it('runs on fewer days, and its window says so', async () => {
    const { metricId } = await serverWithMetric(analyst, { intervalMs: 1000, maxGapMs: 10_000 });
    const { body } = await analyst.call<{ window: { start: number; end: number } }>(
      'POST',
      '/api/alarm-rules/rehearsal',
      ruleDraft(metricId, { days: 365 }),
    );
    // 86,400 samples a day: 231 days make 20 million.
    expect((body.window.end - body.window.start) / 86_400_000).toBe(231);
  });
});

describe('rehearsal of what must be learnt', () => {
  it('learns from before the window where there is enough, and says when it learnt on itself', async () => {
    const metric = await serverWithMetric(analyst, { intervalMs: HOUR, maxGapMs: 3 * HOUR });
    const hours = 40 * 24;
    const end = Math.floor(test.clock.now / HOUR) * HOUR;
    await push(
      test.url,
      metric.token,
      Array.from({ length: hours }, (_, i) => ({
        metric: metric.key,
        t: end - (hours - i) * HOUR,
        v: 200 + Math.sin(i * 1.7) + (i === hours - 5 ? 40 : 0),
      })),
    );
    const ask = (days: number) =>
      analyst.call<{ alarms: object[]; learntOnItself: boolean; unlearnt: number }>(
        'POST',
        '/api/alarm-rules/rehearsal',
        ruleDraft(metric.metricId, {
          test: { kind: 'runRules', rules: [1], point: 'sample' },
          days,
        }),
      );
    expect((await ask(7)).body).toMatchObject({ alarms: [{}], learntOnItself: false, unlearnt: 0 });
    expect((await ask(60)).body).toMatchObject({ learntOnItself: true });
  });
});
