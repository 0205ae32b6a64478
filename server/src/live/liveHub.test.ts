import { connect } from 'node:net';
import { listenTo, onTestServer } from '../testing/testServer';
import type { SessionState } from '@vivid-beacon/core';
import { notify } from './notify';

const { test, operator } = onTestServer('operator');

const listener = () => listenTo(test.url, operator);

describe('the live connection', () => {
  it('tells every viewer each change once and in order, whole however it is cut', async () => {
    const viewers = await Promise.all([listener(), listener(), listener()]);
    await Promise.all(viewers.map(({ until }) => until('event:hello')));
    for (let n = 1; n <= 20; n++) await notify(test.server.app.pool, 'boards', [String(n)]);
    for (const viewer of viewers) {
      const heard = await viewer.until('"ids":["20"]');
      const ids = [...heard.matchAll(/"topic":"boards","ids":\["(\d+)"\]/g)].map(([, id]) => Number(id));
      expect(ids).toEqual(Array.from({ length: 20 }, (_, i) => i + 1));
    }
    viewers.forEach(({ stop }) => stop());
  });

  it('goes on for the others when one leaves', async () => {
    const [stays, goes] = [await listener(), await listener()];
    await Promise.all([stays.until('event:hello'), goes.until('event:hello')]);
    goes.stop();
    await new Promise((done) => setTimeout(done, 50));
    await notify(test.server.app.pool, 'boards', ['left']);
    await stays.until('"ids":["left"]');
    stays.stop();
  });

  it('is for those who are signed in', async () => {
    expect((await fetch(`${test.url}/api/live`)).status).toBe(401);
  });

  it('is ended for a browser that reads nothing, and only for it', async () => {
    const good = await listener();
    await good.until('event:hello');
    const { hostname, port } = new URL(test.url);
    const deaf = connect({ host: hostname, port: Number(port) });
    const ended = new Promise((done) => deaf.once('close', done));
    deaf.on('error', () => undefined);
    deaf.write(`GET /api/live HTTP/1.1\r\nHost: ${hostname}\r\nCookie: ${operator.cookie()}\r\n\r\n`);
    await new Promise<void>((done) => deaf.once('data', () => done()));
    deaf.pause();
    // More than the buffers of both systems and the limit on waiting bytes.
    const long = Array.from({ length: 900 }, (_, i) => String(10 ** 18 + i));
    for (let n = 0; n < 800; n++) await notify(test.server.app.pool, 'boards', long);
    deaf.resume();
    await ended;
    await notify(test.server.app.pool, 'boards', ['after']);
    await good.until('"ids":["after"]');
    good.stop();
  }, 60_000);

  it('ends with its session, whichever server it was ended on', async () => {
    const [leaves, stays] = [await test.as('operator'), await listener()];
    const screen = await listenTo(test.url, leaves);
    await Promise.all([screen.until('event:hello'), stays.until('event:hello')]);
    expect((await leaves.call('DELETE', '/api/session')).status).toBe(204);
    await screen.ended;
    // One whose session is gone only from the database: it expired, or another server ended it.
    const other = await test.as('viewer');
    const over = await listenTo(test.url, other);
    await over.until('event:hello');
    await test.server.app.pool.query(`delete from session where sess ->> 'personId' <> $1`, [
      (await operator.call<SessionState>('GET', '/api/session')).body.person!.id,
    ]);
    await test.server.app.live.endOver(test.server.app.pool);
    await over.ended;
    await notify(test.server.app.pool, 'boards', ['still here']);
    expect(await stays.until('still here')).not.toContain('sessionEnded');
    stays.stop();
  });
});
