import type { Asset, Distribution, LevelSpan, PageOf, Reading, TrendAnswer } from '@vivid-beacon/core';
import { askQuery } from '../testing/askQuery';
import { onTestServer, push, serverWithMetric, TEST_NOW } from '../testing/testServer';

const HOUR = 3_600_000;
const AREA = 'Floor area (m²)';
const WINDOW = { kind: 'rolling', count: 4, unit: 'hour' };
const { test, analyst } = onTestServer('analyst');

/** A plant with electricity of `v` an hour over the last eight, and, if given, a floor area. */
async function plant(v: number, area: number | string | null, kind: object = {}) {
  const made = await serverWithMetric(analyst, {
    name: 'Electricity',
    unit: 'kWh',
    kind: 'amount',
    intervalMs: HOUR,
    maxGapMs: 3 * HOUR,
    ...kind,
  });
  const { assetId, key, token } = made;
  const page = await analyst.call<PageOf<Asset>>('GET', `/api/assets?limit=500`);
  const { name, kind: assetKind, zone } = page.body.items.find(({ id }) => id === assetId)!;
  if (area !== null) {
    const described = { name, kind: assetKind, zone, attributes: { [AREA]: area } };
    const { status } = await analyst.call('PUT', `/api/assets/${assetId}`, described);
    expect(status).toBe(200);
  }
  const samples = Array.from({ length: 8 }, (_, i) => ({ metric: key, t: TEST_NOW - (8 - i) * HOUR, v }));
  await push(test.url, token, samples);
  return { ...made, name };
}
const measureOf = (metricId: string, summary = 'sum') => ({
  metricId,
  summary,
  per: null,
  perAttribute: AREA,
});

describe('a measure per an attribute of its assets', () => {
  it('divides the sum by the sum, leaves out what has none, and says so', async () => {
    const [large, small, none] = [await plant(100, 400), await plant(60, 100), await plant(900, null)];
    const asked = {
      select: { metricIds: [large, small, none].map(({ metricId }) => metricId) },
      summary: 'sum',
      perAttribute: AREA,
      window: WINDOW,
    };
    const { body } = await askQuery(analyst, {
      ...asked,
      groupBy: { kind: 'all' },
      compare: 'before',
      provenance: true,
    });
    const [all] = body.groups;
    // (400 + 240) kWh ÷ (400 + 100) m², not the mean of 1 and 2.4.
    expect([body.units[0], all.values[0], all.previous]).toEqual(['kWh/m²', 1.28, 1.28]);
    expect([all.withoutAttribute, all.metricIds]).toEqual([1, [large.metricId, small.metricId]]);
    expect(all.provenance).toMatchObject({
      formula: 'sum of Electricity (2 metrics together) ÷ Floor area (m²)',
      dividedBy: {
        name: AREA,
        total: 500,
        holders: [
          { assetName: large.name, value: 400 },
          { assetName: small.name, value: 100 },
        ],
        leftOut: [`Electricity, ${none.name}`],
      },
    });
    const each = await askQuery(analyst, { ...asked, groupBy: { kind: 'metric' }, bucket: 'hour' });
    expect(each.body.groups.map(({ values }) => values.slice(0, 4))).toEqual([
      [0.25, 0.25, 0.25, 0.25],
      [0.6, 0.6, 0.6, 0.6],
      [null, null, null, null],
    ]);
  });

  it('is the same as a value, a trend of samples and one of periods, levels and past values', async () => {
    const { metricId } = await plant(30, 10, { kind: 'level' });
    const measure = measureOf(metricId, 'mean');
    const asked = { measure, window: WINDOW };
    const value = await analyst.call<Reading>('POST', '/api/readings/value', asked);
    expect([value.body.value, value.body.unit]).toEqual([3, 'kWh/m²']);
    const samples = await analyst.call<TrendAnswer>('POST', '/api/readings/trend', {
      ...asked,
      columns: 100,
    });
    expect([samples.body.unit, new Set(samples.body.v)]).toEqual(['kWh/m²', new Set([3])]);
    const periods = await analyst.call<TrendAnswer>('POST', '/api/readings/trend', {
      ...asked,
      columns: 100,
      bucket: 'hour',
    });
    expect(new Set(periods.body.v)).toEqual(new Set([3]));
    const band = { direction: 'lower', caution: 4, breach: 5, target: null };
    const levels = await analyst.call<LevelSpan[]>('POST', '/api/readings/levels', {
      measure,
      band,
      start: TEST_NOW - 4 * HOUR,
      end: TEST_NOW,
    });
    // 30 kWh would be beyond, 3 kWh/m² is not.
    expect(levels.body.map(({ level }) => level)).not.toContain('breach');
    const past = await analyst.call<Distribution>('POST', '/api/readings/distribution', asked);
    expect(new Set(past.body.values)).toEqual(new Set([3]));
  });

  it('has no line, and says why, where the asset has nothing to divide by', async () => {
    const { metricId } = await plant(30, 'large');
    const { body } = await analyst.call<TrendAnswer>('POST', '/api/readings/trend', {
      measure: measureOf(metricId),
      window: WINDOW,
      columns: 100,
    });
    expect(body.lacksAttribute).toBe(true);
    expect(body.v.every((v) => v === null)).toBe(true);
  });

  it('refuses a mean over several, and two divisors at once', async () => {
    const [one, two] = [await plant(1, 10, { kind: 'level' }), await plant(3, 20, { kind: 'level' })];
    const select = { metricIds: [one.metricId, two.metricId] };
    const asked = { select, summary: 'mean', perAttribute: AREA, window: WINDOW };
    expect((await askQuery(analyst, { ...asked, groupBy: { kind: 'all' } })).body.error?.message).toMatch(
      /mean of 2 metrics together cannot be shown per Floor area/,
    );
    expect((await askQuery(analyst, { ...asked, groupBy: { kind: 'metric' } })).status).toBe(200);
    const both = { ...asked, per: { select, summary: 'mean', factor: 1 } };
    expect((await askQuery(analyst, both)).body.error?.message).toMatch(/another metric or per an attribute/);
  });
});
