import type { Request, Response } from 'express';
import { doubleCsrf } from 'csrf-csrf';
import { BeaconError } from '@vivid-beacon/core';

/** The token a page must send with every change (signed double-submit cookie, OWASP). */
export interface FormTokens {
  /** The token of this visit; a fresh one is set as a cookie where there is none that fits. Nothing is stored. */
  readonly issue: (request: Request, response: Response) => string;
  /** @throws {BeaconError} STALE_FORM if the request does not carry the token of its session. */
  readonly check: (request: Request) => void;
}

/** @param secret signs the tokens: 32 characters or more. @param secure cookies over HTTPS only. */
export function makeFormTokens(secret: string, secure: boolean): FormTokens {
  const { generateCsrfToken, validateRequest } = doubleCsrf({
    getSecret: () => secret,
    // Before signing in there is no session to bind it to; signing in gives another token.
    getSessionIdentifier: ({ session, sessionID }) => (session.personId ? sessionID : 'nobody'),
    getCsrfTokenFromRequest: ({ headers }) => headers['x-form-token'] as string | undefined,
    cookieName: 'vivid-beacon-form',
    cookieOptions: { httpOnly: true, sameSite: 'lax', secure },
  });
  return {
    issue: (request, response) => generateCsrfToken(request, response, { validateOnReuse: false }),
    check: (request) => {
      if (!validateRequest(request)) {
        throw new BeaconError('STALE_FORM', 'This page is out of date. Reload it and try again.');
      }
    },
  };
}
