import type { AlarmEvent, ErrorBody, Metric, RehearsalAnswer, WholeRule } from '@vivid-beacon/core';
import {
  alarmsOf,
  indicatorDraft,
  onTestServer,
  push,
  ruleDraft,
  serverWithMetric,
} from '../testing/testServer';
import { evaluatePeriods } from './evaluatePeriods';
import { pastHere } from './rulePast';
import { keepScopes } from './rules';

const MINUTE = 60_000;
const QUARTER = 15 * MINUTE;
const HOUR = 60 * MINUTE;
const { test, analyst } = onTestServer('analyst');

const QUARTERLY = { kind: 'amount', intervalMs: QUARTER, maxGapMs: QUARTER };

/** Gas and weight of a dryer by the quarter of an hour, and gas per kg of the totals. Begins on a full hour. */
async function dryer() {
  test.clock.now = Math.ceil(test.clock.now / HOUR) * HOUR;
  const gas = await serverWithMetric(analyst, { name: 'Gas', unit: 'kWh', ...QUARTERLY });
  const { body: weight } = await analyst.call<Metric>('POST', '/api/metrics', {
    assetId: gas.assetId,
    name: 'Weight',
    unit: 'kg',
    ...QUARTERLY,
  });
  const of = (metricId: string) => ({ kind: 'metric', metricId, summary: null });
  const { body: perKg } = await analyst.call<Metric>('POST', '/api/derived', {
    assetId: gas.assetId,
    name: 'Gas per kg',
    kind: 'level',
    unit: '',
    decimals: 2,
    way: 'totals',
    expression: 'gas / weight',
    bindings: { gas: of(gas.metricId), weight: of(weight.id) },
  });
  const send = (t: number, kWh: number | null, kg: number | null) => {
    // A quarter is sent when it is over.
    test.clock.now = Math.max(test.clock.now, t + QUARTER - 1);
    return push(test.url, gas.token, [
      ...(kWh === null ? [] : [{ metric: gas.key, t, v: kWh }]),
      ...(kg === null ? [] : [{ metric: weight.key, t, v: kg }]),
    ]);
  };
  /** The four quarters of the hour that begins at `t`. */
  const sendHour = async (t: number, kWh: number, kg = 100): Promise<void> => {
    for (let i = 0; i < 4; i++) await send(t + i * QUARTER, kWh / 4, kg / 4);
  };
  return { ...gas, perKg, send, sendHour };
}

const put = (metricId: string, part: object) =>
  analyst.call<{ id: string; error?: ErrorBody }>(
    'POST',
    '/api/alarm-rules',
    ruleDraft(metricId, { name: 'Gas per kg high', ...ABOVE, ...part }),
  );
const HOURLY = { period: 'hour', summary: 'mean', indicatorId: null };
const ABOVE = { over: HOURLY, test: { kind: 'limit', side: 'above', limit: 1.35, deadband: 0 } };
const ruleOn = async (metricId: string, part: object = {}): Promise<string> => {
  const { status, body } = await put(metricId, part);
  expect([status, body]).toEqual([200, { id: expect.any(String) }]);
  return body.id;
};
/** Lets time pass and judges what is due then. @returns how many were judged. */
const judgeAt = (t: number): Promise<number> => {
  test.clock.now = t;
  const { pool } = test.server.app;
  return evaluatePeriods(pool, pastHere(pool, t), t);
};

afterEach(() => test.server.app.pool.query('delete from alarm_rule'));

describe('a rule on a derived metric', () => {
  it('is judged when an hour has closed, with the value of that hour', async () => {
    const { perKg, sendHour } = await dryer();
    const start = test.clock.now;
    const rule = await ruleOn(perKg.id);
    await sendHour(start, 140);
    expect(await judgeAt(start + HOUR - 1)).toBe(0);
    expect(await alarmsOf(analyst, rule)).toEqual([]);
    expect(await judgeAt(start + HOUR)).toBe(1);
    expect(await alarmsOf(analyst, rule)).toMatchObject([
      {
        raisedAt: start + HOUR,
        raisedValue: 1.4,
        latestValue: 1.4,
        unit: 'kWh/kg',
        over: HOURLY,
        state: 'unacknowledged',
      },
    ]);
    expect(await judgeAt(start + HOUR)).toBe(0);
    await sendHour(start + HOUR, 130);
    await judgeAt(start + 2 * HOUR);
    expect(await alarmsOf(analyst, rule)).toMatchObject([{ returnedAt: start + 2 * HOUR, latestValue: 1.3 }]);
  });

  it('is judged again when late samples change an hour: an alarm that never was is taken back', async () => {
    const { perKg, send, sendHour } = await dryer();
    const start = test.clock.now;
    const rule = await ruleOn(perKg.id);
    await sendHour(start, 140);
    await judgeAt(start + HOUR);
    await sendHour(start + HOUR, 120);
    // A correction of the first hour: the gas was less.
    await send(start, 30, null);
    expect(await judgeAt(start + HOUR + QUARTER)).toBe(1);
    const [alarm] = await alarmsOf(analyst, rule);
    expect(alarm).toMatchObject({ state: 'returnedUnacknowledged', returnedAt: start + HOUR });
    const { body } = await analyst.call<{ events: AlarmEvent[] }>('GET', `/api/alarms/${alarm.id}`);
    expect(body.events.map(({ kind }) => kind)).toEqual(expect.arrayContaining(['raised', 'recalculated']));
    // Nothing came since: nothing is judged, and the same samples again change nothing.
    expect(await judgeAt(start + HOUR + QUARTER)).toBe(0);
    await send(start, 30, null);
    expect(await judgeAt(start + HOUR + QUARTER)).toBe(0);
  });

  it('finds an hour in late samples that nobody saw', async () => {
    const { perKg, send, sendHour } = await dryer();
    const start = test.clock.now;
    const rule = await ruleOn(perKg.id);
    for (const i of [0, 1, 2]) await sendHour(start + i * HOUR, 100);
    for (const i of [1, 2, 3]) await judgeAt(start + i * HOUR);
    await send(start, 75, null);
    await judgeAt(start + 3 * HOUR + 1);
    expect(await alarmsOf(analyst, rule)).toMatchObject([
      {
        raisedAt: start + HOUR,
        raisedValue: 1.5,
        returnedAt: start + 2 * HOUR,
        state: 'returnedUnacknowledged',
      },
    ]);
  });

  it('waits for a metric that has not come to the end of the hour, as long as its longest allowed gap', async () => {
    const { perKg, send, sendHour } = await dryer();
    const start = test.clock.now;
    const rule = await ruleOn(perKg.id);
    await sendHour(start, 140);
    for (let i = 0; i < 4; i++) await send(start + HOUR + i * QUARTER, 35, i < 2 ? 25 : null);
    await judgeAt(start + HOUR);
    expect(await judgeAt(start + 2 * HOUR + QUARTER - 1)).toBe(0);
    expect(await judgeAt(start + 2 * HOUR + QUARTER)).toBe(1);
    // Half of the hour is known: no value, so the alarm stands.
    expect(await alarmsOf(analyst, rule)).toMatchObject([{ returnedAt: null, latestValue: 1.4 }]);
    await send(start + HOUR + 2 * QUARTER, null, 40);
    await send(start + HOUR + 3 * QUARTER, null, 40);
    await judgeAt(start + 2 * HOUR + QUARTER + 1);
    expect(await alarmsOf(analyst, rule)).toMatchObject([{ returnedAt: start + 2 * HOUR }]);
  });

  it('is rehearsed by the code that judges it live, other limits too', async () => {
    const { perKg, sendHour } = await dryer();
    const start = test.clock.now;
    const rule = await ruleOn(perKg.id);
    const kWh = [120, 140, 150, 110, 136, 135, 160];
    for (const [i, each] of kWh.entries()) {
      await sendHour(start + i * HOUR, each);
      await judgeAt(start + (i + 1) * HOUR);
    }
    const [{ id }] = await alarmsOf(analyst, rule);
    const { body: whole } = await analyst.call<{ events: AlarmEvent[] }>('GET', `/api/alarms/${id}`);
    const at = (kind: string) => whole.events.filter((event) => event.kind === kind).map((event) => event.at);
    const ends = at('returned');
    const live = at('raised').map((raisedAt, i) => ({ start: raisedAt, end: ends[i] ?? null }));
    expect(live).toHaveLength(3);
    const order = { ...ruleDraft(perKg.id, ABOVE), days: 7 };
    const { body } = await analyst.call<RehearsalAnswer>('POST', '/api/alarm-rules/rehearsal', order);
    expect(body.alarms).toEqual(live);
    expect(body.samples).toBe(7 * 24);
    const { body: others } = await analyst.call<{ onceAWeek: object }>(
      'POST',
      '/api/alarm-rules/rehearsal/limits',
      order,
    );
    expect(others.onceAWeek).toEqual({ limit: expect.any(Number), fires: 1 });
  });

  it('watches the same metric of every asset below, also of those that come later', async () => {
    const first = await dryer();
    const { pool } = test.server.app;
    const rule = await ruleOn(first.perKg.id, { under: first.assetId });
    const { body: asset } = await analyst.call<{ id: string }>('POST', '/api/assets', {
      parentId: first.assetId,
      kind: 'machine',
      name: 'Dryer 2',
    });
    const of = (metricId: string) => ({ kind: 'metric', metricId, summary: null });
    const { body: weight } = await analyst.call<Metric>('POST', '/api/metrics', {
      assetId: asset.id,
      name: 'Weight',
      unit: 'kg',
      ...QUARTERLY,
    });
    await analyst.call('POST', '/api/derived', {
      assetId: asset.id,
      name: 'Gas per kg',
      kind: 'level',
      unit: 'kWh/kg',
      decimals: 2,
      way: 'totals',
      expression: 'gas / weight',
      bindings: { gas: of(first.metricId), weight: of(weight.id) },
    });
    await keepScopes(pool, test.clock.now);
    const { body } = await analyst.call<WholeRule>('GET', `/api/alarm-rules/${rule}`);
    expect(body.watches.map(({ assetName }) => assetName)).toContain('Dryer 2');
    expect(body.rule).toMatchObject({ unit: 'kWh/kg', decimals: 2, watched: { metrics: 2, problem: null } });
  });

  it('says why it cannot be judged any more, and goes on when it can', async () => {
    const { perKg, sendHour } = await dryer();
    const start = test.clock.now;
    const rule = await ruleOn(perKg.id);
    await sendHour(start, 140);
    await test.server.app.pool.query(`update derived_metric set bindings = '{}' where metric_id = $1`, [
      perKg.id,
    ]);
    expect(await judgeAt(start + HOUR)).toBe(0);
    const { body } = await analyst.call<WholeRule>('GET', `/api/alarm-rules/${rule}`);
    expect(body.rule.watched.problem).toContain('does not stand for anything');
  });
});

describe('a rule over the periods of a metric with samples', () => {
  it('judges the share of time a machine ran, and counts bad periods in a row', async () => {
    test.clock.now = Math.ceil(test.clock.now / HOUR) * HOUR;
    const start = test.clock.now;
    const state = await serverWithMetric(analyst, {
      name: 'Running',
      unit: '',
      kind: 'state',
      intervalMs: QUARTER,
      maxGapMs: 2 * HOUR,
    });
    const rule = await ruleOn(state.metricId, {
      over: { ...HOURLY, summary: 'share' },
      test: { kind: 'limit', side: 'below', limit: 60, deadband: 0 },
      onDelayMs: HOUR,
    });
    const running = async (hour: number, quarters: number): Promise<void> => {
      for (let i = 0; i < 4; i++) {
        test.clock.now = start + hour * HOUR + i * QUARTER;
        await push(test.url, state.token, [
          { metric: state.key, t: start + hour * HOUR + i * QUARTER, v: i < quarters ? 1 : 0 },
        ]);
      }
    };
    for (const [hour, quarters] of [2, 4, 2, 2, 4].entries()) {
      await running(hour, quarters);
      test.clock.now = start + (hour + 1) * HOUR;
      await push(test.url, state.token, [{ metric: state.key, t: start + (hour + 1) * HOUR, v: 1 }]);
      await judgeAt(start + (hour + 1) * HOUR + 3 * MINUTE);
    }
    expect(await alarmsOf(analyst, rule)).toMatchObject([
      { raisedAt: start + 4 * HOUR, raisedValue: 50, unit: '%', returnedAt: start + 5 * HOUR },
    ]);
  });
});

describe('a rule on an indicator', () => {
  it('follows its own target band, also after the band has changed', async () => {
    const { assetId, perKg, sendHour } = await dryer();
    const start = test.clock.now;
    const measure = { metricId: perKg.id, summary: 'mean', per: null };
    const band = (breach: number) => ({
      measure,
      judge: { kind: 'limits', band: { direction: 'lower', caution: 1.2, breach, target: null } },
      decimals: 2,
    });
    const { body: indicator } = await analyst.call<{ id: string }>(
      'POST',
      '/api/indicators',
      indicatorDraft(assetId, perKg.id, band(1.35)),
    );
    const over = { ...HOURLY, indicatorId: indicator.id };
    const rule = await ruleOn(perKg.id, { over, test: { kind: 'level', from: 'breach' } });
    await sendHour(start, 130);
    await judgeAt(start + HOUR);
    expect(await alarmsOf(analyst, rule)).toEqual([]);
    test.clock.now = start + HOUR;
    await analyst.call('PUT', `/api/indicators/${indicator.id}`, {
      from: 1,
      definition: indicatorDraft(assetId, perKg.id, band(1.25)),
    });
    await sendHour(start + HOUR, 130);
    await judgeAt(start + 2 * HOUR);
    expect(await alarmsOf(analyst, rule)).toMatchObject([{ raisedAt: start + 2 * HOUR, raisedValue: 1.3 }]);
    await analyst.call('DELETE', `/api/indicators/${indicator.id}`);
    await keepScopes(test.server.app.pool, test.clock.now);
    const { body } = await analyst.call<WholeRule>('GET', `/api/alarm-rules/${rule}`);
    expect(body.rule.inForce).toBe(false);
  });

  it.each([
    ['a band without an indicator', { test: { kind: 'level', from: 'breach' } }, 'cannot be looked for'],
    ['silence of a period', { test: { kind: 'silence', forMs: HOUR } }, 'cannot be looked for'],
    ['single samples of a derived metric', { over: null }, 'Choose the periods'],
    ['a summary it has not', { over: { ...HOURLY, summary: 'share' } }, 'has no share'],
  ])('refuses %s with words', async (_, part, words) => {
    const { perKg } = await dryer();
    const { status, body } = await put(perKg.id, part);
    expect([status, body.error?.message]).toEqual([422, expect.stringContaining(words)]);
  });
});
