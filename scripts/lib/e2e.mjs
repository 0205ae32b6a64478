import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { messageFrom, startProgram, stopProgram } from './children.mjs';
import { ensureChromium } from './debian.mjs';
import { DATA, ROOT } from './paths.mjs';
import { say } from './say.mjs';
import { WEB_FOLDER } from './webBuild.mjs';

/** Sizes of e2e/playwright.config.ts. Each has a server and a database of its own, so neither meets what the other left. */
const SIZES = ['phone', 'wide'];

/** Runs the browser tests against the built app, at every size. @returns how many passed and failed. */
export async function runBrowserTests(databaseUrl, extra = []) {
  const chromium = await ensureChromium();
  const chosen = SIZES.filter((size) => extra.includes(`--project=${size}`));
  const rest = extra.filter((each) => !SIZES.some((size) => each === `--project=${size}`));
  const total = { passed: 0, failed: 0 };
  for (const size of chosen.length > 0 ? chosen : SIZES) {
    const { passed, failed } = await runAtSize(size, { databaseUrl, chromium, extra: rest });
    total.passed += passed;
    total.failed += failed;
  }
  return total;
}

async function runAtSize(size, { databaseUrl, chromium, extra }) {
  say(`Starting the built app for the browser tests, ${size}`);
  const server = startProgram(path.join('e2e', 'server.ts'), [], {
    TEST_DATABASE_URL: databaseUrl,
    WEB_FOLDER,
  });
  try {
    const url = await messageFrom(server, ({ ready }) => ready);
    const report = path.join(DATA, 'playwright.json');
    rmSync(report, { force: true });
    const config = ['--config', 'e2e/playwright.config.ts', `--project=${size}`];
    const run = spawnSync('npx', ['playwright', 'test', ...config, ...extra], {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, E2E_URL: url, CHROMIUM: chromium },
    });
    if (!existsSync(report)) return { passed: 0, failed: 1 };
    const { stats } = JSON.parse(readFileSync(report, 'utf8'));
    const failed = stats.unexpected + stats.flaky;
    return { passed: stats.expected, failed: Math.max(failed, run.status === 0 ? 0 : 1) };
  } finally {
    await stopProgram(server);
  }
}
