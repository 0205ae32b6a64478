import { expect, test, type Page } from '@playwright/test';
import pixelmatch from 'pixelmatch';
import { PNG } from 'pngjs';
import type { Metric, Readout, ReadoutForm } from '@vivid-beacon/core';
import { makeReadout, READOUT_FORMS } from '../../core/src/boards';
import { DAY, NIGHT } from '../../core/src/drawing/palette';
import { serverOf, signInAs } from './helpers';

/* Compares, pixel by pixel, a readout as the screen draws it with the picture the server draws. */

/**
 * The share of pixels that may differ: two programs smooth edges and letters a little differently. A missing
 * line, a misplaced word or another colour changes more than that in each of these pictures.
 */
const TOLERANCE = 0.012;
/** How far a pixel's colour may lie from the other's before it counts: pixelmatch's measure, 0 to 1. */
const COLOUR = 0.25;

/**
 * Forms that the screen draws as one scene, from its upper left corner. Straight gauges are drawn row by row;
 * the others are text that wraps and can be selected.
 */
const DRAWN: readonly ReadoutForm[] = [
  'gauge',
  'tank',
  'trend',
  'ranking',
  'breakdown',
  'scatter',
  'grid',
  'ring',
];
/** Forms that compare groups of amounts. */
const BY_PLANT: ReadonlySet<ReadoutForm> = new Set(['ring', 'ranking', 'breakdown', 'scatter']);

async function makeBoard(page: Page): Promise<string> {
  const { items } = await page.evaluate(
    async () => (await (await fetch('/api/metrics?limit=500')).json()) as { items: Metric[] },
  );
  const bed = items.find(({ name }) => name === 'Bed temperature')!;
  const washed = items.find(({ name }) => name === 'Washed weight')!;
  const water = items.find(({ name }) => name === 'Water used')!;
  const amounts = [washed, water].map(({ id }) => ({ metricId: id, summary: 'sum' as const, per: null }));
  const band = {
    direction: 'inside',
    breachLow: 150,
    clearLow: 165,
    clearHigh: 182,
    breachHigh: 190,
    target: 175,
  } as const;
  const of = (form: ReadoutForm): Readout =>
    makeReadout(form, form, {
      title: `The ${form}`,
      ...(form === 'note'
        ? { text: '# Bed temperature\n\nKept **between** 165 and 182.\n\n- below: damp linen' }
        : BY_PLANT.has(form)
          ? { measures: form === 'scatter' ? amounts : amounts.slice(0, 1), groupBy: { kind: 'plant' } }
          : { measures: [{ metricId: bed.id, summary: 'mean', per: null }], band }),
      // Past days: nothing comes in between the two drawings.
      window: { kind: 'periods', count: 7, unit: 'day', current: false },
    });
  const board = await serverOf(page)('POST', '/api/boards', {
    title: `Pictures ${test.info().project.name}`,
    document: {
      version: 3,
      window: { kind: 'periods', count: 7, unit: 'day', current: false },
      scope: { assetIds: null, attributes: [] },
      hours: null,
      readouts: READOUT_FORMS.map(of),
    },
  });
  return board.id;
}

async function picture(page: Page, path: string): Promise<PNG> {
  const bytes = await page.evaluate(
    async (url) => [...new Uint8Array(await (await fetch(url)).arrayBuffer())],
    path,
  );
  return PNG.sync.read(Buffer.from(bytes));
}

/** The part of the pixels that differ; pictures of different sizes differ in all. */
function difference(a: PNG, b: PNG, name: string): number {
  if (a.width !== b.width || a.height !== b.height) return 1;
  const shown = new PNG({ width: a.width, height: a.height });
  const count = pixelmatch(a.data, b.data, shown.data, a.width, a.height, { threshold: COLOUR });
  void test.info().attach(name, { body: PNG.sync.write(shown), contentType: 'image/png' });
  return count / (a.width * a.height);
}

/** Removes what lies within `r` px of the middle. */
function blankMiddle({ data, width, height }: PNG, r: number): void {
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (Math.hypot(x - width / 2, y - height / 2) < r)
        data.fill(0, 4 * (y * width + x), 4 * (y * width + x) + 4);
}

for (const theme of ['day', 'night'] as const) {
  test(`readouts look the same on the screen and drawn by the server, by ${theme}`, async ({
    page,
    browser,
  }) => {
    await page.emulateMedia({ colorScheme: theme === 'night' ? 'dark' : 'light', reducedMotion: 'reduce' });
    await signInAs(page, 'Analyst');
    const id = await makeBoard(page);
    const differences: Record<string, number> = {};

    // What the server writes as SVG, drawn by the browser, and what it draws itself.
    const bare = await browser.newPage({ viewport: { width: 480, height: 900 } });
    for (const form of READOUT_FORMS) {
      const path = `/api/boards/${id}/readouts/${form}`;
      const svg = await page.evaluate(async (url) => (await fetch(url)).text(), `${path}.svg?theme=${theme}`);
      await bare.setContent(`<style>body{margin:0}svg{display:block}</style>${svg}`);
      await bare.evaluate(() => document.fonts.ready.then(() => undefined));
      const byBrowser = PNG.sync.read(await bare.locator('svg').screenshot());
      const byServer = await picture(page, `${path}.png?scale=1&theme=${theme}`);
      differences[`${form} as SVG`] = difference(byBrowser, byServer, `${form} as SVG`);
    }
    await bare.close();

    // What stands on the screen.
    await page.goto(`/boards/${id}`);
    for (const form of DRAWN) {
      const readout = page.getByRole('region', { name: `The ${form}`, exact: true });
      await readout.scrollIntoViewIfNeeded();
      await expect(readout.locator('svg').first()).toBeVisible();
      await expect(page.getByText(/^Loading the /)).toHaveCount(0);
      // Besides its drawing a readout has lamps and icons.
      const sizes = await readout
        .locator('svg')
        .evaluateAll((all) =>
          all.map(({ clientWidth, clientHeight }) => [clientWidth, clientHeight] as const),
        );
      const largest = sizes.reduce(
        (best, [w, h], i) => (w * h > sizes[best][0] * sizes[best][1] ? i : best),
        0,
      );
      const [width, height] = sizes[largest];
      const drawing = readout.locator('svg').nth(largest);
      // A copy on whole pixels, above everything: a centred one may lie between two pixels, which smooths its
      // edges differently.
      await drawing.evaluate(
        (svg, background) => {
          const copy = svg.cloneNode(true) as SVGElement;
          copy.id = 'copy';
          Object.assign(copy.style, { position: 'fixed', left: '0', top: '0', zIndex: '99999', background });
          document.body.append(copy);
        },
        (theme === 'night' ? NIGHT : DAY).sheet,
      );
      const onScreen = PNG.sync.read(await page.locator('#copy').screenshot());
      await page.evaluate(() => document.getElementById('copy')!.remove());
      const query = `bare=true&scale=1&theme=${theme}&width=${width}`;
      const whole = await picture(page, `/api/boards/${id}/readouts/${form}.png?${query}`);
      const byServer = new PNG({ width: onScreen.width, height: onScreen.height });
      PNG.bitblt(whole, byServer, 0, 0, width, Math.min(onScreen.height, whole.height), 0, 0);
      // In its hole the screen shows a number that can be pressed.
      if (form === 'ring') for (const each of [onScreen, byServer]) blankMiddle(each, 0.6 * (height / 2));
      differences[form] = difference(onScreen, byServer, form);
    }
    const tooFar = Object.entries(differences).filter(([, part]) => part > TOLERANCE);
    expect(Object.fromEntries(tooFar)).toEqual({});
    await serverOf(page)('DELETE', `/api/boards/${id}`);
  });
}
