import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import { pino, type Logger } from 'pino';
import { createApp } from './app';
import type { Config } from './config';
import { openPool, withRole } from './db/database';
import { applicationRole, migrate } from './db/migrate';
import type { AppContext } from './http/appContext';
import { makeFormTokens } from './http/formToken';
import { makeSeal } from './http/seal';
import { startJobs } from './jobs/jobs';
import { LiveHub } from './live/liveHub';
import { openTransports } from './notices/transports';
import type { Transports } from './notices/send';
import { makeProvider } from './provider/provider';
import { refreshRollups } from './samples/rebuild';
import { TokenCache } from './tokens/tokenCache';
import { openWorkers } from './workers/workers';

const STOP_WITHIN_MS = 8000;
/**
 * How long a connection without a request stays open: longer than the 60 s after which proxies
 * usually close theirs, so that no client sends into a connection that is just closing here. Node's
 * own 5 s is about the pause of a sender that pushes every few seconds.
 */
const IDLE_CONNECTION_MS = 65_000;

export interface RunningServer {
  readonly url: string;
  readonly app: AppContext;
  /** By which notices leave. */
  readonly posts: Transports;
  /** Lets requests under way finish, then closes everything. */
  readonly stop: () => Promise<void>;
}

/**
 * Migrates with the rights of the user that connects; everything else works with fewer.
 *
 * @returns the address of the database to work with.
 */
async function prepareDatabase(databaseUrl: string, log: Logger): Promise<string> {
  const owner = openPool(databaseUrl, () => undefined, { connections: 2 });
  try {
    await migrate(owner);
    const role = await applicationRole(owner);
    if (role !== undefined) return withRole(databaseUrl, role);
    log.warn('no role of its own in this database: only triggers keep the trail from being changed');
    return databaseUrl;
  } finally {
    await owner.end();
  }
}

/** Migrates, opens everything and listens. */
export async function runServer(
  config: Config,
  options: {
    now?: () => number;
    /** Whether it does by itself what comes up; default yes. */
    jobs?: boolean;
    /** Whether pushes are taken in a thread of their own; default yes. */
    pushThread?: boolean;
  } = {},
): Promise<RunningServer> {
  const log = pino({ level: config.logLevel });
  const databaseUrl = await prepareDatabase(config.databaseUrl, log);
  const pool = openPool(databaseUrl, (error) =>
    log.warn({ code: (error as { code?: string }).code }, 'idle database connection lost'),
  );
  await refreshRollups(pool, (done, of) => log.info({ done, of }, 'rollups made again'));
  const live = new LiveHub(databaseUrl, () => log.warn('live connection lost, trying again'));
  await live.open();
  const now = options.now ?? Date.now;
  const posts = await openTransports(config, pool, now);
  const workers = openWorkers(databaseUrl, {
    pushes: options.pushThread !== false,
    onError: (error) => log.error({ err: error }, 'a thread ended; another takes its place'),
  });
  let listensAt = '';
  const app: AppContext = {
    pool,
    live,
    log,
    workers,
    tokens: new TokenCache(pool, now),
    formTokens: makeFormTokens(config.sessionSecret, config.secureCookies),
    seal: makeSeal(config.sessionSecret),
    provider: config.provider ? makeProvider(config.provider) : null,
    now,
    publicUrl: () => config.publicUrl ?? listensAt,
    standIns: posts.standIns,
    demoAccounts: config.demoAccounts,
  };
  const stopJobs = options.jobs === false ? () => Promise.resolve() : startJobs(app, posts);
  const express = createApp(app, config);
  const server = await new Promise<Server>((resolve, reject) => {
    const listening = express.listen(config.port, config.host, (error?: Error) =>
      error ? reject(error) : resolve(listening),
    );
  });
  server.keepAliveTimeout = IDLE_CONNECTION_MS;
  const { port } = server.address() as AddressInfo;
  listensAt = `http://${config.host}:${port}`;
  return {
    url: listensAt,
    app,
    posts,
    stop: async () => {
      const jobs = stopJobs();
      const closed = new Promise((resolve) => server.close(resolve));
      await live.close();
      const late = setTimeout(() => server.closeAllConnections(), STOP_WITHIN_MS);
      server.closeIdleConnections();
      await closed;
      clearTimeout(late);
      await jobs;
      await posts.close();
      await workers.close();
      await pool.end();
    },
  };
}
