import { one, type Queryable } from './database';

/** Reads a fact about this installation. */
export async function readSetting<T>(db: Queryable, name: string): Promise<T | undefined> {
  return (await one<{ value: T }>(db, 'select value from setting where name = $1', [name]))?.value;
}

/** Writes a fact about this installation. */
export async function writeSetting(db: Queryable, name: string, value: unknown): Promise<void> {
  await db.query(
    'insert into setting (name, value) values ($1, $2::jsonb) on conflict (name) do update set value = excluded.value',
    [name, JSON.stringify(value)],
  );
}
