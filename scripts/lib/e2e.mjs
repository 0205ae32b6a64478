import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { messageFrom, startProgram, stopProgram } from './children.mjs';
import { ensureChromium } from './debian.mjs';
import { DATA, ROOT } from './paths.mjs';
import { say } from './say.mjs';
import { WEB_FOLDER } from './webBuild.mjs';

/** Runs the browser tests against the built app. @returns how many passed and failed. */
export async function runBrowserTests(databaseUrl, extra = []) {
  const chromium = await ensureChromium();
  say('Starting the built app for the browser tests');
  const server = startProgram(path.join('e2e', 'server.ts'), [], {
    TEST_DATABASE_URL: databaseUrl,
    WEB_FOLDER,
  });
  try {
    const url = await messageFrom(server, ({ ready }) => ready);
    const report = path.join(DATA, 'playwright.json');
    rmSync(report, { force: true });
    const run = spawnSync('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts', ...extra], {
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
