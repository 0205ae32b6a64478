import { expect, test } from '@playwright/test';
import type { Readout, ReadoutParts } from '@vivid-beacon/core';
import { makeReadout } from '../../core/src/boards';
import { expectAccessible, expectNoSidewaysScroll, expectRealNumbers, serverOf, signInAs } from './helpers';

const HOUR = 3_600_000;
/** In London the clock went back on 25 October 2026 at 02:00. */
const FROM = Date.UTC(2026, 9, 24, 12);
const WINDOW = { kind: 'absolute' as const, start: '2026-10-24T12:00', end: '2026-10-26T12:00' };
const LONG = `Press ${'with a very long name '.repeat(9)}`.slice(0, 200).trim();
const RIGHT_TO_LEFT = 'מכבש הקיטור הגדול של המכבסה';
const hours = (make: (i: number) => number): [number, number][] =>
  Array.from({ length: 47 }, (_, i) => [FROM + i * HOUR, make(i)]);

const SERIES: Readonly<Record<string, { unit: string; samples: [number, number][] }>> = {
  'no data': { unit: 'kW', samples: [] },
  'one sample': { unit: 'kW', samples: [[FROM + 20 * HOUR, 12.5]] },
  'all equal': { unit: 'kW', samples: hours(() => 42) },
  'all zero': { unit: 'kW', samples: hours(() => 0) },
  negative: { unit: 'kW', samples: hours((i) => -5 - (i % 7)) },
  tiny: { unit: 'kW', samples: hours((i) => 1e-9 * (1 + (i % 3))) },
  huge: { unit: 'kW', samples: hours((i) => 1e12 * (1 + (i % 3))) },
  'no unit': { unit: '', samples: hours((i) => i) },
  'taken away': { unit: 'kW', samples: hours((i) => i) },
};

test('unusual data is drawn sensibly, or said not to be there', async ({ page, baseURL }, info) => {
  // Both sizes run at the same time, and it has 5,000 assets.
  test.setTimeout(360_000);
  const errors: string[] = [];
  page.on('pageerror', (error) => errors.push(error.message));
  await signInAs(page, 'Analyst');
  const send = serverOf(page);
  const mark = info.project.name;
  const plant = await send('POST', '/api/assets', {
    name: `Unusual ${mark}`,
    kind: 'plant',
    zone: 'Europe/London',
  });
  const assets = await Promise.all(
    [LONG, RIGHT_TO_LEFT].map((name) =>
      send('POST', '/api/assets', { name, kind: 'machine', parentId: plant.id }),
    ),
  );
  const metric = (assetId: string, name: string, unit: string): Promise<{ id: string; key: string }> =>
    send('POST', '/api/metrics', { assetId, name, unit, kind: 'level', intervalMs: HOUR });
  const ids: Record<string, string> = {};
  const { token } = await send<{ token: string }>('POST', '/api/push-tokens', { name: `Unusual ${mark}` });
  for (const [name, { unit, samples }] of Object.entries(SERIES)) {
    const { id, key } = await metric(assets[0].id, name, unit);
    ids[name] = id;
    if (samples.length === 0) continue;
    const answer = await page.request.post(`${baseURL}/api/samples`, {
      headers: { authorization: `Bearer ${token}` },
      data: { samples: samples.map(([t, v]) => ({ metric: key, t, v })) },
    });
    expect((await answer.json()).added).toBe(samples.length);
  }
  ids.rtl = (await metric(assets[1].id, 'no data', 'kW')).id;
  await send('POST', '/api/assets/list', {
    rows: Array.from({ length: 5000 }, (_, i) => ({
      line: i + 1,
      path: [`Unusual ${mark}`, `Cell ${i + 1}`],
      kind: 'cell',
      zone: null,
      attributes: { Cell: i % 9 },
    })),
  });

  const of = (
    id: string,
    form: Readout['form'],
    names: readonly string[],
    parts: ReadoutParts = {},
  ): Readout =>
    makeReadout(id, form, {
      title: id,
      measures: names.map((name) => ({ metricId: ids[name], summary: 'mean', per: null })),
      ...parts,
    });
  const plain = ['no data', 'one sample', 'all equal', 'all zero', 'negative', 'tiny', 'huge', 'no unit'];
  const readouts = [
    ...plain.map((name) => of(`Gauge ${name}`, 'gauge', [name])),
    of('Straight', 'straight', ['all zero', 'negative', 'tiny', 'huge']),
    of('Tank', 'tank', ['negative']),
    of('Lamps', 'lamp', plain, { band: { direction: 'lower', caution: 10, breach: 40, target: null } }),
    of('Figure', 'figure', ['all zero']),
    of('Together', 'trend', ['no data', 'one sample', 'all equal', 'all zero', 'negative']),
    of('Far apart', 'trend', ['tiny', 'all equal'], {
      scale: { broken: true },
    }),
    of('By hour', 'trend', ['all equal'], { bucket: 'hour', mark: 'columns' }),
    of('Far future', 'trend', ['all equal'], {
      window: { kind: 'absolute', start: '2090-01-01T00:00', end: '2090-02-01T00:00' },
    }),
    of('In percent', 'trend', ['all equal', 'all zero'], { normalise: { by: 'first' } }),
    of('Right to left', 'figure', ['rtl'], { title: null }),
    of('Taken away', 'gauge', ['taken away']),
    of('Shares', 'ring', ['no data'], { groupBy: { kind: 'asset' } }),
  ];
  const board = await send('POST', '/api/boards', {
    title: `Unusual ${mark}`,
    document: {
      version: 3,
      window: WINDOW,
      scope: { assetIds: [plant.id], attributes: [] },
      hours: null,
      readouts,
    },
  });
  await send('DELETE', `/api/metrics/${ids['taken away']}`);

  await page.goto(`/boards/${board.id}`);
  const region = (name: string) => page.getByRole('region', { name, exact: true });
  for (const { title } of readouts) if (title) await expect(region(title)).toBeVisible();
  await expect(region('Gauge no data').getByText('No data').first()).toBeVisible();
  await expect(region('Gauge all equal').getByRole('button', { name: /: 42/ })).toBeVisible();
  await expect(region('Gauge negative').getByRole('button', { name: /\u2212/ })).toBeVisible();
  await expect(region('Taken away').getByText(/does not exist any more/)).toBeVisible();
  await expect(region('Far future').getByText('No readings in this window')).toBeVisible();
  await expect(region('In percent').getByText(/Not drawn: .*no first value above zero/)).toBeVisible();
  await expect(region('Shares').getByText('No whole to have shares of')).toBeVisible();
  await expect(page.getByText(RIGHT_TO_LEFT).first()).toBeVisible();
  // The repeated hour is an hour of its own: 48 hours on the wall clock have 49 columns, up to the last sample.
  // All columns of a line are one shape.
  await expect
    .poll(() =>
      region('By hour')
        .locator('svg path')
        .evaluateAll((paths) =>
          Math.max(0, ...paths.map((path) => (path.getAttribute('d') ?? '').split('Z').length - 1)),
        ),
    )
    .toBeGreaterThanOrEqual(47);
  await expectRealNumbers(page);
  await expectNoSidewaysScroll(page);
  await expectAccessible(page);
  for (const name of ['Gauge tiny', 'Lamps', 'Far apart']) {
    await region(name).scrollIntoViewIfNeeded();
    await page.screenshot({ path: info.outputPath(`${name}.png`) });
  }

  // 5,000 assets are searched and chosen from without waiting.
  await page.getByRole('button', { name: /^Scope: / }).click();
  await page.getByLabel(/Search/).fill('Cell 4999');
  await expect(page.getByRole('checkbox', { name: /Cell 4999/ })).toBeVisible();
  expect(errors).toEqual([]);
});
