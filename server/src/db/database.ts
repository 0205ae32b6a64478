import pg from 'pg';
import { currentOrigin } from './origin';

/** Anything statements can be sent to: the pool or one connection in a transaction. */
export type Queryable = Pick<pg.Pool, 'query'> | Pick<pg.PoolClient, 'query'>;
export type Pool = pg.Pool;

/** Compiling a plan takes up to a second, and no statement here runs that long. */
const NO_JIT = '-c jit=off';

/** The address of a database with which connections work with the rights of a role. */
export function withRole(connectionString: string, role: string): string {
  const url = new URL(connectionString);
  // What an address says goes before what the pool is given, so all options stand in it.
  const own = url.searchParams.get('options');
  url.searchParams.set('options', [own, NO_JIT, `-c role=${role}`].filter(Boolean).join(' '));
  return url.href;
}

/** Opens the pool. Connection errors of idle clients are told to `onError` and never crash the server. */
export function openPool(
  connectionString: string,
  onError: (error: Error) => void,
  { connections = 10, name = 'vivid-beacon' }: { connections?: number; name?: string } = {},
): Pool {
  const pool = new pg.Pool({
    connectionString,
    max: connections,
    application_name: name,
    // Whoever waits longer than this for a connection is told so.
    connectionTimeoutMillis: 5000,
    options: NO_JIT,
  });
  pool.on('error', onError);
  return pool;
}

/** Sees what was there when it began, whatever others add or remove meanwhile. */
export const AS_OF_NOW = 'isolation level repeatable read, read only';

/**
 * Runs `work` in one transaction: committed when it resolves, rolled back when it throws. What it changes stands in the trail
 * with the person whose request it is.
 */
export async function withTransaction<T>(
  pool: Pool,
  work: (db: pg.PoolClient) => Promise<T>,
  mode: '' | typeof AS_OF_NOW = '',
): Promise<T> {
  const client = await pool.connect();
  let broken: Error | undefined;
  // A connection that is lost between two statements must fail this transaction, not the whole server.
  const lost = (error: Error): void => {
    broken = error;
  };
  client.on('error', lost);
  try {
    await client.query(`begin ${mode}`);
    const origin = currentOrigin();
    if (origin) await client.query(`select set_config('beacon.origin', $1, true)`, [JSON.stringify(origin)]);
    const result = await work(client);
    await client.query('commit');
    return result;
  } catch (error) {
    await client.query('rollback').catch((failure: Error) => {
      broken = failure;
    });
    throw error;
  } finally {
    client.removeListener('error', lost);
    client.release(broken);
  }
}

/** Every row of a statement. */
export async function all<Row>(db: Queryable, text: string, values: unknown[] = []): Promise<Row[]> {
  return (await db.query(text, values)).rows as Row[];
}

/** Every row of a statement that runs so often that the database should prepare it once a connection. */
export async function allPrepared<Row>(
  db: Queryable,
  name: string,
  text: string,
  values: unknown[],
): Promise<Row[]> {
  return (await db.query({ name, text, values })).rows as Row[];
}

/** The first row of a statement, or undefined. */
export async function one<Row>(
  db: Queryable,
  text: string,
  values: unknown[] = [],
): Promise<Row | undefined> {
  return (await all<Row>(db, text, values))[0];
}
