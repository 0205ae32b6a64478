import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';
import type { Pool } from '../../db/database';
import { addCaught } from '../sql';

export interface Catcher {
  readonly url: string;
  readonly stop: () => Promise<void>;
}

/** A mail server on loopback that keeps what it gets for the outbox to show, and passes nothing on. */
export async function startMailCatcher(pool: Pool, now: () => number): Promise<Catcher> {
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onData: (stream, session, done) => {
      import('mailparser')
        .then(({ simpleParser }) => simpleParser(stream))
        .then(async (mail) => {
          await addCaught(pool, {
            channel: 'email',
            messageId: (mail.messageId ?? session.id).replace(/^<|@.*$/g, ''),
            sentTo: session.envelope.rcptTo.map(({ address }) => address).join(', '),
            subject: mail.subject ?? '',
            body: mail.text ?? '',
            at: now(),
          });
          done();
        })
        .catch((error: Error) => done(error));
    },
  });
  // A client that goes away in the middle is its own affair.
  server.on('error', () => undefined);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const { port } = server.server.address() as AddressInfo;
  return {
    url: `smtp://127.0.0.1:${port}`,
    stop: () => new Promise((resolve) => server.close(() => resolve())),
  };
}
