import { WorkerPool } from './workerPool';

let pool: WorkerPool;
const died: string[] = [];
beforeAll(() => {
  pool = new WorkerPool(
    new URL('../testing/oddTask.ts', import.meta.url),
    { threads: 1, waiting: 2 },
    ({ message }) => died.push(message),
  );
});
afterAll(() => pool.close());

describe('work in a thread of its own', () => {
  it('comes back, and a refusal as it was thrown', async () => {
    expect(await pool.run('double', 21)).toBe(42);
    await expect(pool.run('refuse', null)).rejects.toMatchObject({
      name: 'BeaconError',
      status: 429,
      message: 'Not now.',
      path: 'field',
      retryAfterS: 7,
    });
    await expect(pool.run('loseDatabase', null)).rejects.toMatchObject({ status: 503, retryAfterS: 2 });
    await expect(pool.run('fail', null)).rejects.toThrow('a mistake of the program');
  });

  it('is done by another thread after one has died or was ended', async () => {
    await expect(pool.run('die', null)).rejects.toThrow('nobody catches this');
    expect(await pool.run('double', 2)).toBe(4);
    await expect(pool.run('spin', 60_000, { signal: AbortSignal.timeout(50) })).rejects.toThrow(/abort/i);
    expect(await pool.run('double', 3)).toBe(6);
  });

  it('is refused when too much waits, and holds nobody here up', async () => {
    const underWay = pool.run('spin', 400);
    const waiting = [pool.run('double', 1), pool.run('double', 2)];
    await expect(pool.run('double', 3)).rejects.toMatchObject({ status: 429, retryAfterS: 5 });
    let turns = 0;
    let done = false;
    void underWay.then(() => (done = true));
    while (!done) {
      await new Promise((resolve) => setImmediate(resolve));
      turns++;
    }
    expect(turns).toBeGreaterThan(10);
    expect(await Promise.all(waiting)).toEqual([2, 4]);
  });
});
