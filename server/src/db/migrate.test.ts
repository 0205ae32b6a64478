import { mkdtemp, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { onTestServer } from '../testing/testServer';
import { migrate } from './migrate';

const { test } = onTestServer();

describe('migrate', () => {
  it('applies nothing the second time', async () => {
    expect(await migrate(test.owner)).toEqual([]);
  });

  it('refuses a changed or missing applied file, and a failing one leaves no trace', async () => {
    const pool = test.owner;
    await pool.query('delete from migration');
    const folder = await mkdtemp(path.join(os.tmpdir(), 'migrations-'));
    const write = (name: string, text: string): Promise<void> => writeFile(path.join(folder, name), text);
    await write('0001_one.sql', 'create table one (x int);');
    expect(await migrate(pool, folder)).toEqual(['0001_one.sql']);
    await write('0002_two.sql', 'create table two (x int); select nonsense;');
    await expect(migrate(pool, folder)).rejects.toThrow('nonsense');
    expect((await pool.query("select to_regclass('two') as two")).rows).toEqual([{ two: null }]);
    await write('0001_one.sql', 'create table one (y int);');
    await expect(migrate(pool, folder)).rejects.toThrow('was changed after it was applied');
    await expect(migrate(pool)).rejects.toThrow('the file is gone');
  });
});
