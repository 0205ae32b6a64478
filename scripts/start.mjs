#!/usr/bin/env node
/**
 * npm start: installs what is missing, starts PostgreSQL, migrates, loads demo data, builds, serves, and
 * prints the address. DATABASE_URL uses another database server, PORT another port, DEMO=0 no demo.
 */
import { createHmac, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { messageFrom, startProgram, stopProgram } from './lib/children.mjs';
import { startCluster } from './lib/cluster.mjs';
import { ensurePackages } from './lib/packages.mjs';
import { DATA, ROOT } from './lib/paths.mjs';
import { CannotGoOn, runMain, say } from './lib/say.mjs';
import { ensureWebBuild, WEB_FOLDER } from './lib/webBuild.mjs';

const USUAL_PORT = 8080;

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

await runMain(async () => {
  const demo = process.env.DEMO !== '0';
  mkdirSync(DATA, { recursive: true });
  ensurePackages();

  const cleanUp = [];
  let stopping;
  const stopAll = () => {
    stopping ??= (async () => {
      say('Stopping');
      for (const stop of cleanUp.reverse()) await stop();
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
    const server = startProgram(path.join('server', 'src', 'main.ts'), [], {
      ...env,
      PORT: String(await choosePort()),
      WEB_FOLDER,
      DEMO_ACCOUNTS: JSON.stringify(accounts),
    });
    cleanUp.push(() => stopProgram(server));
    const address = await messageFrom(server, ({ ready }) => ready);
    server.once('exit', () => stopping ?? void stopAll().then(() => process.exit(1)));

    if (demo) {
      const plant = startProgram(path.join('demo', 'src', 'main.ts'), ['plant'], {
        ...env,
        SERVER_URL: address,
        DEMO_ANCHOR: String(loaded.anchor),
        DEMO_FROM: String(loaded.from),
      });
      cleanUp.push(() => stopProgram(plant));
    }

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
