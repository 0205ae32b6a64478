import { createCipheriv, createDecipheriv, hkdfSync, randomBytes } from 'node:crypto';

/** Keeps secrets that the server has to read again: whoever has the database alone cannot. */
export interface Seal {
  readonly close: (text: string) => Buffer;
  /** @returns undefined when it was closed with another secret, or changed. */
  readonly open: (sealed: Buffer) => string | undefined;
}

const NONCE_BYTES = 12;
const TAG_BYTES = 16;

/** AES-256-GCM (NIST SP 800-38D) with a key made of the server's secret (HKDF, RFC 5869): nonce, tag, ciphertext. */
export function makeSeal(secret: string): Seal {
  const key = Buffer.from(hkdfSync('sha256', secret, '', 'vivid beacon seal', 32));
  return {
    close: (text) => {
      const nonce = randomBytes(NONCE_BYTES);
      const cipher = createCipheriv('aes-256-gcm', key, nonce);
      const body = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
      return Buffer.concat([nonce, cipher.getAuthTag(), body]);
    },
    open: (sealed) => {
      try {
        const decipher = createDecipheriv('aes-256-gcm', key, sealed.subarray(0, NONCE_BYTES));
        decipher.setAuthTag(sealed.subarray(NONCE_BYTES, NONCE_BYTES + TAG_BYTES));
        const body = sealed.subarray(NONCE_BYTES + TAG_BYTES);
        return Buffer.concat([decipher.update(body), decipher.final()]).toString('utf8');
      } catch {
        return undefined;
      }
    },
  };
}
