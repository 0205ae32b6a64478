import nodemailer from 'nodemailer';
import type { Config } from '../config';
import type { Pool } from '../db/database';
import type { Transports } from './send';
import { startMailCatcher } from './standIns/mailCatcher';
import { startTextCatcher } from './standIns/textCatcher';

const TIMEOUT_MS = 10_000;

/**
 * Opens the transports: an SMTP server and a text-message gateway that the configuration names, or the
 * stand-ins that ship with the product.
 */
export async function openTransports(
  config: Pick<Config, 'smtpUrl' | 'mailFrom' | 'textGatewayUrl' | 'textGatewayToken'>,
  pool: Pool,
  now: () => number,
): Promise<Transports> {
  const mailCatcher = config.smtpUrl ? null : await startMailCatcher(pool, now);
  const textCatcher = config.textGatewayUrl ? null : await startTextCatcher(pool, now);
  const transport = nodemailer.createTransport(config.smtpUrl ?? mailCatcher!.url, {
    connectionTimeout: TIMEOUT_MS,
    greetingTimeout: TIMEOUT_MS,
    socketTimeout: TIMEOUT_MS,
  } as object);
  const textUrl = config.textGatewayUrl ?? textCatcher!.url;
  const from = config.mailFrom ?? 'vivid-beacon@localhost';
  const domain = from.split('@').pop();
  return {
    mail: async ({ to, subject, text, messageId }) => {
      await transport.sendMail({ from, to, subject, text, messageId: `<${messageId}@${domain}>` });
    },
    text: (message) => postText(textUrl, config.textGatewayToken ?? null, message),
    standIns: { email: mailCatcher !== null, text: textCatcher !== null },
    close: async () => {
      transport.close();
      await mailCatcher?.stop();
      await textCatcher?.stop();
    },
  };
}

/** Posts `{ to, text }` as JSON with an Idempotency-Key, so that a repeat is not delivered twice. */
async function postText(
  url: string,
  token: string | null,
  { to, text, messageId }: { to: string; text: string; messageId: string },
): Promise<void> {
  const response = await fetch(url, {
    method: 'POST',
    headers: {
      'content-type': 'application/json',
      'idempotency-key': messageId,
      ...(token ? { authorization: `Bearer ${token}` } : {}),
    },
    body: JSON.stringify({ to, text }),
    signal: AbortSignal.timeout(TIMEOUT_MS),
  });
  if (!response.ok) throw new Error(`The text-message gateway answered ${response.status}.`);
}
