#!/usr/bin/env node
/**
 * npm run dev: a day of development on the demo data. Metro serves the app and hot-reloads changed files; a
 * changed file of the server or of core restarts the server.
 */
import { spawn } from 'node:child_process';
import { watch } from 'node:fs';
import path from 'node:path';
import { stopProgram } from './lib/children.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { ROOT } from './lib/paths.mjs';
import { CannotGoOn, runMain, say } from './lib/say.mjs';
import { choosePort, loadDemo, onStage, openDatabase, openPlant, openServer, welcome } from './lib/stage.mjs';

/** Editors save a file in several steps. */
const SETTLE_MS = 300;
const EXPO = path.join(ROOT, 'node_modules', 'expo', 'bin', 'cli');
const METRO_WITHIN_MS = 300_000;

/** Restarts the server whenever one of its files changes. @returns a function that stops watching. */
function restartOnChange(server) {
  let timer;
  const watchers = ['server/src', 'server/migrations', 'core/src'].map((folder) =>
    watch(path.join(ROOT, folder), { recursive: true }, (_, name) => {
      if (!/\.(ts|mjs|sql)$/.test(name ?? '') || /\.test\.ts$/.test(name)) return;
      clearTimeout(timer);
      timer = setTimeout(() => {
        say(`${name} has changed`);
        void server.restart();
      }, SETTLE_MS);
    }),
  );
  return () => watchers.forEach((each) => each.close());
}

/** Starts Metro, which forwards /api to the server. Resolves when it answers. */
async function openMetro(stage, serverUrl, port) {
  say('Starting Metro; the first page takes a minute or two');
  // Not through npx, which would not pass on the signal to stop.
  const metro = spawn(process.execPath, [EXPO, 'start', '--web', '--port', String(port)], {
    cwd: path.join(ROOT, 'app'),
    stdio: ['ignore', 'inherit', 'inherit'],
    env: {
      ...process.env,
      API_URL: serverUrl,
      EXPO_OFFLINE: '1',
      EXPO_NO_TELEMETRY: '1',
      BROWSER: 'none',
    },
  });
  stage.later(() => stopProgram(metro));
  const address = `http://127.0.0.1:${port}`;
  const until = Date.now() + METRO_WITHIN_MS;
  for (;;) {
    if (metro.exitCode !== null) throw new CannotGoOn(`Metro ended with code ${metro.exitCode}.`);
    if (Date.now() > until) throw new CannotGoOn('Metro did not answer within five minutes.');
    const answered = await fetch(`${address}/status`).then(
      ({ ok }) => ok,
      () => false,
    );
    if (answered) return address;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
}

await runMain(() =>
  onStage(async (stage) => {
    ensurePackages();
    const env = { ...(await openDatabase(stage, { demo: true })), NODE_ENV: 'development' };
    const loaded = await loadDemo(stage, env);
    const server = await openServer(stage, env, { demo: true, port: await choosePort(8180), more: {} });
    stage.later(restartOnChange(server));
    await openPlant(stage, env, server.first, loaded);
    const address = await openMetro(stage, server.first, await choosePort());
    welcome(address, { demo: true });
    return address;
  }),
);
