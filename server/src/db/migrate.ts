import { createHash } from 'node:crypto';
import { readFile, readdir } from 'node:fs/promises';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { one, withTransaction, type Pool, type Queryable } from './database';

export const MIGRATIONS_FOLDER = fileURLToPath(new URL('../../migrations', import.meta.url));

/** Any number, the same for all servers of this product. */
const ADVISORY_LOCK = 7_233_190_241;

interface Applied {
  readonly name: string;
  readonly checksum: string;
}

/**
 * Applies the numbered .sql files that are not applied yet, each in a transaction of its own, under an
 * advisory lock so that two servers starting at once do it once.
 *
 * Own code, because no migration runner we know keeps both: node-pg-migrate locks but has no checksums, postgrator
 * has checksums but does not lock (both from memory).
 *
 * @returns the names of the files applied now.
 * @throws if an applied file was changed or is gone, or a file fails (then it leaves no trace).
 */
export async function migrate(pool: Pool, folder = MIGRATIONS_FOLDER): Promise<string[]> {
  const files = (await readdir(folder)).filter((name) => /^\d{4}_\w+\.sql$/.test(name)).sort();
  const lock = await pool.connect();
  const now: string[] = [];
  try {
    await lock.query('select pg_advisory_lock($1::bigint)', [ADVISORY_LOCK]);
    await lock.query(
      'create table if not exists migration (name text primary key, checksum text not null, applied_at timestamptz not null default now())',
    );
    const { rows } = await lock.query<Applied>('select name, checksum from migration order by name');
    const applied = new Map(rows.map((row) => [row.name, row.checksum]));
    for (const name of applied.keys()) {
      if (!files.includes(name)) {
        throw new Error(
          `Migration ${name} is applied in this database, but the file is gone. Use the version of the program that has it.`,
        );
      }
    }
    for (const name of files) {
      const text = await readFile(path.join(folder, name), 'utf8');
      const checksum = createHash('sha256').update(text).digest('hex');
      const before = applied.get(name);
      if (before === checksum) continue;
      if (before !== undefined) {
        throw new Error(
          `Migration ${name} was changed after it was applied. Put it back as it was and add a new file instead.`,
        );
      }
      await withTransaction(pool, async (db) => {
        await db.query(text);
        await db.query('insert into migration (name, checksum) values ($1, $2)', [name, checksum]);
      });
      now.push(name);
    }
    if (now.length > 0 || !(await hasRights(lock))) await grantToApplication(lock);
    return now;
  } finally {
    await lock.query('select pg_advisory_unlock($1::bigint)', [ADVISORY_LOCK]).catch(() => undefined);
    lock.release();
  }
}

/**
 * The role with which everything but migrations works: it reads and writes all tables, and can only read the trail. It belongs to
 * the whole cluster, so that all databases of it share it.
 */
export const APPLICATION_ROLE = 'vivid_beacon_application';

/** Makes the role where that is allowed, and gives it its rights in this database. */
async function grantToApplication(db: Queryable): Promise<void> {
  await db.query(`do $$ begin
    if not exists (select from pg_roles where rolname = '${APPLICATION_ROLE}') then
      create role ${APPLICATION_ROLE} nologin;
    end if;
    execute format('grant ${APPLICATION_ROLE} to %I', current_user);
  exception when insufficient_privilege or duplicate_object or unique_violation then null;
  end $$`);
  if (!(await applicationRole(db))) return;
  await db.query(`grant usage on schema public to ${APPLICATION_ROLE};
    grant select, insert, update, delete on all tables in schema public to ${APPLICATION_ROLE};
    grant usage on all sequences in schema public to ${APPLICATION_ROLE};
    do $$ begin if to_regclass('trail') is not null then
      revoke insert, update, delete on trail, trail_start from ${APPLICATION_ROLE};
    end if; end $$`);
}

/** Whether the role is there and has its rights: not so in a database that was restored into another cluster. */
async function hasRights(db: Queryable): Promise<boolean> {
  if (!(await applicationRole(db))) return false;
  const row = await one<{ has: boolean | null }>(
    db,
    `select has_table_privilege('${APPLICATION_ROLE}', to_regclass('person'), 'insert') as has`,
  );
  return row!.has !== false;
}

/** The role to work with; undefined where the database has none and this user may not make one. */
export async function applicationRole(db: Queryable): Promise<string | undefined> {
  const row = await one<object>(
    db,
    `select from pg_roles where rolname = '${APPLICATION_ROLE}' and pg_has_role(current_user, oid, 'member')`,
  );
  return row && APPLICATION_ROLE;
}
