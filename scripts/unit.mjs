#!/usr/bin/env node
/** npm run unit: Jest against a real PostgreSQL; arguments go to Jest. */
import { mkdirSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { DATA, ROOT } from './lib/paths.mjs';
import { runMain } from './lib/say.mjs';
import { startTestDatabase } from './lib/testDatabase.mjs';

await runMain(async () => {
  mkdirSync(DATA, { recursive: true });
  const database = await startTestDatabase();
  const run = spawnSync('npx', ['jest', ...process.argv.slice(2)], {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, TEST_DATABASE_URL: database.url },
  });
  database.stop();
  process.exitCode = run.status ?? 1;
});
