/**
 * What a first visit loads and when its largest paint comes, against the least application that uses the same
 * libraries (bench/minimal). Sizes are those of every script requested, brotli 11; the largest paint is that
 * of the sign-in screen at 390 wide with the processor 4 times slower; both sides by turns, each visit with
 * an empty cache. Run: CHROMIUM=/usr/bin/chromium node --import tsx bench/firstLoad.ts (after npm start has
 * built the app once)
 */
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, statSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { brotliCompressSync, constants } from 'node:zlib';
import { chromium } from '@playwright/test';
import { median, report } from './lib/measure';

const ROOT = path.resolve(import.meta.dirname, '..');
const OURS = path.join(ROOT, 'app', 'dist');
const MINIMAL = path.join(ROOT, '.data', 'minimal');
const ROUNDS = 9;
const TYPES: Readonly<Record<string, string>> = {
  '.js': 'text/javascript',
  '.html': 'text/html',
  '.ttf': 'font/ttf',
  '.svg': 'image/svg+xml',
};

if (!existsSync(path.join(OURS, 'index.html'))) throw new Error('Run npm start first: it builds the app.');
const built = spawnSync('npx', ['expo', 'export', '-p', 'web', '--output-dir', MINIMAL], {
  cwd: path.join(ROOT, 'bench', 'minimal'),
  env: { ...process.env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', CI: '1', NODE_ENV: 'production' },
  encoding: 'utf8',
});
if (built.status !== 0) throw new Error(built.stdout + built.stderr);

const compressed = new Map<string, Buffer>();
const brotli = (file: string): Buffer => {
  const known = compressed.get(file);
  if (known) return known;
  const made = brotliCompressSync(readFileSync(file), { params: { [constants.BROTLI_PARAM_QUALITY]: 11 } });
  compressed.set(file, made);
  return made;
};
const scriptsOf = (folder: string): string[] =>
  [...readFileSync(path.join(folder, 'index.html'), 'utf8').matchAll(/<script src="([^"]+)"/g)].map(
    ([, src]) => src,
  );

/** Serves the files of a folder, compressed; every other address answers the page. */
function serve(folder: string): Promise<{ url: string; stop: () => void }> {
  const server = createServer((request, response) => {
    const asked = new URL(request.url!, 'http://x').pathname;
    if (asked.startsWith('/api/')) {
      response.writeHead(200, { 'content-type': 'application/json' });
      response.end(JSON.stringify({ person: null, csrfToken: '', demoAccounts: [] }));
      return;
    }
    const named = path.join(folder, decodeURIComponent(asked));
    const file = existsSync(named) && statSync(named).isFile() ? named : path.join(folder, 'index.html');
    response.writeHead(200, {
      'content-type': TYPES[path.extname(file)] ?? 'application/octet-stream',
      'content-encoding': 'br',
    });
    response.end(brotli(file));
  });
  return new Promise((resolve) => {
    server.listen(0, '127.0.0.1', () =>
      resolve({
        url: `http://127.0.0.1:${(server.address() as AddressInfo).port}/`,
        stop: () => void server.close(),
      }),
    );
  });
}

function tellSizes(name: string, ours: readonly string[], minimal: readonly string[]): void {
  const size = (folder: string, scripts: readonly string[]): number =>
    scripts.reduce((n, src) => n + brotli(path.join(folder, src)).length, 0);
  const [a, b] = [size(OURS, ours), size(MINIMAL, minimal)];
  report(
    `${name}, brotli 11, over the minimal application`,
    a / b,
    1.4,
    `${Math.round(a / 1000)} kB / ${Math.round(b / 1000)} kB`,
  );
}
const entry = (folder: string): string[] => scriptsOf(folder).filter((src) => src.includes('/entry-'));
tellSizes('entry script', entry(OURS), entry(MINIMAL));

const browser = await chromium.launch({
  executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update'],
});
/** Every script a first visit requests: those the page names, and those of its route. */
async function scriptsAskedFor(url: string): Promise<string[]> {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  const asked: string[] = [];
  page.on('request', (request) => {
    const { pathname } = new URL(request.url());
    if (pathname.endsWith('.js')) asked.push(decodeURIComponent(pathname));
  });
  await page.goto(url, { waitUntil: 'networkidle' });
  await context.close();
  return asked;
}
async function largestPaint(url: string): Promise<number> {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  const devtools = await context.newCDPSession(page);
  await devtools.send('Emulation.setCPUThrottlingRate', { rate: 4 });
  await page.addInitScript(() => {
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries())
        (window as never as { largest: number }).largest = entry.startTime;
    }).observe({ type: 'largest-contentful-paint', buffered: true });
  });
  await page.goto(url);
  await page.waitForTimeout(4000);
  const largest = await page.evaluate(() => (window as never as { largest: number }).largest);
  await context.close();
  return largest;
}
const [ours, minimal] = [await serve(OURS), await serve(MINIMAL)];
tellSizes(
  'all scripts a first visit loads',
  await scriptsAskedFor(ours.url),
  await scriptsAskedFor(minimal.url),
);
const a: number[] = [];
const b: number[] = [];
for (let i = 0; i < ROUNDS; i++) {
  a.push(await largestPaint(ours.url));
  b.push(await largestPaint(minimal.url));
}
report(
  'largest paint of the first screen, 390 wide, 4 times slower, over the minimal application',
  median(a) / median(b),
  1.3,
  `${median(a).toFixed(0)} ms / ${median(b).toFixed(0)} ms`,
);
await browser.close();
ours.stop();
minimal.stop();
