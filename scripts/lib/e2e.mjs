import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { messageFrom, startProgram, stopProgram } from './children.mjs';
import { ensureChromium } from './debian.mjs';
import { DATA, ROOT } from './paths.mjs';
import { say } from './say.mjs';
import { testsOfPlaywright } from './slowest.mjs';
import { WEB_FOLDER } from './webBuild.mjs';

/**
 * Sizes of e2e/playwright.config.ts. Each has its own server and database, so neither sees the data of the
 * other.
 */
const SIZES = ['phone', 'wide'];

/**
 * Runs the browser tests against the built app, all sizes at the same time, because a page waits more than it
 * computes.
 *
 * @returns how many passed and failed, and how long each took.
 */
export async function runBrowserTests(databaseUrl, extra = []) {
  const chromium = await ensureChromium();
  const chosen = SIZES.filter((size) => extra.includes(`--project=${size}`));
  const rest = extra.filter((each) => !SIZES.some((size) => each === `--project=${size}`));
  const sizes = chosen.length > 0 ? chosen : SIZES;
  const results = await Promise.all(
    sizes.map((size) => runAtSize(size, { databaseUrl, chromium, extra: rest })),
  );
  return {
    passed: results.reduce((n, { passed }) => n + passed, 0),
    failed: results.reduce((n, { failed }) => n + failed, 0),
    tests: results.flatMap(({ tests }) => tests),
  };
}

async function runAtSize(size, { databaseUrl, chromium, extra }) {
  say(`Starting the built app for the browser tests, ${size}`);
  const server = startProgram(path.join('e2e', 'server.ts'), [], {
    TEST_DATABASE_URL: databaseUrl,
    WEB_FOLDER,
  });
  try {
    const url = await messageFrom(server, ({ ready }) => ready);
    const report = path.join(DATA, `playwright-${size}.json`);
    rmSync(report, { force: true });
    const config = ['--config', 'e2e/playwright.config.ts', `--project=${size}`];
    const run = spawn('npx', ['playwright', 'test', ...config, ...extra], {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, E2E_URL: url, E2E_SIZE: size, E2E_REPORT: report, CHROMIUM: chromium },
    });
    const [status] = await once(run, 'exit');
    if (!existsSync(report)) return { passed: 0, failed: 1, tests: [] };
    const told = JSON.parse(readFileSync(report, 'utf8'));
    const failed = told.stats.unexpected + told.stats.flaky;
    return {
      passed: told.stats.expected,
      failed: Math.max(failed, status === 0 ? 0 : 1),
      tests: testsOfPlaywright(told),
    };
  } finally {
    await stopProgram(server);
  }
}
