import { randomBytes } from 'node:crypto';
import pg from 'pg';

/** Makes an empty database of its own on a PostgreSQL server. @returns its address, and `drop`, which removes it. */
export async function scratchDatabase(
  serverUrl: string,
): Promise<{ readonly url: string; readonly drop: () => Promise<void> }> {
  const name = `test_${randomBytes(6).toString('hex')}`;
  const onServer = async (sql: string): Promise<void> => {
    const client = new pg.Client({ connectionString: serverUrl });
    await client.connect();
    await client.query(sql);
    await client.end();
  };
  await onServer(`create database ${name}`);
  return {
    url: serverUrl.replace(/\/[^/]*$/, `/${name}`),
    drop: () => onServer(`drop database ${name} with (force)`),
  };
}
