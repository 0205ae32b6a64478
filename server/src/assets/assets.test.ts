import type { Asset, Metric, PageOf, ErrorBody } from '@vivid-beacon/core';
import { onTestServer, push, TEST_NOW, serverWithMetric } from '../testing/testServer';

const MINUTE = 60_000;
const { test, analyst } = onTestServer('analyst');

type Failed = { error: ErrorBody };
const add = async (form: object) => analyst.call<Asset & Failed>('POST', '/api/assets', form);

describe('the asset tree', () => {
  it('is added to, renamed, described and moved, and never hangs below itself', async () => {
    const plant = (await add({ name: 'P', kind: 'plant', zone: 'Asia/Kathmandu' })).body;
    const area = (await add({ name: 'Area', kind: 'area', parentId: plant.id })).body;
    const machine = (
      await add({ name: 'M', kind: 'machine', parentId: area.id, attributes: { 'Floor area (m²)': 4 } })
    ).body;
    expect(machine).toMatchObject({
      zone: 'Asia/Kathmandu',
      plantId: plant.id,
      attributes: { 'Floor area (m²)': 4 },
    });
    const put = (id: string, form: object) => analyst.call<Asset & Failed>('PUT', `/api/assets/${id}`, form);
    const moved = await put(machine.id, {
      name: 'Mangle',
      kind: 'machine',
      parentId: plant.id,
      attributes: { Maker: 'X' },
    });
    expect(moved.body).toMatchObject({ name: 'Mangle', parentId: plant.id, attributes: { Maker: 'X' } });
    const circle = await put(plant.id, { name: 'P', kind: 'plant', parentId: area.id });
    expect(circle.body.error.message).toContain('below itself');
    expect(
      (await put(area.id, { name: 'mangle', kind: 'area', parentId: plant.id })).body.error.message,
    ).toContain('already an asset');
    expect((await add({ name: 'Q', kind: 'plant' })).body.error.message).toContain('needs a time zone');
    expect((await add({ name: 'Q', kind: 'plant', zone: 'Moon/Base' })).body.error.message).toContain(
      'Unknown time zone',
    );
    expect((await add({ name: 'Q', kind: 'x', zone: 'UTC', attributes: { a: { b: 1 } } })).status).toBe(422);
    expect((await analyst.call<Failed>('DELETE', `/api/assets/${plant.id}`)).body.error.message).toContain(
      '2 assets below it',
    );
    expect((await analyst.call('DELETE', `/api/assets/${machine.id}`)).status).toBe(204);
  });

  it('takes a list by path, makes what stands on the way, and names refused lines', async () => {
    const rows = [
      { line: 2, path: ['Listed', 'Hall', 'Mill 1'], kind: 'mill', attributes: { Year: 2019 } },
      { line: 3, path: ['Listed'], kind: 'plant', zone: 'Europe/Berlin' },
      { line: 4, path: ['Listed', 'Hall', 'Mill 1'], kind: 'mill', attributes: { Year: 2020 } },
    ];
    const first = await analyst.call<{
      added: number;
      changed: number;
      refused: { line: number; reason: string }[];
    }>('POST', '/api/assets/list', { rows });
    // The plant has no zone yet when line 2 needs it.
    expect(first.body).toMatchObject({ added: 3, refused: [{ line: 2 }] });
    const again = await analyst.call('POST', '/api/assets/list', { rows: rows.slice(1) });
    expect(again.body).toMatchObject({ added: 0, changed: 2, refused: [] });
    const tree = (await analyst.call<PageOf<Asset>>('GET', '/api/assets?limit=500')).body.items;
    expect(tree.find(({ name }) => name === 'Mill 1')).toMatchObject({
      zone: 'Europe/Berlin',
      attributes: { Year: 2020 },
    });
  });
});

describe('a metric', () => {
  it('has its unit understood and shown as written, and is judged again when its range changes', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, { unit: 'm³/h' });
    const metric = (await analyst.call<Metric>('GET', `/api/metrics/${metricId}`)).body;
    expect([metric.unit, metric.ucum]).toEqual(['m³/h', 'm3/h']);
    await push(test.url, token, [
      { metric: key, t: TEST_NOW - 2 * MINUTE, v: 5 },
      { metric: key, t: TEST_NOW - MINUTE, v: 500 },
    ]);
    const form = {
      name: 'Flow',
      unit: 'loads',
      kind: 'level',
      intervalMs: MINUTE,
      maxGapMs: 5 * MINUTE,
      plausibleHigh: 100,
    };
    const changed = await analyst.call<Metric>('PUT', `/api/metrics/${metricId}`, form);
    expect(changed.body).toMatchObject({ name: 'Flow', ucum: null, maxGapMs: 5 * MINUTE });
    const max = async (): Promise<number> =>
      (
        await analyst.call<{ value: number }>('POST', '/api/readings/value', {
          measure: { metricId, summary: 'max', per: null },
          window: { kind: 'rolling', count: 1, unit: 'hour' },
        })
      ).body.value;
    expect(await max()).toBe(5);
    await analyst.call('PUT', `/api/metrics/${metricId}`, { ...form, plausibleHigh: null });
    expect(await max()).toBe(500);
    const wrong = { ...form, plausibleLow: 200 };
    expect(
      (await analyst.call<Failed>('PUT', `/api/metrics/${metricId}`, wrong)).body.error.message,
    ).toContain('plausible range');
  });

  it('goes off every list and takes no more samples when it is removed', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst);
    expect((await analyst.call('DELETE', `/api/metrics/${metricId}`)).status).toBe(204);
    expect((await analyst.call('GET', `/api/metrics/${metricId}`)).status).toBe(404);
    const { body } = await push<{ refused: { reason: string }[] }>(test.url, token, [
      { metric: key, t: TEST_NOW, v: 1 },
    ]);
    expect(body.refused[0].reason).toContain('there is no metric');
  });
});
