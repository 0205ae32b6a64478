import { connect } from 'node:net';
import type { AddressInfo } from 'node:net';
import type { Server } from 'node:http';
import express from 'express';
import type { AppContext } from '../http/appContext';
import { errorHandler } from '../http/errors';
import { hashToken } from '../tokens/tokenOfRequest';
import { TokenCache } from '../tokens/tokenCache';
import { backpressure, type BackpressureLimits } from './backpressure';

/* RFC 6585, section 4: 429; RFC 9110, sections 10.2.3: Retry-After, and 15.5.9: 408. */

const LIMITS: BackpressureLimits = { requests: 3, bytes: 1000, ofOneToken: 2, bodyMs: 200 };
let server: Server | undefined;
afterEach(() => {
  server?.closeAllConnections();
  server?.close();
});

/** A server whose pushes stay under way until they are let go; the header x-token names the token. */
async function gated(limits: BackpressureLimits) {
  const app = express();
  const { outer, inner } = backpressure(limits);
  const held: (() => void)[] = [];
  let lookedUp = 0;
  app.post(
    '/',
    outer,
    (request, response, next) => {
      lookedUp++;
      response.locals.token = { id: String(request.headers['x-token']) };
      next();
    },
    inner,
    express.text(),
    (_request, response) => {
      held.push(() => response.end('taken'));
    },
  );
  app.use(errorHandler({} as AppContext));
  server = await new Promise<Server>((resolve) => {
    const listening = app.listen(0, '127.0.0.1', () => resolve(listening));
  });
  const { port } = server.address() as AddressInfo;
  const send = (token: string, body = 'x'): Promise<Response> =>
    fetch(`http://127.0.0.1:${port}/`, { method: 'POST', body, headers: { 'x-token': token } });
  const waitFor = async (n: number): Promise<void> => {
    while (held.length < n) await new Promise((resolve) => setTimeout(resolve, 5));
  };
  return { port, send, waitFor, held, lookedUp: () => lookedUp };
}

describe('the gate before pushes', () => {
  it('answers 429 with Retry-After before anything is looked up, and opens again', async () => {
    const { send, waitFor, held, lookedUp } = await gated(LIMITS);
    const first = [send('a'), send('b'), send('c')];
    await waitFor(3);
    const refused = await send('d');
    expect([refused.status, refused.headers.get('retry-after')]).toEqual([429, '1']);
    expect(lookedUp()).toBe(3);
    held.splice(0).forEach((letGo) => letGo());
    for (const each of first) expect(await (await each).text()).toBe('taken');
    const later = send('d');
    await waitFor(1);
    held[0]();
    expect((await later).status).toBe(200);
  });

  it('counts bytes, and lets one through that is larger than all', async () => {
    const { send, waitFor, held } = await gated(LIMITS);
    const large = send('a', 'x'.repeat(5000));
    await waitFor(1);
    expect((await send('b')).status).toBe(429);
    held[0]();
    expect((await large).status).toBe(200);
  });

  it('lets other tokens through when one has as many under way as it may', async () => {
    const { send, waitFor, held } = await gated(LIMITS);
    const two = [send('a'), send('a')];
    await waitFor(2);
    const third = await send('a');
    expect([third.status, (await third.json()) as object]).toEqual([
      429,
      { error: { code: 'TOO_MANY', message: expect.stringContaining('with this token') } },
    ]);
    const other = send('b');
    await waitFor(3);
    held.forEach((letGo) => letGo());
    for (const each of [...two, other]) expect((await each).status).toBe(200);
  });

  it('ends a body that does not arrive in time with 408, and its place is free', async () => {
    const { port, send, waitFor, held } = await gated({ ...LIMITS, requests: 1 });
    const socket = connect(port, '127.0.0.1');
    let heard = '';
    socket.on('data', (bytes) => (heard += String(bytes)));
    const closed = new Promise((resolve) => socket.once('close', resolve));
    socket.write('POST / HTTP/1.1\r\nHost: x\r\nContent-Type: text/plain\r\nContent-Length: 100\r\n\r\nslow');
    await closed;
    expect(heard).toMatch(/^HTTP\/1.1 408 /);
    expect(heard).toContain('TOO_SLOW');
    const next = send('b');
    await waitFor(1);
    held[0]();
    expect((await next).status).toBe(200);
  });
});

describe('tokens looked up a moment ago', () => {
  it('are not asked for again, wrong ones neither, until one was changed here or the database failed', async () => {
    let asked = 0;
    let away = false;
    const query = async () => {
      asked++;
      if (away) throw new Error('Connection terminated');
      return { rows: [] };
    };
    const tokens = new TokenCache({ query } as never, Date.now);
    const hash = hashToken('vb_wrong');
    for (let i = 0; i < 50; i++) expect(await tokens.find(hash)).toBeUndefined();
    expect(asked).toBe(1);
    tokens.forget();
    away = true;
    await expect(tokens.find(hash)).rejects.toThrow('terminated');
    away = false;
    await tokens.find(hash);
    expect(asked).toBe(3);
  });
});
