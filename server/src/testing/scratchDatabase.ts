import { randomBytes } from 'node:crypto';
import pg from 'pg';

export interface ScratchDatabase {
  readonly url: string;
  readonly drop: () => Promise<void>;
}

/**
 * Creates a separate database on a PostgreSQL server.
 *
 * @param template name of the database it begins as a copy of; default: empty.
 * @returns its address, and `drop`, which removes it.
 */
export async function scratchDatabase(serverUrl: string, template = 'template1'): Promise<ScratchDatabase> {
  const name = `test_${randomBytes(6).toString('hex')}`;
  await onServer(serverUrl, (client) => client.query(`create database ${name} template ${template}`));
  return {
    url: urlOf(serverUrl, name),
    drop: () =>
      onServer(serverUrl, async (client) => void (await client.query(`drop database ${name} with (force)`))),
  };
}

/** Any number, the same for all test processes. */
const ADVISORY_LOCK = 5_518_820_117;

/**
 * Creates a template database, once for all test processes: copying it takes a twentieth of the time.
 *
 * @param name changes with what `fill` makes. @param fill is given the address of the empty database.
 */
export async function templateDatabase(
  serverUrl: string,
  name: string,
  fill: (url: string) => Promise<void>,
): Promise<void> {
  await onServer(serverUrl, async (client) => {
    await client.query('select pg_advisory_lock($1::bigint)', [ADVISORY_LOCK]);
    const { rows } = await client.query<{ whole: boolean }>(
      'select datistemplate as whole from pg_database where datname = $1',
      [name],
    );
    if (rows[0]?.whole) return;
    // An incomplete one was left by an interrupted run.
    await client.query(`drop database if exists ${name} with (force)`);
    await client.query(`create database ${name}`);
    await fill(urlOf(serverUrl, name));
    await client.query(`alter database ${name} with is_template true`);
  });
}

/** A session's lock ends with its connection. */
async function onServer<T>(serverUrl: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: serverUrl });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

function urlOf(serverUrl: string, name: string): string {
  return serverUrl.replace(/\/[^/]*$/, `/${name}`);
}
