#!/usr/bin/env node
/**
 * npm run fuzz: 10,000 odd requests to a server of its own, then 5,000 damaged files; fails on an answer of 5xx, a slow one,
 * a held thread, or a file that is neither accounted for nor refused with words.
 */
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
    const files = ['jest', '--selectProjects', 'intake', '--testPathPattern', 'oddFiles'];
    const read = spawnSync('npx', files, {
      cwd: ROOT,
      stdio: 'inherit',
      env: { ...process.env, FUZZ_FILES: process.env.FUZZ_FILES ?? '5000' },
    });
    process.exitCode = status || read.status ? 1 : 0;
  } finally {
    database.stop();
  }
});
