/**
 * How long it takes from data to paint, and how smooth a trend and the time rail move, against a bare page
 * that draws the same points as SVG paths. In headless Chromium; both sides by turns. Run:
 * BENCH_URL=http://127.0.0.1:8080 CHROMIUM=/usr/bin/chromium node --import tsx bench/drawing.ts [wide|phone]
 * [one|sixteen|move] BENCH_URL names a running instance with the demo data; the boards made on it are removed
 * afterwards.
 */
import { chromium, type CDPSession, type Page } from '@playwright/test';
import type { Metric, Readout } from '@vivid-beacon/core';
import { emptyReadout } from '@vivid-beacon/core/src/boards';
import { serverOf, signInAs } from '../e2e/tests/helpers';
import { median, report } from './lib/measure';
import { barePage, drawBare, heldTrends, holdTrends, releaseTrends, watchFrames } from './lib/drawingPages';

const ROUNDS = 7;
/** The parts named on the command line; none means all. */
const wanted = process.argv.slice(2);
const runs = (group: readonly string[], name: string): boolean =>
  !wanted.some((each) => group.includes(each)) || wanted.includes(name);
const url = process.env.BENCH_URL!;
const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update'],
});

interface Size {
  readonly called: string;
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly slower: number;
}
const SIZES: readonly Size[] = [
  { called: 'wide', name: '1280 wide', width: 1280, height: 800, slower: 1 },
  { called: 'phone', name: '390 wide, 4 times slower', width: 390, height: 844, slower: 4 },
];

async function openPage(size: Size): Promise<{ page: Page; devtools: CDPSession }> {
  const context = await browser.newContext({
    baseURL: url,
    viewport: { width: size.width, height: size.height },
    hasTouch: true,
  });
  // Code for the page is sent as text, as compiled by the tool that runs this file, which calls a helper that
  // names functions.
  await context.addInitScript('window.__name = (f) => f');
  const page = await context.newPage();
  return { page, devtools: await context.newCDPSession(page) };
}

async function makeBoard(page: Page, count: number): Promise<string> {
  const metrics: Metric[] = await page.evaluate(
    async () => (await (await fetch('/api/metrics?limit=500')).json()).items,
  );
  const levels = metrics.filter(
    ({ kind, origin, intervalMs, health }) =>
      kind === 'level' && origin === 'samples' && intervalMs <= 60_000 && health.state !== 'silent',
  );
  // Leaves out the metric of the board with one trend: its cached answer would be drawn before the held one
  // is released.
  const readouts = levels
    .slice(count === 1 ? 0 : 1)
    .slice(0, count)
    .map((metric, i): Readout => ({
      ...emptyReadout(`r${i}`, 'trend'),
      measures: [{ metricId: metric.id, summary: 'mean', per: null }],
    }));
  if (readouts.length < count) throw new Error(`Only ${readouts.length} minute metrics: load the demo data`);
  const board = await serverOf(page)('POST', '/api/boards', {
    title: `Bench ${count}`,
    document: {
      version: 3,
      window: { kind: 'periods', count: 7, unit: 'day', current: false },
      scope: { assetIds: null, attributes: [] },
      hours: null,
      readouts,
    },
  });
  return board.id;
}

const PARTS = ['one', 'sixteen', 'move'];
for (const size of SIZES.filter(({ called }) => runs(['wide', 'phone'], called))) {
  const { page, devtools } = await openPage(size);
  const bare = await openPage(size);
  await signInAs(page, 'Analyst');
  await bare.page.goto(`${url}/api/session`);
  for (const { page: each, devtools: its } of [{ page, devtools }, bare])
    if (each) await its.send('Emulation.setCPUThrottlingRate', { rate: size.slower });
  for (const [count, limit] of [
    [1, 1.5],
    [16, 2],
  ] as const) {
    const draws = runs(PARTS, count === 1 ? 'one' : 'sixteen');
    const moves = count === 1 && runs(PARTS, 'move');
    if (!draws && !moves) continue;
    const board = await makeBoard(page, count);
    await page.goto(`${url}/boards/${board}`);
    await page
      .getByRole('group', { name: /Arrow keys walk/ })
      .first()
      .waitFor();
    // Sixteen trends on a slow phone take long: a repeated request would be counted as another trend.
    await page.waitForTimeout(3000 + 1500 * size.slower);
    await bare.page.setContent(barePage(count, size.width - 60, 200));
    const ours: number[] = [];
    const sighted: number[] = [];
    const theirs: number[] = [];
    let points = 0;
    for (let round = 0; draws && round < ROUNDS; round++) {
      await page.evaluate(holdTrends, count);
      const before = page.getByRole('button', { name: 'Window before' });
      // With a resting mouse the browser hit-tests at every paint; a phone has no mouse.
      await (size.called === 'phone' ? before.tap() : before.click());
      while ((await page.evaluate(heldTrends)) < count) await page.waitForTimeout(50);
      // Wait until the other requests of the new window have been answered.
      await page.waitForTimeout(1000 + 500 * size.slower);
      const { ms, inSight, bodies } = await page.evaluate(releaseTrends, count);
      ours.push(ms);
      sighted.push(inSight);
      const drawn = await bare.page.evaluate(drawBare, { bodies, width: size.width - 60, height: 200 });
      theirs.push(drawn.ms);
      points = drawn.points;
    }
    if (draws)
      report(
        `${count === 1 ? 'one trend' : '16 trends'} from data to paint over bare paths, ${size.name}`,
        median(ours) / median(theirs),
        limit,
        `${median(ours).toFixed(0)} ms / ${median(theirs).toFixed(0)} ms, ${points} points`,
      );
    if (draws && count > 1)
      report(
        `16 trends, until all in sight are painted, over all bare paths, ${size.name}`,
        median(sighted) / median(theirs),
        limit,
        `${median(sighted).toFixed(0)} ms / ${median(theirs).toFixed(0)} ms`,
      );
    if (moves) await moving(page, bare.page, devtools, size);
    await serverOf(page)('DELETE', `/api/boards/${board}`);
  }
  await page.context().close();
  await bare.page.context().close();
}
await browser.close();

/** Moves a finger (or the mouse) for a second while the page counts frames. */
async function moving(page: Page, bare: Page, devtools: CDPSession, size: Size): Promise<void> {
  const drag = async (on: Page, from: { x: number; y: number }, dx: number): Promise<number[]> => {
    await on.mouse.move(from.x, from.y);
    await on.evaluate(watchFrames);
    await on.mouse.down();
    for (let i = 1; i <= 60; i++) {
      await on.mouse.move(from.x + (dx * i) / 60, from.y);
      await on.waitForTimeout(8);
    }
    const frames = await on.evaluate(() => (window as never as { stopFrames: () => number[] }).stopFrames());
    await on.mouse.up();
    return frames;
  };
  const p95 = (frames: number[]): number => {
    const sorted = frames.slice(2).sort((a, b) => a - b);
    return sorted[Math.floor(sorted.length * 0.95)];
  };
  await page.evaluate(() => {
    const w = window as never as { longest: number };
    w.longest = 0;
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) w.longest = Math.max(w.longest, duration);
    }).observe({ type: 'event', durationThreshold: 16, buffered: false } as PerformanceObserverInit);
  });
  const plot = page.getByRole('group', { name: /Arrow keys walk/ }).first();
  await plot.evaluate((element) => element.scrollIntoView({ block: 'center' }));
  await plot.focus();
  await page.keyboard.press('+');
  await page.waitForTimeout(1500);
  const trend: number[] = [];
  const rail: number[] = [];
  const free: number[] = [];
  for (let round = 0; round < 5; round++) {
    const box = (await plot.boundingBox())!;
    await page.keyboard.down('Shift');
    trend.push(p95(await drag(page, { x: box.x + box.width * 0.5, y: box.y + 90 }, round % 2 ? -90 : 90)));
    await page.keyboard.up('Shift');
    await page.waitForTimeout(1200);
    const divider = (await page.getByRole('slider', { name: 'Start of the window' }).boundingBox())!;
    rail.push(
      p95(
        await drag(
          page,
          { x: divider.x + divider.width / 2, y: divider.y + divider.height / 2 },
          round % 2 ? -40 : 40,
        ),
      ),
    );
    await page.waitForTimeout(1200);
    free.push(p95(await drag(bare, { x: size.width / 2, y: 100 }, round % 2 ? -90 : 90)));
  }
  const longest = await page.evaluate(() => (window as never as { longest: number }).longest);
  const detail = (frames: number[]): string =>
    `${median(frames).toFixed(1)} ms / ${median(free).toFixed(1)} ms`;
  report(
    `a trend that is moved, 95th percentile frame over bare, ${size.name}`,
    median(trend) / median(free),
    1.2,
    detail(trend),
  );
  report(
    `a divider of the time rail that is moved, the same, ${size.name}`,
    median(rail) / median(free),
    1.2,
    detail(rail),
  );
  report(`longest interaction to next paint, ms, ${size.name}`, longest, 200);
  void devtools;
}
