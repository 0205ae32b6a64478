import { readFileSync } from 'node:fs';
import pg from 'pg';
import { rightsEverywhere } from '@vivid-beacon/core';
import { addPerson, addToken, hashPassword, hashToken, makeToken, openPool } from '@vivid-beacon/server';
import { startServerProcess } from '@vivid-beacon/server/src/testing/serverProcess';
import { makeVisitor } from '@vivid-beacon/server/src/testing/testServer';

/** The real server program in a process of its own, on a scratch database. */
export interface BenchServer {
  readonly url: string;
  readonly databaseUrl: string;
  readonly pool: ReturnType<typeof openPool>;
  readonly token: string;
  readonly headers: Readonly<Record<string, string>>;
  /** Resident memory of the server, bytes. */
  readonly memory: () => number;
  /** Processor time the server has used, s. */
  readonly cpu: () => number;
  readonly stop: () => Promise<void>;
}

/** @param base address of a PostgreSQL server in which a database may be made. */
export async function startBenchServer(base: string): Promise<BenchServer> {
  const name = `bench_${Date.now()}`;
  const admin = new pg.Client({ connectionString: base });
  await admin.connect();
  await admin.query(`create database ${name}`);
  const databaseUrl = base.replace(/\/[^/]*$/, `/${name}`);
  const { url, child } = await startServerProcess(databaseUrl, {
    env: { LOG_LEVEL: 'error', NODE_ENV: 'production' },
  });
  const pool = openPool(databaseUrl, () => undefined);
  const personId = await addPerson(pool, {
    email: 'bench@bench.example',
    name: 'Bench',
    rights: rightsEverywhere('administrator'),
    passwordHash: await hashPassword('a long enough password'),
    at: Date.now(),
  });
  const { token, hash } = makeToken();
  await addToken(pool, {
    name: 'Bench',
    hash: hash ?? hashToken(token),
    createdBy: personId,
    at: Date.now(),
  });
  const visitor = makeVisitor(url);
  await visitor.signIn('bench@bench.example', 'a long enough password');
  return {
    url,
    databaseUrl,
    pool,
    token,
    headers: visitor.headers(),
    memory: () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))![1]) * 1024,
    cpu: () => {
      // Fields 14 and 15, in hundredths of a second, after the name in parentheses.
      const fields = readFileSync(`/proc/${child.pid}/stat`, 'utf8').split(') ')[1].split(' ');
      return (Number(fields[11]) + Number(fields[12])) / 100;
    },
    stop: async () => {
      const ended = new Promise((resolve) => child.once('exit', resolve));
      child.kill('SIGTERM');
      await ended;
      await pool.end();
      await admin.query(`drop database ${name} with (force)`);
      await admin.end();
    },
  };
}
