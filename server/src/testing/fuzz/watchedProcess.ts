import { once } from 'node:events';
import { rightsEverywhere } from '@vivid-beacon/core';
import { openPool, type Pool } from '../../db/database';
import { hashPassword } from '../../people/passwords';
import { addPerson } from '../../people/sql';
import { startServerProcess } from '../serverProcess';
import { makeVisitor, PASSWORD, type Visitor } from '../testServer';
import { ADMINISTRATOR } from './goodBodies';
import type { ServerState } from './watchedServer';

/** A server that reports how long its thread is blocked, and the one person signed in there. */
export interface WatchedProcess {
  readonly url: string;
  readonly pool: Pool;
  readonly administrator: Visitor;
  /** @returns what it measured since the last call; `memory` collects garbage first. */
  readonly ask: (what: 'held' | 'memory') => Promise<ServerState>;
  readonly stop: () => Promise<void>;
}

/** Starts it in its own process, on an empty database. */
export async function startWatchedProcess(databaseUrl: string): Promise<WatchedProcess> {
  const { url, child } = await startServerProcess(databaseUrl, {
    program: 'server/src/testing/fuzz/watchedServer.ts',
    execArgv: ['--expose-gc'],
    env: { LOG_LEVEL: process.env.FUZZ_LOG ?? 'silent' },
  });
  const pool = openPool(databaseUrl, () => undefined);
  const passwordHash = await hashPassword(PASSWORD);
  await addPerson(pool, {
    email: ADMINISTRATOR,
    name: 'The administrator',
    rights: rightsEverywhere('administrator'),
    passwordHash,
    at: Date.now(),
  });
  const administrator = makeVisitor(url);
  await administrator.signIn(ADMINISTRATOR);
  return {
    url,
    pool,
    administrator,
    ask: (what) =>
      new Promise((resolve, reject) => {
        const gone = (code: number | null): void => reject(new Error(`The server ended with ${code}.`));
        child.once('exit', gone);
        child.once('message', (message: { state: ServerState }) => {
          child.removeListener('exit', gone);
          resolve(message.state);
        });
        child.send({ ask: what });
      }),
    stop: async () => {
      await pool.end();
      const ended = once(child, 'exit');
      child.disconnect();
      await ended;
    },
  };
}
