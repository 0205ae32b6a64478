import { onTestServer } from '../testing/testServer';
import { changeAndNotify } from './changeAndNotify';
import { CHANNEL } from './notify';

const { test } = onTestServer('analyst');

/** Listens as every server does. @returns what was heard so far, and a function that ends it. */
async function listen(): Promise<{ heard: string[]; stop: () => void }> {
  const client = await test.server.app.pool.connect();
  const heard: string[] = [];
  client.on('notification', ({ payload }) => heard.push(payload ?? ''));
  await client.query(`listen ${CHANNEL}`);
  return {
    heard,
    stop: () => {
      client.removeAllListeners('notification');
      client.release(true);
    },
  };
}

const settle = () => new Promise((resolve) => setTimeout(resolve, 200));

describe('a change that is told', () => {
  it('is told once it is there, with the ids its work gave', async () => {
    const { pool } = test.server.app;
    const { heard, stop } = await listen();
    let during = -1;
    const id = await changeAndNotify(
      pool,
      ['logs', 'metrics'],
      async () => {
        await settle();
        during = heard.length;
        return '17';
      },
      (made) => [made],
    );
    await settle();
    stop();
    expect(id).toBe('17');
    expect(during).toBe(0);
    expect(heard.map((each) => JSON.parse(each) as unknown)).toEqual([
      { topic: 'logs', ids: ['17'] },
      { topic: 'metrics', ids: ['17'] },
    ]);
  });

  it('is not told when it fails', async () => {
    const { heard, stop } = await listen();
    const failing = changeAndNotify(test.server.app.pool, 'logs', () => Promise.reject(new Error('no')));
    await expect(failing).rejects.toThrow('no');
    await settle();
    stop();
    expect(heard).toEqual([]);
  });
});
