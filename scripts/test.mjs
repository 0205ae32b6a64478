#!/usr/bin/env node
/**
 * npm test: installs what is missing, then types, lint, Jest (core, server against a real PostgreSQL, app)
 * and Playwright against the built app. Ends with what took longest and one line "N passed, N failed".
 */
import { spawn, spawnSync } from 'node:child_process';
import { once } from 'node:events';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { runBrowserTests } from './lib/e2e.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { DATA, ROOT } from './lib/paths.mjs';
import { runMain, say } from './lib/say.mjs';
import { filesOfJest, slowest } from './lib/slowest.mjs';
import { startTestDatabase } from './lib/testDatabase.mjs';
import { ensureWebBuild } from './lib/webBuild.mjs';

const total = { passed: 0, failed: 0 };

function count({ passed, failed }) {
  total.passed += passed;
  total.failed += failed;
}

/** A check of one command; its output is printed when it fails. */
async function check([name, command, args]) {
  const run = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'] });
  const said = [];
  run.stdout.on('data', (part) => said.push(part));
  run.stderr.on('data', (part) => said.push(part));
  const [status] = await once(run, 'close');
  say(`${name}: ${status === 0 ? 'passed' : 'FAILED'}`);
  if (status !== 0) process.stdout.write(Buffer.concat(said));
  count(status === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 });
}

/** Does all of them, two at a time, because most need one core each. */
async function inPairs(works) {
  const left = [...works];
  const next = async () => {
    for (let work = left.shift(); work; work = left.shift()) await work();
  };
  await Promise.all([next(), next()]);
}

/** Kept beside the build information of the last run, so that only changes are checked. */
const types = (project) => {
  const known = path.join(DATA, `types-${project.replaceAll('/', '-')}.tsbuildinfo`);
  return ['tsc', '-p', project, '--noEmit', '--incremental', '--tsBuildInfoFile', known];
};
const CACHED = ['--cache', '--cache-location'];

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
  if (!existsSync(report)) return { passed: 0, failed: 1, files: [] };
  const told = JSON.parse(readFileSync(report, 'utf8'));
  return {
    passed: told.numPassedTests,
    failed: Math.max(told.numFailedTests + told.numRuntimeErrorTestSuites, status === 0 ? 0 : 1),
    files: filesOfJest(told, ROOT),
  };
}

await runMain(async () => {
  mkdirSync(DATA, { recursive: true });
  ensurePackages();
  say('Types, lint and format, and the app is built');
  const format = ['prettier', '--check', '--log-level', 'warn', '.', ...CACHED, path.join(DATA, 'prettier')];
  await inPairs([
    // The longest first.
    ensureWebBuild,
    () => check(['Types: app', 'npx', types('app/tsconfig.json')]),
    () => check(['Lint', 'npx', ['eslint', '.', ...CACHED, path.join(DATA, 'eslint')]]),
    () => check(['Types: core, server, demo, e2e', 'npx', types('tsconfig.node.json')]),
    () => check(['Format', 'npx', format]),
  ]);
  const database = await startTestDatabase();
  const lists = [];
  try {
    const { files, ...unit } = runJest(database.url);
    count(unit);
    lists.push(slowest('test files', files));
    const { tests, ...browser } = await runBrowserTests(database.url);
    count(browser);
    lists.push(slowest('browser tests', tests));
  } finally {
    database.stop();
  }
  for (const list of lists) process.stdout.write(`\n${list.join('\n')}\n`);
  process.stdout.write(`\n${total.passed} passed, ${total.failed} failed\n`);
  process.exitCode = total.failed === 0 ? 0 : 1;
});
