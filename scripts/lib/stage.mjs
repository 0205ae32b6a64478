import { createHmac, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { messageFrom, startProgram, stopProgram } from './children.mjs';
import { startCluster } from './cluster.mjs';
import { keepRunning } from './keepRunning.mjs';
import { findRunning, forgetRunning, noteRunning } from './onlyOne.mjs';
import { DATA, ROOT } from './paths.mjs';
import { CannotGoOn, say } from './say.mjs';

/* What npm start and npm run dev have in common. */

const NOTE = path.join(DATA, 'running.json');
const DEFAULT_PORT = 8080;
/** How often PostgreSQL is checked. */
const LOOK_EVERY_MS = 1000;

/**
 * Runs something until Ctrl-C, once in each copy of the project: a second start says where the first one is.
 *
 * @param open starts everything. @returns the address. It receives `stage`: `later(stop)` registers what to
 * do at the end, last first; `giveUp()` stops everything.
 */
export async function onStage(open) {
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
    const address = await open({
      later: (stop) => cleanUp.push(stop),
      giveUp: () => void stopAll().then(() => process.exit(1)),
    });
    noteRunning(NOTE, address);
  } catch (error) {
    await stopAll();
    throw error;
  }
}

/** Starts PostgreSQL, unless DATABASE_URL names one. @returns what every program is given. */
export async function openDatabase(stage, { demo }) {
  let url = process.env.DATABASE_URL;
  if (!url) {
    // The demo has a database of its own: its accounts have known passwords.
    const cluster = await startCluster('postgres', { database: demo ? 'demo' : 'beacon' });
    stage.later(() => cluster.stop());
    stage.later(lookAfter(cluster));
    url = cluster.url;
  }
  const secret = sessionSecret();
  return {
    DATABASE_URL: url,
    SESSION_SECRET: secret,
    DEMO_TOKEN: `vb_${createHmac('sha256', secret).update('simulated plant').digest('base64url')}`,
    LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
  };
}

/** Adds samples to the demo plants up to now. @returns where the simulated plant continues. */
export async function loadDemo(stage, env) {
  say('Migrating the database and loading the demo plants');
  const loader = startProgram(path.join('demo', 'src', 'main.ts'), ['load'], env);
  stage.later(() => stopProgram(loader));
  const from = Date.now();
  loader.on('message', ({ progress }) => progress && say(`  ${progress}`));
  const loaded = await messageFrom(loader, ({ done }) => done);
  say(`  ${loaded.samples.toLocaleString('en')} samples filled in`);
  return { anchor: loaded.anchor, from };
}

/** Starts the server and keeps it running. @returns as {@link keepRunning}. */
export async function openServer(stage, env, { demo, port, more }) {
  const server = await keepRunning(
    'The server',
    () => {
      const child = startProgram(path.join('server', 'src', 'main.ts'), [], {
        ...env,
        ...more,
        PORT: String(port),
        DEMO_ACCOUNTS: JSON.stringify(demo ? demoAccounts() : []),
      });
      return { child, ready: messageFrom(child, ({ ready }) => ready) };
    },
    { say, onGivenUp: stage.giveUp },
  );
  stage.later(server.stop);
  return server;
}

/** Starts the simulated plant, which sends samples to the server, and keeps it running. */
export async function openPlant(stage, env, address, { anchor, from }) {
  const plant = await keepRunning(
    'The simulated plant',
    () => {
      const child = startProgram(path.join('demo', 'src', 'main.ts'), ['plant'], {
        ...env,
        SERVER_URL: address,
        DEMO_ANCHOR: String(anchor),
        DEMO_FROM: String(from),
      });
      return { child, ready: Promise.resolve() };
    },
    { say, onGivenUp: stage.giveUp },
  );
  stage.later(plant.stop);
}

export function demoAccounts() {
  return JSON.parse(readFileSync(path.join(ROOT, 'demo', 'accounts.json'), 'utf8'));
}

/** Says where everything is and who may sign in. */
export function welcome(address, { demo }) {
  say('Ready');
  process.stdout.write(`\n  Vivid Beacon is at  ${address}\n\n`);
  if (demo) {
    process.stdout.write('  Demo accounts (also offered on the sign-in screen):\n');
    for (const { duty, role, email, password } of demoAccounts()) {
      process.stdout.write(`    ${duty.padEnd(14)} ${role.padEnd(14)} ${email.padEnd(36)} ${password}\n`);
    }
    process.stdout.write('\n');
  }
  process.stdout.write('  Ctrl-C stops everything.\n\n');
}

/** The port asked for, or from 8080 on the first that is free, so that two copies run side by side. */
export async function choosePort(first = DEFAULT_PORT) {
  if (process.env.PORT && first === DEFAULT_PORT) return Number(process.env.PORT);
  for (let port = first; port < first + 50; port++) {
    const free = await new Promise((resolve) => {
      const probe = net.createServer();
      probe.once('error', () => resolve(false));
      probe.listen(port, process.env.HOST ?? '127.0.0.1', () => probe.close(() => resolve(true)));
    });
    if (free) return port;
  }
  throw new CannotGoOn(`Ports ${first} to ${first + 49} are all taken. Set PORT to a free one.`);
}

/** A secret that is kept between starts. */
function sessionSecret() {
  const file = path.join(DATA, 'session-secret');
  if (!existsSync(file)) writeFileSync(file, randomBytes(48).toString('base64url'), { mode: 0o600 });
  return readFileSync(file, 'utf8');
}

/** Restarts a PostgreSQL that died; the shared memory of a killed one is free a moment later. */
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
