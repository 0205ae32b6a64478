#!/usr/bin/env node
/** npm run fuzz: 10,000 odd requests to a server of its own; fails on an answer of 5xx, a slow one, or a held thread. */
import { spawnSync } from 'node:child_process';
import { mkdirSync } from 'node:fs';
import { ensurePackages } from './lib/packages.mjs';
import { DATA, ROOT } from './lib/paths.mjs';
import { runMain } from './lib/say.mjs';
import { startTestDatabase } from './lib/testDatabase.mjs';

await runMain(async () => {
  mkdirSync(DATA, { recursive: true });
  ensurePackages();
  const database = await startTestDatabase();
  try {
    const program = 'server/src/testing/fuzz/main.ts';
    const { status } = spawnSync(process.execPath, ['--import', 'tsx', program], {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, TEST_DATABASE_URL: database.url },
    });
    process.exitCode = status ?? 1;
  } finally {
    database.stop();
  }
});
