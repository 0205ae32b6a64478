#!/usr/bin/env node
/**
 * npm start: installs what is missing, starts PostgreSQL, migrates, loads demo data, builds, serves, and
 * prints the address. What dies of it is started again. A second start of the same copy finds the first. DATABASE_URL uses another database server, PORT another port, DEMO=0 no demo.
 */
import { createHmac, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { messageFrom, startProgram, stopProgram } from './lib/children.mjs';
import { startCluster } from './lib/cluster.mjs';
import { keepRunning } from './lib/keepRunning.mjs';
import { findRunning, forgetRunning, noteRunning } from './lib/onlyOne.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { DATA, ROOT } from './lib/paths.mjs';
import { CannotGoOn, runMain, say } from './lib/say.mjs';
import { ensureWebBuild, WEB_FOLDER } from './lib/webBuild.mjs';

const USUAL_PORT = 8080;
const NOTE = path.join(DATA, 'running.json');
/** How often PostgreSQL is looked after. */
const LOOK_EVERY_MS = 1000;

/** A secret that stays the same from start to start. */
function sessionSecret() {
  const file = path.join(DATA, 'session-secret');
  if (!existsSync(file)) writeFileSync(file, randomBytes(48).toString('base64url'), { mode: 0o600 });
  return readFileSync(file, 'utf8');
}

/** The port asked for, or from 8080 on the first that is free, so that two copies run side by side. */
async function choosePort() {
  if (process.env.PORT) return Number(process.env.PORT);
  for (let port = USUAL_PORT; port < USUAL_PORT + 50; port++) {
    const free = await new Promise((resolve) => {
      const probe = net.createServer();
      probe.once('error', () => resolve(false));
      probe.listen(port, process.env.HOST ?? '127.0.0.1', () => probe.close(() => resolve(true)));
    });
    if (free) return port;
  }
  throw new CannotGoOn('Ports 8080 to 8129 are all taken. Set PORT to a free one.');
}

/** Starts a PostgreSQL that died again; one that was killed leaves memory that is free a moment later. */
function lookAfter(cluster) {
  let failures = 0;
  const timer = setInterval(() => {
    try {
      if (!cluster.revive()) return;
      say('PostgreSQL had ended. It was started again at the same address');
      failures = 0;
    } catch (error) {
      failures++;
      if (failures === 1 || failures % 30 === 0) {
        say(`PostgreSQL has ended and does not start yet (try ${failures}): ${error.message}`);
      }
    }
  }, LOOK_EVERY_MS);
  return () => clearInterval(timer);
}

await runMain(async () => {
  mkdirSync(DATA, { recursive: true });
  const earlier = findRunning(NOTE);
  if (earlier) {
    process.stdout.write(
      earlier.address
        ? `\n  Vivid Beacon is running already at  ${earlier.address}  (process ${earlier.pid})\n\n`
        : `\n  Vivid Beacon is being started already (process ${earlier.pid}).\n\n`,
    );
    return;
  }
  noteRunning(NOTE, null);
  const demo = process.env.DEMO !== '0';
  ensurePackages();

  const cleanUp = [];
  let stopping;
  const stopAll = () => {
    stopping ??= (async () => {
      say('Stopping');
      for (const stop of cleanUp.reverse()) await stop();
      forgetRunning(NOTE);
      say('Stopped');
    })();
    return stopping;
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
    process.on(signal, () => void stopAll().then(() => process.exit(0)));
  }

  try {
    let url = process.env.DATABASE_URL;
    if (!url) {
      // The demo has a database of its own: its accounts have known passwords.
      const cluster = await startCluster('postgres', { database: demo ? 'demo' : 'beacon' });
      cleanUp.push(() => cluster.stop());
      cleanUp.push(lookAfter(cluster));
      url = cluster.url;
    }
    const secret = sessionSecret();
    const env = {
      DATABASE_URL: url,
      SESSION_SECRET: secret,
      DEMO_TOKEN: `vb_${createHmac('sha256', secret).update('simulated plant').digest('base64url')}`,
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
      NODE_ENV: 'production',
    };

    let loaded = null;
    if (demo) {
      say('Migrating the database and loading the demo plants');
      const loader = startProgram(path.join('demo', 'src', 'main.ts'), ['load'], env);
      cleanUp.push(() => stopProgram(loader));
      const from = Date.now();
      loader.on('message', ({ progress }) => progress && say(`  ${progress}`));
      loaded = { ...(await messageFrom(loader, ({ done }) => done)), from };
      say(`  ${loaded.samples.toLocaleString('en')} samples filled in`);
    }

    ensureWebBuild();

    const accounts = demo ? JSON.parse(readFileSync(path.join(ROOT, 'demo', 'accounts.json'), 'utf8')) : [];
    const port = String(await choosePort());
    const onGivenUp = () => void stopAll().then(() => process.exit(1));
    const server = await keepRunning(
      'The server',
      () => {
        const child = startProgram(path.join('server', 'src', 'main.ts'), [], {
          ...env,
          PORT: port,
          WEB_FOLDER,
          DEMO_ACCOUNTS: JSON.stringify(accounts),
        });
        return { child, ready: messageFrom(child, ({ ready }) => ready) };
      },
      { say, onGivenUp },
    );
    cleanUp.push(server.stop);
    const address = server.first;

    if (demo) {
      const plant = await keepRunning(
        'The simulated plant',
        () => {
          const child = startProgram(path.join('demo', 'src', 'main.ts'), ['plant'], {
            ...env,
            SERVER_URL: address,
            DEMO_ANCHOR: String(loaded.anchor),
            DEMO_FROM: String(loaded.from),
          });
          return { child, ready: Promise.resolve() };
        },
        { say, onGivenUp },
      );
      cleanUp.push(plant.stop);
    }
    noteRunning(NOTE, address);

    say('Ready');
    process.stdout.write(`\n  Vivid Beacon is at  ${address}\n\n`);
    if (demo) {
      process.stdout.write('  Demo accounts (also offered on the sign-in screen):\n');
      for (const { duty, role, email, password } of accounts) {
        process.stdout.write(`    ${duty.padEnd(14)} ${role.padEnd(14)} ${email.padEnd(36)} ${password}\n`);
      }
      process.stdout.write('\n');
    }
    process.stdout.write('  Ctrl-C stops everything.\n\n');
  } catch (error) {
    await stopAll();
    throw error;
  }
});
