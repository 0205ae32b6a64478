#!/usr/bin/env node
/**
 * npm test: installs what is missing, then types, lint, Jest (core, server against a real PostgreSQL, app)
 * and Playwright against the built app. Ends with one line "N passed, N failed".
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { runBrowserTests } from './lib/e2e.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { DATA, ROOT } from './lib/paths.mjs';
import { runMain, say } from './lib/say.mjs';
import { startTestDatabase } from './lib/testDatabase.mjs';
import { ensureWebBuild } from './lib/webBuild.mjs';

const total = { passed: 0, failed: 0 };

function count({ passed, failed }) {
  total.passed += passed;
  total.failed += failed;
}

/** A check that is one command: passed or failed as a whole. */
function check(name, command, args) {
  say(name);
  const { status } = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit' });
  count(status === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 });
}

function runJest(databaseUrl) {
  say('Unit and server tests');
  const report = path.join(DATA, 'jest.json');
  rmSync(report, { force: true });
  const { status } = spawnSync(
    'npx',
    ['jest', '--json', '--outputFile', report, '--maxWorkers=2', '--forceExit'],
    {
      cwd: ROOT,
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, TEST_DATABASE_URL: databaseUrl },
    },
  );
  if (!existsSync(report)) return { passed: 0, failed: 1 };
  const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = JSON.parse(
    readFileSync(report, 'utf8'),
  );
  return {
    passed: numPassedTests,
    failed: Math.max(numFailedTests + numRuntimeErrorTestSuites, status === 0 ? 0 : 1),
  };
}

await runMain(async () => {
  mkdirSync(DATA, { recursive: true });
  ensurePackages();
  check('Types: core, server, demo, e2e', 'npx', ['tsc', '-p', 'tsconfig.node.json', '--noEmit']);
  check('Types: app', 'npx', ['tsc', '-p', 'app/tsconfig.json', '--noEmit']);
  check('Lint', 'npx', ['eslint', '.']);
  check('Format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']);
  const database = await startTestDatabase();
  try {
    count(runJest(database.url));
    ensureWebBuild();
    count(await runBrowserTests(database.url));
  } finally {
    database.stop();
  }
  process.stdout.write(`\n${total.passed} passed, ${total.failed} failed\n`);
  process.exitCode = total.failed === 0 ? 0 : 1;
});
