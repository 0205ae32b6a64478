import { DEFAULT_CALENDAR } from '@vivid-beacon/core';
import type {
  ErrorBody,
  IndicatorLoss,
  IndicatorReading,
  IndicatorVersion,
  PageOf,
  PeriodTarget,
} from '@vivid-beacon/core';
import { indicatorDraft, onTestServer, push, serverWithMetric } from '../testing/testServer';
import type { IndicatorPast } from '@vivid-beacon/core';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const { test, analyst } = onTestServer('analyst');

interface Whole {
  readonly indicator: IndicatorReading;
  readonly versions: IndicatorVersion[];
  readonly targets: PeriodTarget[];
}
const make = async (assetId: string, metricId: string, part: object = {}): Promise<string> => {
  const made = await analyst.call<{ id: string }>(
    'POST',
    '/api/indicators',
    indicatorDraft(assetId, metricId, part),
  );
  expect(made.status).toBe(200);
  return made.body.id;
};
const read = async (id: string): Promise<Whole> =>
  (await analyst.call<Whole>('GET', `/api/indicators/${id}`)).body;
const past = async (id: string, periods: number): Promise<IndicatorPast> =>
  (await analyst.call<IndicatorPast>('GET', `/api/indicators/${id}/history?periods=${periods}`)).body;

/** A metric with one sample an hour over the last days, `value(hours before now)`. */
async function hourly(days: number, value: (ago: number) => number, metric: object = {}) {
  const made = await serverWithMetric(analyst, { intervalMs: HOUR, maxGapMs: 2 * HOUR, ...metric });
  test.clock.now = Math.ceil(test.clock.now / HOUR) * HOUR;
  await push(
    test.url,
    made.token,
    Array.from({ length: days * 24 }, (_, i) => ({
      metric: made.key,
      t: test.clock.now - (days * 24 - i) * HOUR,
      v: value(days * 24 - i),
    })),
  );
  return made;
}

describe('an indicator', () => {
  it('changes everywhere at once; the definition before goes on judging its time', async () => {
    const { assetId, metricId } = await hourly(1, () => 110);
    const id = await make(assetId, metricId);
    expect((await read(id)).indicator).toMatchObject({
      version: 1,
      reading: { value: 110, level: 'caution' },
    });
    test.clock.now += 3 * HOUR;
    const stricter = indicatorDraft(assetId, metricId, {
      judge: { kind: 'limits', band: { direction: 'lower', caution: 90, breach: 100, target: null } },
    });
    const change = (from: number) =>
      analyst.call('PUT', `/api/indicators/${id}`, { from, definition: stricter });
    expect((await change(1)).status).toBe(204);
    // Edited from an outdated one: nothing is lost silently.
    expect((await change(1)).status).toBe(409);
    const { versions } = await read(id);
    expect(versions.map(({ version, by }) => [version, by])).toEqual([
      [2, 'The analyst'],
      [1, 'The analyst'],
    ]);
    const { bucket, periods } = await past(id, 6);
    expect(bucket).toBe('hour');
    // Everything before the change is still judged by the first definition.
    expect(
      new Set(
        periods.filter(({ value }) => value === 110).map(({ level, version }) => `${level} ${version}`),
      ),
    ).toEqual(new Set(['caution 1']));
    expect(periods.at(-1)).toMatchObject({ version: 1 });
    test.clock.now += HOUR;
    expect((await past(id, 2)).periods.at(-1)).toMatchObject({ version: 2 });
    const list = await analyst.call<PageOf<IndicatorReading>>('GET', '/api/indicators?limit=500');
    expect(list.body.items.find((each) => each.id === id)!.band).toMatchObject({ breach: 100 });
  });

  it('has a target for the financial year of its site, with single months set otherwise', async () => {
    test.clock.now = Date.UTC(2026, 10, 16, 12);
    const { assetId, metricId } = await hourly(1, () => 10, { kind: 'amount', unit: 'kg' });
    const id = await make(assetId, metricId, {
      measure: { metricId, summary: 'sum', per: null },
      window: { kind: 'toDate', unit: 'financialQuarter' },
      judge: { kind: 'target', direction: 'higher', clear: 95, caution: 85 },
      target: { kind: 'periods', period: 'financialYear', prorate: 'calendar' },
      reference: { kind: 'none' },
    });
    const set = (values: object[]) =>
      analyst.call<{ error?: ErrorBody }>('PUT', `/api/indicators/${id}/targets`, { values });
    await analyst.call('PUT', `/api/calendars/${assetId}`, { ...DEFAULT_CALENDAR, financialYearMonth: 2 });
    expect((await set([{ start: '2026-02-01', value: 3650 }])).status).toBe(204);
    expect((await set([{ start: '2026-11-01', value: 60, month: true }])).status).toBe(204);
    // Financial quarters begin in February, May, August and November: 15.5 of the 30 days of November.
    expect((await read(id)).indicator.target).toBeCloseTo((60 * 15.5) / 30, 6);
    expect((await past(id, 2)).bucket).toBe('financialQuarter');
    const refused = await set([{ start: '2026-12-01', value: 3600, month: true }]);
    expect([refused.status, refused.body.error?.message]).toEqual([
      422,
      'The months set come to 3660, more than the 3650 of the financial year from 2026-02-01 on.',
    ]);
    expect((await read(id)).targets).toHaveLength(2);
  });

  it('is judged by shares of a target that has its own value each month, prorated and entered ahead', async () => {
    test.clock.now = Date.UTC(2026, 10, 16, 12);
    // 10 an hour since the first of the month: 3,720 by the 16th at noon, in London's winter.
    const { assetId, metricId } = await hourly(15.5, () => 10, { kind: 'amount', unit: 'kg' });
    const id = await make(assetId, metricId, {
      measure: { metricId, summary: 'sum', per: null },
      window: { kind: 'toDate', unit: 'month' },
      judge: { kind: 'target', direction: 'higher', clear: 95, caution: 85 },
      target: { kind: 'periods', period: 'month', prorate: 'calendar' },
      reference: { kind: 'none' },
    });
    expect((await read(id)).indicator).toMatchObject({
      target: null,
      band: null,
      reading: { level: 'nodata' },
    });
    const set = (values: object[]) => analyst.call('PUT', `/api/indicators/${id}/targets`, { values });
    expect(
      (
        await set([
          { start: '2026-11-01', value: 7200 },
          { start: '2026-12-01', value: 8000 },
        ])
      ).status,
    ).toBe(204);
    // 15.5 of 30 days have passed.
    const { indicator, targets } = await read(id);
    expect(indicator.target).toBeCloseTo((7200 * 15.5) / 30, 6);
    expect(indicator.reading).toMatchObject({ value: 3720, level: 'clear', previous: null });
    expect(targets).toHaveLength(2);
    await set([
      { start: '2026-11-01', value: 8400 },
      { start: '2026-12-01', value: null },
    ]);
    const later = await read(id);
    // 8400 × 15.5/30 = 4340: 3720 is 85.7 % of it.
    expect(later.indicator.reading.level).toBe('caution');
    expect(later.targets).toEqual([{ start: '2026-11-01', value: 8400, month: false }]);
    expect((await set([{ start: 'November', value: 1 }])).status).toBe(422);
    // The hours of a total have no level of their own: the whole week has the level of the month so far.
    const losses = await analyst.call<IndicatorLoss[]>('GET', '/api/indicators/time-by-level?days=7');
    expect(losses.body.find((each) => each.id === id)).toMatchObject({
      cautionMs: 7 * 24 * HOUR,
      breachMs: 0,
      clearMs: 0,
      nodataMs: 0,
    });
  });

  it('takes its target from another metric, and from last year', async () => {
    test.clock.now = Date.UTC(2026, 10, 18, 12);
    const used = await hourly(2, () => 50);
    const rated = await hourly(2, () => 40);
    const other = await make(used.assetId, used.metricId, {
      judge: { kind: 'target', direction: 'lower', clear: 90, caution: 75 },
      target: {
        kind: 'measure',
        measure: { metricId: rated.metricId, summary: 'mean', per: null },
        factor: 1.1,
      },
      reference: { kind: 'measure', measure: { metricId: rated.metricId, summary: 'mean', per: null } },
    });
    // Target 44: Clear to 48.4, Caution to 55.
    expect((await read(other)).indicator).toMatchObject({
      target: expect.closeTo(44, 9),
      reading: { level: 'caution', previous: 40 },
    });
    const yearAgo = Date.UTC(2025, 10, 18, 10);
    await push(
      test.url,
      used.token,
      [0, 1, 2].map((h) => ({ metric: used.key, t: yearAgo + h * HOUR, v: 80 })),
    );
    const lastYear = await make(used.assetId, used.metricId, {
      name: 'A fifth less',
      judge: { kind: 'target', direction: 'lower', clear: 100, caution: 100 },
      target: { kind: 'lastYear', percent: -20 },
      reference: { kind: 'lastYear' },
    });
    expect((await read(lastYear)).indicator).toMatchObject({
      target: expect.closeTo(64, 9),
      reading: { level: 'clear', previous: 80 },
    });
  });

  it('takes target and reference from what is usual at these hours of the week', async () => {
    // Three weeks at 100, the fourth a fifth higher.
    const { assetId, metricId } = await hourly(28, (ago) => (ago <= 7 * 24 ? 120 : 100));
    const id = await make(assetId, metricId, {
      window: { kind: 'rolling', count: 6, unit: 'hour' },
      judge: { kind: 'target', direction: 'lower', clear: 95, caution: 80 },
      target: { kind: 'baseline', weeks: 3, percent: 10 },
      reference: { kind: 'baseline', weeks: 3 },
    });
    const { target, reading } = (await read(id)).indicator;
    // 110 to be reached; 120 is 9.1 % of it too much.
    expect(reading).toMatchObject({ value: expect.closeTo(120, 6), level: 'caution' });
    expect(reading.previous).toBeCloseTo(100, 6);
    expect(target).toBeCloseTo(110, 6);
    const part = { name: 'Too far back', target: { kind: 'baseline', weeks: 26, percent: 0 } };
    const unknown = await make(assetId, metricId, part);
    expect((await read(unknown)).indicator.target).toBeNull();
    const many = indicatorDraft(assetId, metricId, { reference: { kind: 'baseline', weeks: 500 } });
    expect((await analyst.call('POST', '/api/indicators', many)).status).toBe(422);
  });

  it('prorates one value for the window, if it is to be', async () => {
    test.clock.now = Date.UTC(2026, 10, 16, 12);
    const { assetId, metricId } = await hourly(15.5, () => 10, { kind: 'amount', unit: 'kg' });
    const month = (prorate: string) => ({
      name: prorate,
      measure: { metricId, summary: 'sum', per: null },
      window: { kind: 'toDate', unit: 'month' },
      target: { kind: 'fixed', value: 7200, prorate },
    });
    const prorated = await make(assetId, metricId, month('calendar'));
    // 15.5 of 30 days have passed.
    expect((await read(prorated)).indicator.target).toBeCloseTo((7200 * 15.5) / 30, 6);
    const whole = await make(assetId, metricId, month('none'));
    expect((await read(whole)).indicator.target).toBe(7200);
  });

  it('judges by custom thresholds in percent of its target', async () => {
    const { assetId, metricId } = await hourly(1, () => 110);
    const id = await make(assetId, metricId, {
      target: { kind: 'fixed', value: 100 },
      judge: { kind: 'targetCuts', cuts: [90, 105, 120], levels: ['breach', 'clear', 'caution', 'breach'] },
    });
    const { reading, band } = (await read(id)).indicator;
    expect(reading.level).toBe('caution');
    expect(band).toMatchObject({ direction: 'cuts', cuts: [90, 105, 120] });
  });

  it('compares with a fixed reference, or with none', async () => {
    const { assetId, metricId } = await hourly(1, () => 110);
    const id = await make(assetId, metricId, { reference: { kind: 'fixed', value: 100 } });
    expect((await read(id)).indicator.reading.previous).toBe(100);
  });

  it('is refused when its name is taken, its asset or metric is missing, or it cannot be computed', async () => {
    const { assetId, metricId } = await serverWithMetric(analyst);
    await make(assetId, metricId);
    const post = async (part: object): Promise<number> =>
      (await analyst.call('POST', '/api/indicators', indicatorDraft(assetId, metricId, part))).status;
    expect(await post({ name: 'mean' })).toBe(422);
    expect(await post({ name: 'x', assetId: '999999' })).toBe(422);
    expect(await post({ name: 'x', measure: { metricId: '999999', summary: 'mean', per: null } })).toBe(404);
    expect(await post({ name: 'x', measure: { metricId, summary: 'increase', per: null } })).toBe(422);
    expect(
      await post({ name: 'x', judge: { kind: 'target', direction: 'lower', clear: 95, caution: 85 } }),
    ).toBe(422);
    const disorder = { direction: 'lower', caution: 5, breach: 4, target: null };
    expect(await post({ name: 'x', judge: { kind: 'limits', band: disorder } })).toBe(422);
    const unfit = { direction: 'cuts', cuts: [2, 1], levels: ['clear', 'caution', 'breach'], target: null };
    expect(await post({ name: 'x', judge: { kind: 'limits', band: unfit } })).toBe(422);
    const operator = await test.as('operator');
    expect((await operator.call('POST', '/api/indicators', indicatorDraft(assetId, metricId))).status).toBe(
      403,
    );
  });

  it('taken off the list frees its name, and its asset', async () => {
    const { assetId, metricId } = await serverWithMetric(analyst);
    const id = await make(assetId, metricId);
    expect((await analyst.call('DELETE', `/api/indicators/${id}`)).status).toBe(204);
    expect((await analyst.call('DELETE', `/api/indicators/${id}`)).status).toBe(404);
    expect((await analyst.call('GET', `/api/indicators/${id}`)).status).toBe(404);
    await make(assetId, metricId);
  });
});

describe('what helps to write one', () => {
  it('previews a definition with its past and saves nothing', async () => {
    const { assetId, metricId } = await hourly(2, (ago) => (ago <= 3 ? 130 : 90));
    test.clock.now += 5 * MINUTE;
    const { body, status } = await analyst.call<IndicatorReading & IndicatorPast>(
      'POST',
      '/api/indicators/preview',
      {
        definition: indicatorDraft(assetId, metricId),
        values: [],
      },
    );
    expect(status).toBe(200);
    expect(body.reading).toMatchObject({ value: 130, level: 'breach' });
    const levels = body.periods.map(({ level }) => level);
    expect(levels).toHaveLength(30);
    expect(levels.filter((level) => level === 'breach').length).toBeGreaterThanOrEqual(2);
    expect(levels.slice(0, 25).every((level) => level === 'clear')).toBe(true);
    const list = await analyst.call<PageOf<IndicatorReading>>('GET', '/api/indicators?limit=500');
    expect(list.body.items.some((each) => each.measure.metricId === metricId)).toBe(false);
  });

  it('suggests targets from the past with what they rest on', async () => {
    const { metricId } = await hourly(5, (ago) => 100 + (ago % 10));
    const ask = (direction: string) =>
      analyst.call<{ bucket: string; suggestions: { kind: string; value: number; values: number }[] }>(
        'POST',
        '/api/indicators/suggested-targets',
        {
          measure: { metricId, summary: 'mean', per: null },
          window: { kind: 'rolling', count: 1, unit: 'hour' },
          direction,
        },
      );
    const { body } = await ask('lower');
    expect(body.bucket).toBe('hour');
    expect(body.suggestions.map(({ kind }) => kind)).toEqual(['median', 'quarter', 'bestSustained']);
    expect(body.suggestions[1].value).toBeLessThan(body.suggestions[0].value);
    expect(body.suggestions[0].values).toBeGreaterThan(80);
    expect((await ask('inside')).body.suggestions).toEqual([]);
  });
});
