import type { StretchNumbers, ErrorBody } from '@vivid-beacon/core';
import { askQuery } from '../testing/askQuery';
import { onTestServer, push, TEST_NOW, serverWithMetric } from '../testing/testServer';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const { test, analyst } = onTestServer('analyst');

const of = (metricId: string, summary = 'mean', per: object | null = null) => ({ metricId, summary, per });

describe('the numbers of a stretch', () => {
  it('are every summary of the kind, and the time on each level', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst);
    // 10 for 30 minutes, 30 for 15, 20 for 15, then nothing for the longest gap of ten minutes on.
    const start = TEST_NOW - 2 * HOUR;
    const values = [...Array(30).fill(10), ...Array(15).fill(30), ...Array(15).fill(20)] as number[];
    await push(
      test.url,
      token,
      values.map((v, i) => ({ metric: key, t: start + i * MINUTE, v })),
    );
    const { status, body } = await analyst.call<StretchNumbers[]>('POST', '/api/readings/stretch', {
      measures: [of(metricId)],
      start,
      end: start + HOUR,
      band: { direction: 'lower', caution: 15, breach: 25, target: null },
    });
    expect(status).toBe(200);
    const [numbers] = body;
    expect(numbers).toMatchObject({ unit: '°C', samples: 60, coverage: 1 });
    expect(numbers.value).toBeCloseTo((10 * 30 + 30 * 15 + 20 * 15) / 60, 9);
    const value = (summary: string): number | null =>
      numbers.values.find((each) => each.summary === summary)!.value;
    expect([value('min'), value('max')]).toEqual([10, 30]);
    expect(numbers.levels).toEqual({
      clear: 30 * MINUTE,
      breach: 15 * MINUTE,
      caution: 15 * MINUTE,
      nodata: 0,
    });
  });

  it('of a ratio are one number, sums first; of a stretch without data there is none', async () => {
    const gas = await serverWithMetric(analyst, { name: 'Gas', unit: 'kWh', kind: 'amount' });
    const weight = await serverWithMetric(analyst, { name: 'Weight', unit: 'kg', kind: 'amount' });
    const start = TEST_NOW - 3 * HOUR;
    await push(
      test.url,
      gas.token,
      [1, 3].map((v, i) => ({ metric: gas.key, t: start + i * MINUTE, v })),
    );
    await push(
      test.url,
      weight.token,
      [10, 2].map((v, i) => ({ metric: weight.key, t: start + i * MINUTE, v })),
    );
    const per = { metricId: weight.metricId, summary: 'sum', factor: 1, unit: null };
    const ask = (from: number) =>
      analyst.call<StretchNumbers[]>('POST', '/api/readings/stretch', {
        measures: [of(gas.metricId, 'sum', per), of(gas.metricId, 'sum')],
        start: from,
        end: from + 2 * MINUTE,
      });
    const [ratio, alone] = (await ask(start)).body;
    expect(ratio).toMatchObject({ unit: 'kWh/kg', values: [], levels: null });
    expect(ratio.value).toBeCloseTo(4 / 12, 12);
    expect(alone.value).toBe(4);
    const [nothing] = (await ask(start - 10 * HOUR)).body;
    expect(nothing).toMatchObject({ value: null, samples: 0, coverage: 0 });
  });

  it('is refused when it ends before it begins, or for a removed metric', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const backwards = await analyst.call<{ error: ErrorBody }>('POST', '/api/readings/stretch', {
      measures: [of(metricId)],
      start: 5,
      end: 5,
    });
    expect([backwards.status, backwards.body.error.message]).toEqual([422, 'end must be after start']);
    const gone = await analyst.call('POST', '/api/readings/stretch', {
      measures: [of('999999')],
      start: 1,
      end: 2,
    });
    expect(gone.status).toBe(404);
  });
});

describe('groups of metrics of one name', () => {
  it('count what lies below another of them only once, and say so', async () => {
    const add = async (name: string, parentId: string | null, zone: string | null): Promise<string> =>
      (await analyst.call<{ id: string }>('POST', '/api/assets', { name, kind: 'area', parentId, zone })).body
        .id;
    const plant = await add('Groups plant', null, 'UTC');
    const house = await add('Wash house', plant, null);
    const lines = [await add('Line 1', house, null), await add('Line 2', house, null)];
    const other = await add('Ironing', plant, null);
    const token = (await analyst.call<{ token: string }>('POST', '/api/push-tokens', { name: 't' })).body
      .token;
    const t = TEST_NOW - HOUR;
    const ids: Record<string, string> = {};
    for (const [assetId, v] of [
      [house, 100],
      [lines[0], 60],
      [lines[1], 40],
      [other, 7],
    ] as const) {
      const made = await analyst.call<{ id: string; key: string }>('POST', '/api/metrics', {
        assetId,
        name: 'Washed once',
        unit: 'kg',
        kind: 'amount',
        intervalMs: MINUTE,
      });
      ids[assetId] = made.body.id;
      await push(test.url, token, [{ metric: made.body.key, t, v }]);
    }
    const ask = async (groupBy: object) =>
      (
        await askQuery(analyst, {
          select: { metricName: 'Washed once' },
          summary: 'sum',
          window: { kind: 'rolling', count: 2, unit: 'hour' },
          groupBy,
        })
      ).body.groups;
    const [whole] = await ask({ kind: 'plant' });
    expect(whole.values).toEqual([107]);
    expect([...whole.metricIds].sort()).toEqual([ids[house], ids[other]].sort());
    expect([...whole.withinIds].sort()).toEqual(lines.map((line) => ids[line]).sort());
    const each = await ask({ kind: 'asset' });
    expect(each.map(({ values }) => values[0]).sort((a, b) => a! - b!)).toEqual([7, 40, 60, 100]);
    expect(each.every(({ withinIds }) => withinIds.length === 0)).toBe(true);
  });
});
