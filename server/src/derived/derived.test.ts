import type { Metric, Reading, ErrorBody } from '@vivid-beacon/core';
import { askQuery } from '../testing/askQuery';
import { onTestServer, push, TEST_NOW, serverWithMetric } from '../testing/testServer';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const { test, analyst } = onTestServer('analyst');

const metric = (metricId: string, summary: string | null = null) => ({ kind: 'metric', metricId, summary });
type Made = Metric & { error?: ErrorBody };
const add = (form: object) =>
  analyst.call<Made>('POST', '/api/derived', {
    kind: 'level',
    unit: '',
    decimals: 2,
    way: 'totals',
    ...form,
  });
const value = async (metricId: string, window: object, summary = 'mean') =>
  (
    await analyst.call<Reading>('POST', '/api/readings/value', {
      measure: { metricId, summary, per: null },
      window,
    })
  ).body;

/** Gas and weight of one asset: an idle hour with a little gas, then a busy one. */
async function dryer() {
  const gas = await serverWithMetric(analyst, {
    name: 'Gas',
    unit: 'kWh',
    kind: 'amount',
    intervalMs: HOUR,
    maxGapMs: 2 * HOUR,
  });
  const weight = await analyst.call<Metric>('POST', '/api/metrics', {
    assetId: gas.assetId,
    name: 'Weight',
    unit: 'kg',
    kind: 'amount',
    intervalMs: HOUR,
    maxGapMs: 2 * HOUR,
  });
  await push(test.url, gas.token, [
    { metric: gas.key, t: TEST_NOW - 2 * HOUR, v: 10 },
    { metric: gas.key, t: TEST_NOW - HOUR, v: 110 },
    { metric: weight.body.key, t: TEST_NOW - 2 * HOUR, v: 1 },
    { metric: weight.body.key, t: TEST_NOW - HOUR, v: 99 },
  ]);
  return { ...gas, weightId: weight.body.id };
}

describe('derived metrics', () => {
  it('of the totals are sum over sum at any length of period, sample by sample they are not', async () => {
    const { assetId, metricId, weightId } = await dryer();
    const bindings = { gas: metric(metricId), weight: metric(weightId) };
    const totals = await add({ assetId, name: 'Gas per kg', expression: 'gas / weight', bindings });
    expect(totals.body).toMatchObject({ unit: 'kWh/kg', origin: 'derived' });
    const window = { kind: 'rolling', count: 2, unit: 'hour' };
    expect((await value(totals.body.id, window)).value).toBeCloseTo(120 / 100, 12);
    const samples = await add({
      assetId,
      name: 'Gas per kg, each',
      expression: 'gas / weight',
      bindings,
      way: 'samples',
    });
    expect((await value(samples.body.id, window, 'max')).value).toBeCloseTo(10, 12);
    const { body } = await askQuery(analyst, {
      select: { metricIds: [totals.body.id] },
      summary: 'mean',
      window,
      bucket: 'hour',
    });
    expect(body.groups[0].values).toEqual([10, 110 / 99]);
  });

  it('come in the unit that was chosen, and refuse one that measures something else', async () => {
    const { assetId, metricId, weightId } = await dryer();
    const bindings = { gas: metric(metricId), weight: metric(weightId) };
    const form = { assetId, name: 'Heat per kg', expression: 'gas / weight', bindings };
    const wrong = await add({ ...form, unit: 'm³' });
    expect(wrong).toMatchObject({ status: 422, body: { error: { path: 'unit' } } });
    const made = await add({ ...form, unit: 'MJ/kg' });
    expect((await value(made.body.id, { kind: 'rolling', count: 2, unit: 'hour' })).value).toBeCloseTo(
      4.32,
      12,
    );
    expect((await add({ ...form, name: 'x', expression: 'gas + weight' })).body.error?.message).toContain(
      'measure different things',
    );
  });

  it('add up the metric of all children, use attributes and factors', async () => {
    const plant = await analyst.call<{ id: string }>('POST', '/api/assets', {
      name: 'Summing plant',
      kind: 'plant',
      zone: 'Europe/London',
      attributes: { 'Floor area (m²)': 50 },
    });
    const token = await analyst.call<{ token: string }>('POST', '/api/push-tokens', { name: 't' });
    for (const [i, name] of ['A', 'B'].entries()) {
      const child = await analyst.call<{ id: string }>('POST', '/api/assets', {
        name,
        kind: 'meter',
        parentId: plant.body.id,
      });
      const made = await analyst.call<Metric>('POST', '/api/metrics', {
        assetId: child.body.id,
        name: 'Power',
        unit: 'kWh',
        kind: 'amount',
        intervalMs: HOUR,
        maxGapMs: 2 * HOUR,
      });
      await push(test.url, token.body.token, [
        { metric: made.body.key, t: TEST_NOW - HOUR, v: 100 * (i + 1) },
      ]);
    }
    const factor = await analyst.call<{ id: string }>('POST', '/api/factors', {
      name: 'CO2 of power',
      unit: 'kg/kWh',
      values: [
        { from: '2025-01-01', value: 0.4 },
        { from: '2026-01-01', value: 0.2 },
      ],
    });
    const bindings = {
      power: { kind: 'children', assetId: plant.body.id, metricName: 'Power', summary: null },
      area: { kind: 'attribute', assetId: plant.body.id, attribute: 'Floor area (m²)' },
      co2: { kind: 'factor', factorId: factor.body.id },
    };
    const made = await add({
      assetId: plant.body.id,
      name: 'CO2 per area',
      expression: 'power * co2 / area',
      bindings,
    });
    expect(made.body.unit).toBe('kg/m²');
    expect((await value(made.body.id, { kind: 'rolling', count: 1, unit: 'hour' })).value).toBeCloseTo(
      1.2,
      12,
    );
  });

  it('look back with lag and difference, beyond the start of the window', async () => {
    const { assetId, metricId } = await dryer();
    const made = await add({
      assetId,
      name: 'Change of gas',
      expression: 'difference(gas)',
      bindings: { gas: metric(metricId) },
    });
    expect((await value(made.body.id, { kind: 'rolling', count: 1, unit: 'hour' })).value).toBe(100);
  });

  it('refuse a circle by name, an unknown name, and what cannot be known', async () => {
    const { assetId, metricId } = await dryer();
    const a = await add({ assetId, name: 'Ring A', expression: 'x', bindings: { x: metric(metricId) } });
    const b = await add({
      assetId,
      name: 'Ring B',
      expression: 'a * 2',
      bindings: { a: metric(a.body.id, 'mean') },
    });
    const turned = await analyst.call<Made>('PUT', `/api/derived/${a.body.id}`, {
      assetId,
      name: 'Ring A',
      kind: 'level',
      unit: '',
      decimals: 2,
      way: 'totals',
      expression: 'b + 1',
      bindings: { b: metric(b.body.id, 'mean') },
    });
    expect(turned.status).toBe(422);
    expect(turned.body.error?.message).toMatch(/circle: Ring A .*→ Ring B .*→ Ring A/);
    const unknown = await add({
      assetId,
      name: 'U',
      expression: 'gas / wieght',
      bindings: { gas: metric(metricId) },
    });
    expect(unknown.body.error?.message).toBe('"wieght" does not stand for anything yet. There are gas.');
    const long = await add({ assetId, name: 'L', expression: 'x+'.repeat(6000), bindings: {} });
    expect(long.status).toBe(422);
    const single = await value(a.body.id, { kind: 'rolling', count: 1, unit: 'hour' }, 'max');
    expect((single as unknown as { error: ErrorBody }).error.message).toContain(
      'worked out once for each period',
    );
  });

  it('show their course while they are written, without saving anything', async () => {
    const { metricId, weightId } = await dryer();
    const form = {
      expression: 'gas / weight',
      bindings: { gas: metric(metricId), weight: metric(weightId) },
      way: 'totals',
    };
    const { body } = await analyst.call<{ unit: string; value: number; v: number[] }>(
      'POST',
      '/api/derived/preview',
      form,
    );
    expect([body.unit, body.value]).toEqual(['kWh/kg', 1.2]);
    expect(body.v.filter((x) => x !== null)).toHaveLength(2);
    const wrong = await analyst.call<{ error: ErrorBody }>('POST', '/api/derived/preview', {
      ...form,
      expression: 'gas /',
    });
    expect(wrong.body.error.message).toMatch(/at character 6/);
  });
});
