import fc from 'fast-check';
import { decodeColumns, type Asset, type PageOf, type QueryAnswer, type Reading } from '@vivid-beacon/core';
import { askQuery, askOneMetric } from '../testing/askQuery';
import { onTestServer, push, TEST_NOW, serverWithMetric } from '../testing/testServer';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
const { test, analyst } = onTestServer('analyst');

const ask = (query: object) => askQuery(analyst, query);
const rolling = (count: number, unit: string) => ({ kind: 'rolling', count, unit });

/** Samples every `step` over a stretch that ends at TEST_NOW. */
async function fill(key: string, token: string, hours: number, step: number, valueAt: (i: number) => number) {
  const n = (hours * HOUR) / step;
  const samples = Array.from({ length: n }, (_, i) => ({
    metric: key,
    t: TEST_NOW - (n - i) * step,
    v: valueAt(i),
  }));
  for (let i = 0; i < samples.length; i += 10_000) await push(test.url, token, samples.slice(i, i + 10_000));
  return samples;
}

describe('the planner', () => {
  it('gives the same from rollups, from samples and from a naive calculation, for any window and summary', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, { maxGapMs: 20 * MINUTE });
    const samples = await fill(key, token, 50, 7 * MINUTE, (i) => Math.round(1000 * Math.sin(i)) / 100);
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 0, max: 48 * 60 }),
        fc.integer({ min: 1, max: 900 }),
        fc.constantFrom('mean', 'min', 'max', 'count', 'sd', 'last', 'p50'),
        fc.constantFrom(MINUTE, 15 * MINUTE, HOUR),
        async (back, length, summary, round) => {
          const rounded = (t: number): number => Math.floor(t / round) * round;
          const start = rounded(TEST_NOW - 50 * HOUR + back * MINUTE);
          const end = rounded(Math.min(TEST_NOW, start + length * MINUTE));
          if (end <= start) return;
          const iso = (t: number): string => new Date(t).toISOString().slice(0, 19);
          const { body } = await ask({
            select: { metricIds: [metricId] },
            summary,
            window: { kind: 'absolute', start: iso(start), end: iso(end) },
          });
          const got = body.groups[0].values[0];
          const inside = samples.filter(({ t }) => t >= start && t < end).map(({ v }) => v);
          let area = 0;
          let held = 0;
          samples.forEach(({ t, v }, i) => {
            const until = Math.min(samples[i + 1]?.t ?? Infinity, t + 20 * MINUTE, end);
            const ms = Math.max(0, until - Math.max(t, start));
            area += v * ms;
            held += ms;
          });
          const mean = inside.reduce((a, b) => a + b, 0) / inside.length;
          const sorted = [...inside].sort((a, b) => a - b);
          const at = (sorted.length - 1) / 2;
          const naive: Record<string, number | null> = {
            mean: held > 0 ? area / held : null,
            min: inside.length ? Math.min(...inside) : null,
            max: inside.length ? Math.max(...inside) : null,
            count: inside.length,
            sd:
              inside.length > 1
                ? Math.sqrt(inside.reduce((a, b) => a + (b - mean) ** 2, 0) / (inside.length - 1))
                : null,
            last: inside.length ? inside[inside.length - 1] : null,
            p50: inside.length ? (sorted[Math.floor(at)] + sorted[Math.ceil(at)]) / 2 : null,
          };
          if (naive[summary] === null) expect(got).toBeNull();
          else expect(got).toBeCloseTo(naive[summary], 8);
          expect(body.groups[0].coverage[0]).toBeCloseTo(held / (end - start), 9);
        },
      ),
      { numRuns: 100 },
    );
  }, 60_000);

  it.each(['mean', 'min', 'max', 'first', 'last', 'sd'])(
    'gives the same %s from kept hours, from days that have none, and hour by hour to now',
    async (summary) => {
      const { metricId, key, token } = await serverWithMetric(analyst, { maxGapMs: 20 * MINUTE });
      const now = TEST_NOW + 23 * MINUTE;
      test.clock.now = now;
      const samples = await fill(key, token, 100, 4 * MINUTE, (i) => Math.round(1000 * Math.cos(i)) / 100);
      await push(test.url, token, [{ metric: key, t: now - 60_000, v: 7 }]);
      const pool = test.server.app.pool;
      const query = (bucket: string | null) =>
        ask({ select: { metricIds: [metricId] }, summary, window: rolling(4, 'day'), bucket });
      const kept = [await query('hour'), await query(null)].map(({ body }) => body.groups[0].values);
      await pool.query('update rollup_day set hours = null where metric_id = $1', [metricId]);
      const folded = [await query('hour'), await query(null)].map(({ body }) => body.groups[0].values);
      expect(folded).toEqual(kept);
      expect(kept[0].filter((value) => value !== null).length).toBeGreaterThan(90);
      if (summary === 'last') expect(kept[1][0]).toBe(7);
      if (summary === 'max') expect(kept[1][0]).toBe(Math.max(...samples.map(({ v }) => v)));
      test.clock.now = TEST_NOW;
    },
  );

  it('counts a register through days without readings, and adds neighbouring buckets up to the whole', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, {
      kind: 'register',
      unit: 'm³',
      maxGapMs: HOUR,
    });
    await push(test.url, token, [
      { metric: key, t: TEST_NOW - 20 * DAY, v: 100 },
      { metric: key, t: TEST_NOW - 2 * DAY, v: 118 },
      { metric: key, t: TEST_NOW - HOUR, v: 4 },
    ]);
    const { body } = await ask({
      select: { metricIds: [metricId] },
      summary: 'increase',
      window: rolling(20, 'day'),
      bucket: 'day',
    });
    const values = body.groups[0].values;
    expect(values[5]).toBeCloseTo(1, 9);
    expect(values.reduce<number>((sum, v) => sum + (v ?? 0), 0)).toBeCloseTo(22, 6);
  });

  it('keeps only recurring hours, to the minute, on the clock of the site', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, { kind: 'amount', unit: 'kg' });
    await fill(key, token, 72, MINUTE, () => 1);
    const hours = { kind: 'clock', from: '06:10', to: '06:25' };
    const { body } = await ask({
      select: { metricIds: [metricId] },
      summary: 'sum',
      window: rolling(3, 'day'),
      hours,
    });
    expect(body.groups[0].values[0]).toBe(45);
    const calendar = {
      shifts: [{ name: 'Early', days: [1, 2, 3, 4, 5, 6, 7], from: '06:00', to: '14:00' }],
      holidays: [],
    };
    const plantId = (await analyst.call<{ plantId: string }>('GET', `/api/metrics/${metricId}`)).body.plantId;
    expect((await analyst.call('PUT', `/api/calendars/${plantId}`, calendar)).status).toBe(200);
    const shifts = await ask({
      select: { metricIds: [metricId] },
      summary: 'sum',
      window: { kind: 'absolute', start: '2026-11-17', end: '2026-11-19' },
      bucket: 'shift',
    });
    expect(shifts.body.names).toEqual(['Early', 'Early']);
    expect(shifts.body.groups[0].values).toEqual([480, 480]);
  });

  it('puts assets together by plant, attribute and scope: sum over sum', async () => {
    const one = await serverWithMetric(analyst, { name: 'Gas', unit: 'kWh', kind: 'amount' });
    const two = await serverWithMetric(analyst, { name: 'Gas', unit: 'kWh', kind: 'amount' });
    const mass = await serverWithMetric(analyst, { name: 'Load', unit: 'kg', kind: 'amount' });
    for (const [i, { assetId }] of [one, two].entries()) {
      const asset = (await analyst.call<PageOf<Asset>>('GET', '/api/assets?limit=500')).body.items.find(
        ({ id }) => id === assetId,
      )!;
      await analyst.call('PUT', `/api/assets/${assetId}`, {
        name: asset.name,
        kind: 'plant',
        zone: 'Europe/London',
        attributes: { Maker: i === 0 ? 'A' : 'B' },
      });
    }
    await push(test.url, one.token, [{ metric: one.key, t: TEST_NOW - HOUR, v: 10 }]);
    await push(test.url, two.token, [{ metric: two.key, t: TEST_NOW - HOUR, v: 30 }]);
    await push(test.url, mass.token, [{ metric: mass.key, t: TEST_NOW - HOUR, v: 5 }]);
    const base = { select: { metricName: 'gas' }, summary: 'sum', window: rolling(2, 'hour') };
    const byMaker = await ask({ ...base, groupBy: { kind: 'attribute', name: 'Maker' } });
    expect(byMaker.body.groups.map(({ name, values }) => [name, values[0]]).sort()).toEqual([
      ['A', 10],
      ['B', 30],
    ]);
    const scoped = await ask({
      ...base,
      groupBy: { kind: 'all' },
      scope: { assetIds: null, attributes: [{ name: 'Maker', values: ['B'] }] },
    });
    expect(scoped.body.groups[0].values).toEqual([30]);
    const ratio = await ask({
      select: { metricIds: [one.metricId, two.metricId] },
      summary: 'sum',
      per: { select: { metricIds: [mass.metricId] }, summary: 'sum', factor: 1 },
      window: rolling(2, 'hour'),
      groupBy: { kind: 'all' },
    });
    expect([ratio.body.groups[0].values[0], ratio.body.units[0]]).toEqual([8, 'kWh/kg']);
    const mixed = await ask({
      select: { metricIds: [one.metricId, mass.metricId] },
      summary: 'sum',
      window: rolling(2, 'hour'),
      groupBy: { kind: 'all' },
    });
    expect(mixed).toMatchObject({
      status: 422,
      body: { error: { message: expect.stringContaining('cannot be put together') } },
    });
  });

  it('answers in columns of bytes when asked to', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst);
    await push(test.url, token, [{ metric: key, t: TEST_NOW - 90 * MINUTE, v: 4 }]);
    const session = await fetch(`${test.url}/api/session`, { headers: { cookie: analyst.cookie() } });
    const { csrfToken } = (await session.json()) as { csrfToken: string };
    const response = await fetch(`${test.url}/api/readings/query`, {
      method: 'POST',
      headers: {
        cookie: analyst.cookie(),
        'x-form-token': csrfToken,
        'content-type': 'application/json',
        accept: 'application/octet-stream',
      },
      body: JSON.stringify(
        askOneMetric({
          select: { metricIds: [metricId] },
          summary: 'last',
          window: rolling(3, 'hour'),
          bucket: 'hour',
        }),
      ),
    });
    const { head, columns } = decodeColumns<QueryAnswer>(await response.arrayBuffer());
    expect(head.units).toEqual(['°C']);
    expect(Array.from(columns.get('values 0 0')!)).toEqual([NaN, 4, NaN]);
    expect(columns.get('start')!).toHaveLength(3);
  });

  it('compares with the same dates of last year', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, {
      kind: 'amount',
      unit: 'kg',
      intervalMs: HOUR,
      maxGapMs: 3 * HOUR,
    });
    const year = Date.UTC(2025, 10, 19, 0);
    await push(
      test.url,
      token,
      Array.from({ length: 12 }, (_, i) => ({ metric: key, t: year + i * HOUR, v: 2 })),
    );
    const { body } = await analyst.call<Reading>('POST', '/api/readings/value', {
      measure: { metricId, summary: 'sum', per: null },
      window: { kind: 'toDate', unit: 'day' },
      compare: 'lastYear',
    });
    // Until noon, as far as today has come.
    expect(body.previous).toBe(24);
  });

  it('compares groups with the window before and says how they were made, as single values do', async () => {
    const amount = { kind: 'amount', unit: 'kWh', intervalMs: HOUR, maxGapMs: 3 * HOUR };
    const one = await serverWithMetric(analyst, { name: 'Steam', ...amount });
    const two = await serverWithMetric(analyst, { name: 'Steam', ...amount });
    const load = await serverWithMetric(analyst, { name: 'Washed', ...amount, unit: 'kg' });
    const hourly = async (
      { key, token }: { key: string; token: string },
      v: (i: number) => number,
    ): Promise<void> =>
      void (await push(
        test.url,
        token,
        Array.from({ length: 8 }, (_, i) => ({ metric: key, t: TEST_NOW - (8 - i) * HOUR, v: v(i) })),
      ));
    await hourly(one, (i) => (i < 4 ? 1 : 3));
    await hourly(two, (i) => (i < 4 ? 10 : 20));
    await hourly(load, () => 2);
    const window = rolling(4, 'hour');
    const asked = { summary: 'sum', window, compare: 'before', provenance: true } as const;
    const { body } = await ask({
      ...asked,
      select: { metricIds: [one.metricId, two.metricId] },
      groupBy: { kind: 'metric' },
    });
    for (const [i, { metricId }] of [one, two].entries()) {
      const single = await analyst.call<Reading>('POST', '/api/readings/value', {
        measure: { metricId, summary: 'sum', per: null },
        window,
      });
      const group = body.groups.find(({ metricIds }) => metricIds[0] === metricId)!;
      expect(group.values[0]).toBe([12, 80][i]);
      expect(group.previous).toBe([4, 40][i]);
      const { value, previous, asOf, provenance } = single.body;
      expect([group.values[0], group.previous, group.asOf, group.provenance]).toEqual([
        value,
        previous,
        asOf,
        provenance,
      ]);
    }
    // Sums first: (12 + 80) ÷ 8, and both sums are in the answer.
    const together = await ask({
      ...asked,
      select: { metricIds: [one.metricId, two.metricId] },
      per: { select: { metricIds: [load.metricId] }, summary: 'sum', factor: 1 },
      groupBy: { kind: 'all' },
    });
    const [all] = together.body.groups;
    expect([all.values[0], all.previous, all.perMetricIds]).toEqual([11.5, 5.5, [load.metricId]]);
    expect(all.provenance?.formula).toMatch(/^sum of Steam \(2 metrics together\) ÷ sum of Washed \(/);
    expect(all.provenance?.parts.map(({ value }) => value)).toEqual([12, 80, 8]);
  });

  it('compares with nothing where the window before is hardly covered; by period each with its own', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst, {
      kind: 'amount',
      unit: 'kg',
      intervalMs: HOUR,
    });
    await push(
      test.url,
      token,
      [1, 2, 3, 4, 8].map((ago) => ({ metric: key, t: TEST_NOW - ago * HOUR, v: ago })),
    );
    const asked = {
      select: { metricIds: [metricId] },
      summary: 'sum',
      window: rolling(4, 'hour'),
      compare: 'before',
    };
    const { body } = await ask(asked);
    expect(body.groups[0]).toMatchObject({ values: [10], previous: null, provenance: null });
    const hours = await ask({ ...asked, bucket: 'hour' });
    expect(hours.body.groups[0]).toMatchObject({ previous: null, before: [8, null, null, null] });
    expect((await ask({ ...asked, fold: 'hourOfDay' })).body.error?.message).toMatch(
      /not compared in a grid/,
    );
  });

  it('answers several measures of the same groups at once, each judged by its own band', async () => {
    const amount = { kind: 'amount', unit: 'kWh', intervalMs: HOUR, maxGapMs: 3 * HOUR };
    const steam = await serverWithMetric(analyst, { name: 'Steam made', ...amount });
    const fed = await serverWithMetric(analyst, { name: 'Feed water', ...amount, unit: 'm³' });
    for (const [{ key, token }, v] of [
      [steam, 6],
      [fed, 2],
    ] as const) {
      const samples = [1, 2, 3, 4].map((ago) => ({ metric: key, t: TEST_NOW - ago * HOUR, v }));
      await push(test.url, token, samples);
    }
    const of = ({ metricId }: { metricId: string }) => ({ metricIds: [metricId] });
    const measures = [
      {
        select: of(steam),
        summary: 'sum',
        band: { direction: 'higher', caution: 20, breach: 10, target: null },
      },
      { select: of(steam), summary: 'sum', per: { select: of(fed), summary: 'sum', factor: 1 } },
    ];
    const base = { measures, window: rolling(4, 'hour'), groupBy: { kind: 'all' } };
    const whole = await analyst.call<QueryAnswer>('POST', '/api/readings/query', {
      ...base,
      compare: 'before',
    });
    expect(whole.body).toMatchObject({
      units: ['kWh', 'kWh/m³'],
      groups: [
        {
          measures: [
            { values: [24], levels: ['clear'], partial: false, asOf: TEST_NOW - HOUR, previous: null },
            { values: [3], levels: null, perMetricIds: [fed.metricId] },
          ],
        },
      ],
    });
    // Grouped by metric the second measure has no group of its own: it stands in that of what is divided.
    const hourly = await analyst.call<QueryAnswer>('POST', '/api/readings/query', {
      ...base,
      bucket: 'hour',
      measures: [...measures, { select: of(fed), summary: 'max' }],
      groupBy: { kind: 'metric' },
    });
    const [made, water] = hourly.body.groups;
    expect(made.measures.map(({ values }) => values)).toEqual([
      [6, 6, 6, 6],
      [null, null, null, null],
      [null, null, null, null],
    ]);
    expect(made.measures[0].levels).toEqual(['breach', 'breach', 'breach', 'breach']);
    expect(water.measures[2].values).toEqual([2, 2, 2, 2]);
    expect(water.measures[0].metricIds).toEqual([]);
  });

  it('refuses recurring hours and scopes that make no sense, naming the place', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const base = { select: { metricIds: [metricId] }, summary: 'mean', window: rolling(1, 'hour') };
    const wrong = await ask({
      ...base,
      hours: { kind: 'all', of: [{ kind: 'clock', from: '25:00', to: '1' }] },
    });
    expect(wrong).toMatchObject({
      status: 422,
      body: { error: { message: 'hours.of[0]: times of day are written as 06:30' } },
    });
    expect((await ask({ ...base, scope: { assetIds: ['999999'], attributes: [] } })).status).toBe(422);
    expect(
      (await ask({ ...base, bucket: 'quarterHour', window: rolling(10, 'year') })).body.error?.message,
    ).toContain('Choose a longer period');
  });
});
