import fc from 'fast-check';
import { seriesOf, type Metric, type MetricReading, type Series, type Summary } from '@vivid-beacon/core';
import { measure } from '@vivid-beacon/core/src/aggregation';
import { askQuery } from '../testing/askQuery';
import { onTestServer, push, serverWithMetric, TEST_NOW } from '../testing/testServer';

/* Ratios count the time, and the members, in which both sides have data: common practice, no source. */

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const { test, analyst } = onTestServer('analyst');

const of = (metricId: string) => ({ metricIds: [metricId] });
const iso = (t: number): string => new Date(t).toISOString().slice(0, 19);

async function addMetric(assetId: string, part: object): Promise<Metric> {
  return (
    await analyst.call<Metric>('POST', '/api/metrics', { assetId, kind: 'amount', unit: 'kg', ...part })
  ).body;
}

/** Samples every `step` over three days, without those that `isMissing` leaves out. */
async function fill(
  token: string,
  { key, kind, intervalMs, maxGapMs }: Pick<Metric, 'key' | 'kind' | 'intervalMs' | 'maxGapMs'>,
  isMissing: (minutesAgo: number) => boolean,
): Promise<{ series: Series; reading: MetricReading }> {
  const n = (72 * HOUR) / intervalMs;
  const all = Array.from({ length: n }, (_, i) => ({
    t: TEST_NOW - (n - i) * intervalMs,
    v: 1 + ((i * 7) % 5),
  }));
  const kept = all.filter(({ t }) => !isMissing((TEST_NOW - t) / MINUTE));
  for (let i = 0; i < kept.length; i += 10_000)
    await push(
      test.url,
      token,
      kept.slice(i, i + 10_000).map((each) => ({ metric: key, ...each })),
    );
  const series = seriesOf(
    kept.map(({ t }) => t),
    kept.map(({ v }) => v),
  );
  return { series, reading: { kind, intervalMs, maxGapMs, rollover: null } };
}

describe('a ratio', () => {
  it('read from rollups is that of the samples, whatever is missing on either side', async () => {
    const five = { intervalMs: 5 * MINUTE, maxGapMs: 10 * MINUTE };
    const gas = await serverWithMetric(analyst, { name: 'Gas', unit: 'kWh', kind: 'amount', ...five });
    const hourly = await addMetric(gas.assetId, { name: 'Washed', intervalMs: HOUR, maxGapMs: 2 * HOUR });
    const level = await addMetric(gas.assetId, {
      name: 'Load',
      unit: 'kW',
      kind: 'level',
      intervalMs: MINUTE,
      maxGapMs: 4 * MINUTE,
    });
    const amount = { key: gas.key, kind: 'amount' as const, ...five };
    const top = await fill(gas.token, amount, (ago) => (ago > 900 && ago < 1130) || ago % 610 < 16);
    const weight = await fill(gas.token, hourly, (ago) => ago > 2000 && ago < 2300);
    const load = await fill(gas.token, level, (ago) => ago % 333 < 12 || (ago > 1500 && ago < 3100));
    const sides: [string, Summary, typeof top][] = [
      [hourly.id, 'sum', weight],
      [level.id, 'mean', load],
    ];
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 0, max: 70 * 60 }),
        fc.integer({ min: 30, max: 4000 }),
        fc.constantFrom(MINUTE, 15 * MINUTE, HOUR),
        fc.constantFrom(...sides),
        async (back, length, round, [id, summary, bottom]) => {
          const start = Math.floor((TEST_NOW - 72 * HOUR + back * MINUTE) / round) * round;
          const end = Math.min(TEST_NOW, start + Math.ceil((length * MINUTE) / round) * round);
          const { body } = await askQuery(analyst, {
            select: of(gas.metricId),
            summary: 'sum',
            per: { select: of(id), summary, factor: 1 },
            groupBy: { kind: 'all' },
            window: { kind: 'absolute', start: iso(start), end: iso(end) },
          });
          const expected = measure(
            { ...top, summary: 'sum' },
            { ...bottom, summary },
            1,
            { start, end },
            TEST_NOW,
          );
          const [{ values, coverage, samples }] = body.groups;
          expect(coverage[0]).toBeCloseTo(expected.coverage, 12);
          expect(samples[0]).toBe(expected.samples);
          if (expected.value === null) expect(values[0]).toBeNull();
          else expect(values[0]).toBeCloseTo(expected.value, 9);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('leaves out members, and the time of members, in which one side is missing', async () => {
    const plant = await serverWithMetric(analyst, { name: 'Room' });
    const hour = { kind: 'amount', intervalMs: HOUR, maxGapMs: HOUR };
    const samples: object[] = [];
    const dryer = async (name: string, gas: (number | null)[] | null, weight: number[]): Promise<void> => {
      const { body } = await analyst.call<{ id: string }>('POST', '/api/assets', {
        name,
        kind: 'machine',
        parentId: plant.assetId,
      });
      for (const [title, unit, values] of [
        ['Gas', 'kWh', gas],
        ['Weight', 'kg', weight],
      ] as const) {
        if (!values) continue;
        const { key } = await addMetric(body.id, { name: title, unit, ...hour });
        values.forEach(
          (v, i) => v !== null && samples.push({ metric: key, t: TEST_NOW - (2 - i) * HOUR, v }),
        );
      }
    };
    await dryer('Dryer 1', [10, 20], [5, 5]);
    await dryer('Dryer 2', [8, null], [2, 90]);
    await dryer('Dryer 3', null, [70, 70]);
    await push(test.url, plant.token, samples);
    const { body } = await askQuery(analyst, {
      select: { metricName: 'Gas' },
      summary: 'sum',
      per: { select: { metricName: 'Weight' }, summary: 'sum', factor: 1 },
      scope: { assetIds: [plant.assetId], attributes: [] },
      groupBy: { kind: 'plant' },
      window: { kind: 'rolling', count: 2, unit: 'hour' },
      provenance: true,
    });
    const [{ values, coverage, provenance }] = body.groups;
    // (10 + 20 + 8) ÷ (5 + 5 + 2) over three of six hours of dryers.
    expect(values[0]).toBeCloseTo(38 / 12, 12);
    expect(coverage[0]).toBeCloseTo(0.5, 12);
    expect(provenance!.shared).toBeCloseTo(0.5, 12);
    expect(provenance!.parts.map(({ assetName, value, coverage: own }) => [assetName, value, own])).toEqual([
      ['Dryer 1', 30, 1],
      ['Dryer 2', 8, 0.5],
      ['Dryer 1', 10, 1],
      ['Dryer 2', 2, 1],
      ['Dryer 3', null, 1],
    ]);
  });
});

describe('a derived metric of totals', () => {
  it('divides totals of the same time, and takes rates of the time that has data', async () => {
    const hour = { kind: 'amount', intervalMs: HOUR, maxGapMs: HOUR };
    const gas = await serverWithMetric(analyst, { name: 'Gas', unit: 'kWh', ...hour });
    const weight = await addMetric(gas.assetId, { name: 'Weight', unit: 'kg', ...hour });
    await push(test.url, gas.token, [
      ...[10, 20].map((v, i) => ({ metric: gas.key, t: TEST_NOW - (4 - i) * HOUR, v })),
      ...[5, 5, 60, 30].map((v, i) => ({ metric: weight.key, t: TEST_NOW - (4 - i) * HOUR, v })),
    ]);
    const bindings = {
      gas: { kind: 'metric', metricId: gas.metricId, summary: null },
      weight: { kind: 'metric', metricId: weight.id, summary: null },
    };
    const valueOf = async (expression: string, unit: string) => {
      const used = Object.fromEntries(Object.entries(bindings).filter(([name]) => expression.includes(name)));
      const { body } = await analyst.call<Metric>('POST', '/api/derived', {
        assetId: gas.assetId,
        name: expression,
        kind: 'level',
        unit,
        decimals: 2,
        way: 'totals',
        expression,
        bindings: used,
      });
      const answer = await askQuery(analyst, {
        select: of(body.id),
        summary: 'mean',
        window: { kind: 'rolling', count: 4, unit: 'hour' },
      });
      const [{ values, coverage }] = answer.body.groups;
      return [values[0], coverage[0]];
    };
    expect(await valueOf('gas / weight', 'kWh/kg')).toEqual([3, 0.5]);
    expect(await valueOf('rate(gas)', 'kW')).toEqual([15, 0.5]);
    // What only adds up keeps all there is.
    expect(await valueOf('gas * 2', 'kWh')).toEqual([60, 0.5]);
    expect(await valueOf('weight + weight', 'kg')).toEqual([200, 1]);
  });
});
