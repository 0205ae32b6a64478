import { createHash, randomBytes } from 'node:crypto';
import type { Request } from 'express';
import { BeaconError } from '@vivid-beacon/core';
import type { AppContext, UsedToken } from '../http/appContext';

/** A token that is shown once, and its hash that is kept. */
export function makeToken(prefix = 'vb_'): { readonly token: string; readonly hash: Buffer } {
  const token = `${prefix}${randomBytes(32).toString('base64url')}`;
  return { token, hash: hashToken(token) };
}

/** A token has 256 random bits, so a fast hash is enough. */
export function hashToken(token: string): Buffer {
  return createHash('sha256').update(token).digest();
}

/** @throws {BeaconError} WRONG_TOKEN without a valid `Authorization: Bearer` header. */
export async function tokenOfRequest(app: AppContext, request: Request): Promise<UsedToken> {
  const found = /^Bearer (\S{1,200})$/.exec(request.headers.authorization ?? '');
  const token = found ? await app.tokens.find(hashToken(found[1])) : undefined;
  if (token === undefined) {
    throw new BeaconError(
      'WRONG_TOKEN',
      'This needs a push token in the header "Authorization: Bearer …". Make one under Data, Push tokens.',
    );
  }
  return token;
}
