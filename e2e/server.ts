/** Starts the built app on a database of its own with a small demo, for the browser tests. */
import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { loadDemo } from '@vivid-beacon/demo';
import { runServer } from '@vivid-beacon/server';
import accounts from '@vivid-beacon/demo/accounts.json';
import type { DemoAccount } from '@vivid-beacon/core';

const base = process.env.TEST_DATABASE_URL!;
const name = `e2e_${randomBytes(6).toString('hex')}`;
const admin = new pg.Client({ connectionString: base });
await admin.connect();
await admin.query(`create database ${name}`);
await admin.end();

const server = await runServer({
  databaseUrl: base.replace(/\/[^/]*$/, `/${name}`),
  host: '127.0.0.1',
  port: 0,
  sessionSecret: randomBytes(32).toString('hex'),
  secureCookies: false,
  webFolder: process.env.WEB_FOLDER!,
  demoAccounts: accounts as DemoAccount[],
  logLevel: 'error',
});
await loadDemo(server.app.pool, { now: Date.now(), plantToken: 'vb_e2e', days: 15 });
process.send?.({ ready: server.url });
process.on('SIGTERM', () => void server.stop().then(() => process.exit(0)));
process.on('disconnect', () => process.kill(process.pid, 'SIGTERM'));
