import { DateTime } from 'luxon';
import type { Asset } from '@vivid-beacon/core';
import { askQuery } from '../testing/askQuery';
import { onTestServer, push, serverWithMetric, TEST_NOW } from '../testing/testServer';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const ZONE = 'Europe/London';
const { test, analyst } = onTestServer('analyst');

const ask = (query: object) => askQuery(analyst, query);

/** Amounts every quarter of an hour over 15 days, with a hole. */
function amounts(key: string, valueAt: (i: number) => number) {
  const n = 15 * 24 * 4;
  return Array.from({ length: n }, (_, i) => ({
    metric: key,
    t: TEST_NOW - (n - i) * 15 * MINUTE,
    v: valueAt(i),
  })).filter((_, i) => i < 200 || i > 240);
}

describe('the hours of a week', () => {
  it('are what a naive calculation over the samples gives: sums, means, and sums before ratios', async () => {
    const settings = { kind: 'amount', unit: 'kWh', intervalMs: 15 * MINUTE };
    const gas = await serverWithMetric(analyst, settings);
    const load = await serverWithMetric(analyst, { ...settings, unit: 'kg' });
    const used = amounts(gas.key, (i) => 1 + (i % 7));
    const dried = amounts(load.key, (i) => 10 + ((i * 13) % 5)).filter((_, i) => i % 50 > 3);
    await push(test.url, gas.token, used);
    await push(test.url, load.token, dried);
    const window = { kind: 'rolling', count: 14, unit: 'day' };
    const since = TEST_NOW - 14 * 24 * HOUR;
    const cellOf = (t: number): number => {
      const local = DateTime.fromMillis(t, { zone: ZONE });
      return (local.weekday - 1) * 24 + local.hour;
    };
    const naive = (kept: readonly { t: number; v: number }[]): Map<number, number> => {
      const sums = new Map<number, number>();
      for (const { t, v } of kept) if (t >= since) sums.set(cellOf(t), (sums.get(cellOf(t)) ?? 0) + v);
      return sums;
    };
    const select = { metricIds: [gas.metricId] };
    const sums = await ask({ select, summary: 'sum', window, fold: 'hourOfWeek' });
    const total = naive(used);
    expect(sums.body.cells?.columns).toBe(24);
    expect(sums.body.groups[0].values).toHaveLength(168);
    sums.body.groups[0].values.forEach((value, cell) => {
      if (total.has(cell)) expect(value).toBeCloseTo(total.get(cell)!, 9);
      else expect(value).toBeNull();
    });
    // A ratio counts only the quarters that both have.
    const times = new Set(dried.map(({ t }) => t));
    const both = naive(used.filter(({ t }) => times.has(t)));
    const below = naive(dried.filter(({ t }) => used.some((each) => each.t === t)));
    const per = { select: { metricIds: [load.metricId] }, summary: 'sum', factor: 1 };
    const all = { kind: 'all' };
    const ratio = await ask({ select, summary: 'sum', per, window, fold: 'hourOfWeek', groupBy: all });
    ratio.body.groups[0].values.forEach((value, cell) => {
      if (below.has(cell)) expect(value).toBeCloseTo(both.get(cell)! / below.get(cell)!, 9);
    });
    expect(ratio.body.groups[0].values.filter((value) => value !== null).length).toBeGreaterThan(150);
  });

  it('are refused together with periods, and with a comparison', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const base = { select: { metricIds: [metricId] }, summary: 'mean', fold: 'hourOfDay' };
    const window = { kind: 'rolling', count: 2, unit: 'day' };
    expect((await ask({ ...base, window, bucket: 'hour' })).status).toBe(422);
    expect((await ask({ ...base, window, compare: 'before' })).status).toBe(422);
  });
});

describe('the parts of an asset', () => {
  it('are the assets right below it with everything below each; its own meter is in none', async () => {
    const made = async (name: string, parentId: string | null): Promise<string> =>
      (
        await analyst.call<Asset>('POST', '/api/assets', {
          name,
          kind: 'machine',
          parentId,
          zone: parentId === null ? ZONE : null,
          attributes: {},
        })
      ).body.id;
    const plant = await made('Parted plant', null);
    const hall = await made('Hall', plant);
    const boiler = await made('Boiler', plant);
    const washer = await made('Washer', hall);
    const water = { name: 'Parted water', kind: 'amount', unit: 'm³' };
    for (const [assetId, v] of [
      [plant, 100],
      [hall, 60],
      [washer, 20],
      [boiler, 25],
    ] as const) {
      const { key, token } = await serverWithMetric(analyst, { ...water, assetId });
      await push(test.url, token, [{ metric: key, t: TEST_NOW - HOUR, v }]);
    }
    const base = {
      select: { metricName: water.name },
      summary: 'sum',
      window: { kind: 'rolling', count: 2, unit: 'hour' },
    };
    const parts = async (assetId: string | null) => {
      const { body } = await ask({ ...base, groupBy: { kind: 'part', assetId } });
      return body.groups.map(({ name, assetId: id, values, withinIds }) => [
        name,
        id,
        values[0],
        withinIds.length,
      ]);
    };
    expect((await parts(plant)).sort()).toEqual([
      ['Boiler', boiler, 25, 0],
      ['Hall', hall, 60, 1],
    ]);
    expect(await parts(hall)).toEqual([['Washer', washer, 20, 0]]);
    expect(await parts(null)).toEqual([['Parted plant', plant, 100, 3]]);
    expect(await parts(boiler)).toEqual([]);
    // Groups inside groups: each with the path to it, and what lies deeper is not counted twice.
    const { body } = await ask({
      ...base,
      groupBy: { kind: 'asset' },
      within: [{ kind: 'plant' }, { kind: 'part', assetId: plant }],
    });
    const inside = body.groups.map(({ path, name, values }) => [path, name, values[0]]);
    expect(inside).toHaveLength(3);
    expect(inside).toEqual(
      expect.arrayContaining([
        [['Parted plant', 'Hall'], 'Parted plant / Hall', 60],
        [['Parted plant', 'Hall'], 'Parted plant / Washer', 20],
        [['Parted plant', 'Boiler'], 'Parted plant / Boiler', 25],
      ]),
    );
    // The assets that the groups around it are.
    const around = body.groups.map(({ path, pathAssetIds }) => [path?.[1], pathAssetIds]);
    expect(new Map(around as [string, string[]][])).toEqual(
      new Map([
        ['Hall', [plant, hall]],
        ['Boiler', [plant, boiler]],
      ]),
    );
  });
});
