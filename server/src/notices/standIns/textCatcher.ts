import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import express from 'express';
import * as yup from 'yup';
import type { Pool } from '../../db/database';
import { addCaught } from '../sql';
import type { Catcher } from './mailCatcher';

const message = yup.object({
  to: yup.string().max(40).required(),
  text: yup.string().max(4000).required(),
});

/** A text-message gateway on loopback that keeps what it gets for the outbox to show, and passes nothing on. */
export async function startTextCatcher(pool: Pool, now: () => number): Promise<Catcher> {
  const app = express();
  app.use(express.json());
  app.post('/messages', async (request, response) => {
    const key = request.get('idempotency-key');
    const given = await message.validate(request.body).catch(() => null);
    if (!key || !given) {
      response.status(422).json({ error: 'A message has to, text and an Idempotency-Key.' });
      return;
    }
    await addCaught(pool, {
      channel: 'text',
      messageId: key,
      sentTo: given.to,
      subject: '',
      body: given.text,
      at: now(),
    });
    response.status(202).json({ taken: true });
  });
  const server = await new Promise<Server>((resolve) => {
    const listening = app.listen(0, '127.0.0.1', () => resolve(listening));
  });
  const { port } = server.address() as AddressInfo;
  return {
    url: `http://127.0.0.1:${port}/messages`,
    stop: () =>
      new Promise((resolve) => {
        server.closeAllConnections();
        server.close(() => resolve());
      }),
  };
}
