/**
 * How soon the phone answers on a board of all forms, its processor four times slower: the longest time from a tap or a key to
 * the next paint, over each kind of thing that one does there. In headless Chromium on a running instance with the demo data.
 * Run: BENCH_URL=http://127.0.0.1:8080 CHROMIUM=/usr/bin/chromium node --import tsx bench/boardOfForms.ts
 */
import { chromium, type Page } from '@playwright/test';
import { report } from './lib/measure';

const LIMIT_MS = 200;
const SLOWER = 4;
const ROUNDS = 5;
const BOARD = 'Comparing machines and meters';

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update'],
});
const context = await browser.newContext({
  baseURL: process.env.BENCH_URL,
  viewport: { width: 390, height: 844 },
  hasTouch: true,
});
// Code for the page is sent as text, as compiled by the tool that runs this file, which calls a helper that names functions.
await context.addInitScript('window.__name = (f) => f');
const page = await context.newPage();
await page.goto('/');
await page.getByLabel('Sign in as Analyst').click();
await page.getByRole('heading', { name: 'On watch' }).waitFor();
await page.goto('/boards');
await page
  .getByRole('link', { name: new RegExp(BOARD) })
  .first()
  .click();
await page.getByRole('region', { name: 'Machines of Quayside by output' }).waitFor();
await page.waitForTimeout(8000);
const devtools = await context.newCDPSession(page);
await devtools.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
await page.evaluate(() => {
  const w = window as never as { longest: number };
  new PerformanceObserver((list) => {
    for (const { duration } of list.getEntries()) w.longest = Math.max(w.longest, duration);
  }).observe({ type: 'event', durationThreshold: 16, buffered: false } as PerformanceObserverInit);
});

/** Something that one does, and what undoes it. */
interface Act {
  readonly name: string;
  /** The readout in which it happens. */
  readonly where: string;
  readonly run: (page: Page, box: { x: number; y: number; width: number; height: number }) => Promise<void>;
}
const tapAt =
  (x: number, y: number): Act['run'] =>
  (on, box) =>
    on.touchscreen.tap(box.x + box.width * x, box.y + y);

const ACTS: readonly Act[] = [
  {
    name: 'a name of a ranking, which focuses the board',
    where: 'Machines of Quayside by output',
    run: tapAt(0.3, 120),
  },
  {
    name: 'a head of a ranking, which sorts it',
    where: 'Machines of Quayside by output',
    run: tapAt(0.9, 60),
  },
  { name: 'a part of a ring', where: 'Electricity of Quayside', run: tapAt(0.72, 120) },
  {
    name: 'a point of a scatter',
    where: 'Hired equipment: how often out, and for what part of the list price',
    run: tapAt(0.6, 120),
  },
  { name: 'a row of a table, which opens', where: 'Machines of all plants', run: tapAt(0.06, 140) },
  { name: 'a cell of a heat grid', where: 'Ironer 2, bed temperature by hour', run: tapAt(0.6, 70) },
  {
    name: 'an arrow key in a heat grid',
    where: 'Washed weight of Quayside in a usual week',
    run: (on) => on.keyboard.press('ArrowRight'),
  },
];

let worst = 0;
for (const { name, where, run } of ACTS) {
  let longest = 0;
  for (let round = 0; round < ROUNDS; round++) {
    const region = page.getByRole('region', { name: where, exact: true });
    await region.evaluate((element) => element.scrollIntoView({ block: 'center' }));
    await page.waitForTimeout(1200);
    if (name.includes('key')) await region.getByRole('group').first().focus();
    await page.evaluate(() => ((window as never as { longest: number }).longest = 0));
    await run(page, (await region.boundingBox())!);
    await page.waitForTimeout(1800);
    longest = Math.max(longest, await page.evaluate(() => (window as never as { longest: number }).longest));
    if (await page.getByRole('dialog').count()) await page.keyboard.press('Escape');
    await page.waitForTimeout(600);
  }
  report(`${name}, ms`, longest, LIMIT_MS);
  worst = Math.max(worst, longest);
}
report('the longest of all, ms', worst, LIMIT_MS);
await browser.close();
