import type { Request } from 'express';
import { csrfSync } from 'csrf-sync';
import { BeaconError } from '@vivid-beacon/core';

const { generateToken, isRequestValid } = csrfSync({
  getTokenFromRequest: (request) => request.headers['x-form-token'] as string | undefined,
});

/** The token a page must send with every change (synchroniser token pattern, OWASP). */
export function formToken(request: Request): string {
  return generateToken(request);
}

/** @throws {BeaconError} STALE_FORM if the request does not carry the session's token. */
export function checkFormToken(request: Request): void {
  if (!isRequestValid(request)) {
    throw new BeaconError('STALE_FORM', 'This page is out of date. Reload it and try again.');
  }
}
