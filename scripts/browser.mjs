#!/usr/bin/env node
/** npm run browser: the browser tests alone; arguments go to Playwright. */
import { mkdirSync } from 'node:fs';
import { runBrowserTests } from './lib/e2e.mjs';
import { DATA } from './lib/paths.mjs';
import { runMain } from './lib/say.mjs';
import { startTestDatabase } from './lib/testDatabase.mjs';
import { ensureWebBuild } from './lib/webBuild.mjs';

await runMain(async () => {
  mkdirSync(DATA, { recursive: true });
  const database = await startTestDatabase();
  try {
    await ensureWebBuild();
    const { failed } = await runBrowserTests(database.url, process.argv.slice(2));
    process.exitCode = failed === 0 ? 0 : 1;
  } finally {
    database.stop();
  }
});
