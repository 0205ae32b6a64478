import fc from 'fast-check';
import {
  feedHealth,
  FEED_STATES,
  type Asset,
  type AssetRow,
  type Metric,
  type MetricsAlike,
  type PageOf,
} from '@vivid-beacon/core';
import { onTestServer, push, TEST_NOW, serverWithMetric } from '../testing/testServer';

const MINUTE = 60_000;
const { test, analyst } = onTestServer('analyst');

const metrics = async (query: string): Promise<PageOf<Metric>> =>
  (await analyst.call<PageOf<Metric>>('GET', `/api/metrics?${query}`)).body;
const assets = async (query: string): Promise<PageOf<AssetRow>> =>
  (await analyst.call<PageOf<AssetRow>>('GET', `/api/assets?${query}`)).body;
const add = async (form: object): Promise<Asset> =>
  (await analyst.call<Asset>('POST', '/api/assets', { kind: 'machine', zone: null, attributes: {}, ...form }))
    .body;

describe('lists of assets', () => {
  let plant: Asset;
  beforeAll(async () => {
    plant = await add({ name: 'Tidewater', kind: 'plant', parentId: null, zone: 'Europe/London' });
    const hall = await add({ name: 'Wash hall', kind: 'area', parentId: plant.id });
    for (const line of [10, 2, 1]) {
      await add({
        name: `Line ${line}`,
        parentId: hall.id,
        attributes: { Maker: 'Weld', Beds: line * 12, Overhaul: '2026-09-16' },
      });
    }
  });
  const names = async (query: string): Promise<string[]> =>
    (await assets(`under=${plant.id}&${query}`)).items.map(({ name }) => name);

  it('stand sorted by full name, Line 2 before Line 10, and come in pages', async () => {
    expect(await names('')).toEqual(['Tidewater', 'Wash hall', 'Line 1', 'Line 2', 'Line 10']);
    expect(await assets(`under=${plant.id}&offset=3&limit=1`)).toMatchObject({
      items: [{ name: 'Line 2', title: 'Tidewater / Wash hall / Line 2' }],
      total: 5,
    });
  });

  it('are found by the beginnings of words, among facts by the whole number', async () => {
    expect(await names('search=line%201')).toEqual(['Line 1', 'Line 10']);
    expect(await names('search=WELD%20line')).toEqual(['Line 1', 'Line 2', 'Line 10']);
    expect(await names('search=24')).toEqual(['Line 2']);
    expect(await names('search=2')).toEqual(['Line 2']);
    expect(await names("search='%20%26%20:*%20|")).toHaveLength(5);
    expect(await names('search=ine')).toEqual([]);
    // Or by any part of the names from the plant down.
    expect(await names('title=tide%20ine%2010')).toEqual(['Line 10']);
  });

  it('are those right below one, with what hangs on each', async () => {
    const { items } = await assets(`parentId=${plant.id}&facts=true`);
    expect(items).toMatchObject([{ name: 'Wash hall', children: 3, metrics: 0, troubled: 0 }]);
    expect((await assets('parentId=none')).items.map(({ name }) => name)).toContain('Tidewater');
    expect(await assets(`ids=${plant.id},999999`)).toMatchObject({ items: [{ id: plant.id }], total: 1 });
  });

  it('tell the attributes there are and the values they take', async () => {
    const { body } = await analyst.call<{ name: string }[]>('GET', '/api/assets/attributes');
    expect(body.filter(({ name }) => name === 'Beds' || name === 'Maker')).toEqual([
      { name: 'Beds', values: [12, 24, 120], many: false },
      { name: 'Maker', values: ['Weld'], many: false },
    ]);
  });
});

describe('lists of metrics', () => {
  it('are found by any part of their names and of their key, and whatever signs are typed', async () => {
    const { assetId } = await serverWithMetric(analyst, { name: 'Flow of 100 % brine_tank' });
    const found = async (search: string): Promise<number> =>
      (await metrics(`assetId=${assetId}&search=${encodeURIComponent(search)}`)).total;
    expect(await found('BRINE flow')).toBe(1);
    expect(await found('rine')).toBe(1);
    expect(await found('100 %')).toBe(1);
    // Pattern characters are taken literally.
    expect(await found('1%0')).toBe(0);
    expect(await found('brine?tank')).toBe(0);
    expect(await found("'; drop table metric; --")).toBe(0);
    await analyst.call('DELETE', `/api/metrics/${(await metrics(`assetId=${assetId}`)).items[0].id}`);
    expect(await found('brine')).toBe(0);
  });

  it('count feeds by the very state that each shows, whenever they are looked at', async () => {
    const made = [
      await serverWithMetric(analyst),
      await serverWithMetric(analyst, { plausibleHigh: 10 }),
      await serverWithMetric(analyst, { intervalMs: 10 * MINUTE, maxGapMs: 10 * MINUTE }),
      await serverWithMetric(analyst),
      await serverWithMetric(analyst, { kind: 'state', unit: '' }),
    ];
    const [moving, odd, slow, , still] = made;
    const minutes = (n: number, step: number, v: (i: number) => number, { key }: { key: string }) =>
      Array.from({ length: n }, (_, i) => ({ metric: key, t: TEST_NOW - (n - i) * step * MINUTE, v: v(i) }));
    await push(
      test.url,
      moving.token,
      minutes(30, 1, (i) => i, moving),
    );
    await push(
      test.url,
      odd.token,
      minutes(5, 1, () => 11, odd),
    );
    await push(
      test.url,
      slow.token,
      minutes(140, 10, () => 4, slow),
    );
    await push(
      test.url,
      still.token,
      minutes(200, 1, () => 1, still),
    );
    await fc.assert(
      fc.asyncProperty(fc.integer({ min: 0, max: 3000 }), async (later) => {
        test.clock.now = TEST_NOW + later * MINUTE;
        const { items } = await metrics('origin=samples&limit=500');
        const counted = (await analyst.call<object>('GET', '/api/metrics/feeds')).body;
        const shown: Record<string, number> = {};
        for (const { health } of items) shown[health.state] = (shown[health.state] ?? 0) + 1;
        expect(counted).toEqual(shown);
        for (const state of FEED_STATES) {
          const listed = await metrics(`feeds=true&state=${state}&limit=500`);
          expect(listed.total).toBe(shown[state] ?? 0);
          expect(listed.items.every(({ health }) => health.state === state)).toBe(true);
        }
      }),
      { numRuns: 12 },
    );
    test.clock.now = TEST_NOW;
    // Those that need attention first, across pages.
    const whole = (await metrics('feeds=true&limit=500')).items.map(({ id }) => id);
    const halves = [
      ...(await metrics('feeds=true&limit=3')).items,
      ...(await metrics('feeds=true&offset=3&limit=500')).items,
    ];
    expect(halves.map(({ id }) => id)).toEqual(whole);
  }, 60_000);

  it('judge a feed anew when its metric changes', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst);
    await push(test.url, token, [{ metric: key, t: TEST_NOW - 20 * MINUTE, v: 1 }]);
    const state = async (): Promise<number> =>
      (await metrics('feeds=true&state=silent&limit=500')).items.filter(({ id }) => id === metricId).length;
    expect(await state()).toBe(1);
    const [metric] = (await metrics(`ids=${metricId}`)).items;
    const { name, unit, kind, decimals, intervalMs } = metric;
    const change = { name, unit, kind, decimals, intervalMs, maxGapMs: 60 * MINUTE, rollover: null };
    const changed = await analyst.call('PUT', `/api/metrics/${metricId}`, change);
    expect(changed.status).toBe(200);
    expect(await state()).toBe(0);
  });
});

describe('what a file speaks of', () => {
  let plant: Asset;
  const metricOn = async (assetId: string, name: string, part: object = {}): Promise<Metric> => {
    const form = { assetId, name, unit: 'kWh', kind: 'amount', intervalMs: MINUTE, ...part };
    return (await analyst.call<Metric>('POST', '/api/metrics', form)).body;
  };
  beforeAll(async () => {
    plant = await add({ name: 'Saltmarsh', kind: 'plant', parentId: null, zone: 'Europe/London' });
    const hall = await add({ name: 'Boilers', kind: 'area', parentId: plant.id });
    await metricOn(plant.id, 'Gas');
    for (const n of [10, 2]) {
      const boiler = await add({ name: `Boiler ${n}`, parentId: hall.id });
      await metricOn(boiler.id, 'Gas');
      // The same name with another unit is a different metric.
      await metricOn(boiler.id, 'Steam', { unit: n === 2 ? 't' : 'kg' });
    }
  });
  const named = async (metrics: readonly object[]): Promise<string[]> =>
    (await analyst.call<Metric[]>('POST', '/api/metrics/named', { metrics })).body.map(
      ({ name, assetName, unit }) => `${name}, ${assetName}, ${unit}`,
    );
  const asked = (part: object): object => ({
    key: 'none',
    name: 'Gas',
    asset: 'Nowhere',
    unit: 'kWh',
    ...part,
  });

  it('is found by key, or by name, unit and asset, and not by a name alone', async () => {
    expect(await named([asked({ asset: 'Saltmarsh / Boiler 2' })])).toEqual(['Gas, Boiler 2, kWh']);
    expect(await named([asked({ asset: 'Saltmarsh' })])).toContain('Gas, Saltmarsh, kWh');
    expect(await named([asked({}), asked({ asset: 'Saltmarsh / Boiler 2', unit: 'MWh' })])).toEqual([]);
    const { key } = (await metrics(`under=${plant.id}&search=boiler 10 steam`)).items[0];
    expect(await named([asked({ key, name: 'Something else' })])).toEqual(['Steam, Boiler 10, kg']);
  });

  it('is an asset by its own name, whatever the letter case', async () => {
    const found = await analyst.call<Asset[]>('POST', '/api/assets/named', {
      names: ['boiler 2', 'BOILERS', 'x'],
    });
    expect(found.body.map(({ title }) => title)).toEqual([
      'Saltmarsh / Boilers',
      'Saltmarsh / Boilers / Boiler 2',
    ]);
    expect((await analyst.call('POST', '/api/assets/named', { names: [] })).status).toBe(422);
  });

  it('lies below an asset, level by level, those alike as one', async () => {
    const below = async (depth: number): Promise<unknown[]> => {
      const address = `/api/assets/${plant.id}/metrics-below?depth=${depth}`;
      const { body } = await analyst.call<MetricsAlike[]>('GET', address);
      return body.map(({ level, metric, assetIds }) => [level, metric.name, metric.unit, assetIds.length]);
    };
    expect(await below(1)).toEqual([[0, 'Gas', 'kWh', 1]]);
    expect(await below(2)).toEqual([
      [0, 'Gas', 'kWh', 1],
      [2, 'Gas', 'kWh', 2],
      [2, 'Steam', 'kg', 1],
      [2, 'Steam', 't', 1],
    ]);
    expect((await analyst.call('GET', '/api/assets/999999/metrics-below')).status).toBe(404);
  });
});

describe('the lengths after which a feed is silent or flat', () => {
  it('are those of core', async () => {
    const { rows } = await test.server.app.pool.query<{
      kind: Metric['kind'];
      interval: number;
      gap: number;
      silent: number;
      flat: number | null;
    }>(
      `select kind, interval_ms::float8 as interval, max_gap_ms::float8 as gap, silent_after_ms::float8 as silent,
              flat_after_ms::float8 as flat from metric`,
    );
    expect(rows.length).toBeGreaterThan(5);
    for (const { kind, interval, gap, silent, flat } of rows) {
      const facts = { kind, intervalMs: interval, maxGapMs: gap, last: { t: 0, quality: 0 } };
      expect(feedHealth(facts, silent).state).not.toBe('silent');
      expect(feedHealth(facts, silent + 1).state).toBe('silent');
      const since = (ms: number) => feedHealth({ ...facts, flatSince: -ms }, 0).state;
      if (flat !== null) expect([since(flat - 1), since(flat)]).toEqual(['reporting', 'flat']);
      else expect(since(1e12)).toBe('reporting');
    }
  });
});
