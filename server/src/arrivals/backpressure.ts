import type { Request, RequestHandler, Response } from 'express';
import { BeaconError } from '@vivid-beacon/core';
import type { UsedToken } from '../http/appContext';

/** Limits on pushes in progress: how many, how large, how slow. */
export interface BackpressureLimits {
  readonly requests: number;
  readonly bytes: number;
  /** Per token, so that slow bodies of one token do not block the others. */
  readonly ofOneToken: number;
  /** Longest time for a body to arrive, ms. */
  readonly bodyMs: number;
}

export const DEFAULT_BACKPRESSURE: BackpressureLimits = {
  requests: 24,
  bytes: 48_000_000,
  ofOneToken: 6,
  bodyMs: 10_000,
};
const WAIT_SECONDS = 1;
/** A body without a stated length is counted as this much. */
const UNKNOWN_BYTES = 5_000_000;

/** Two checks: one before anything is looked up, one once the token is known. */
export interface Backpressure {
  readonly outer: RequestHandler;
  readonly inner: RequestHandler;
}

/**
 * Back pressure: when more pushes are on their way than the server can hold, the next is answered 429 with Retry-After
 * (RFC 6585, section 4) before its token is looked up and its body read, so that neither memory nor the database is used.
 * A body that does not arrive in time is answered 408 and its connection closed (RFC 9110, section 15.5.9).
 */
export function backpressure(limits: BackpressureLimits): Backpressure {
  let requests = 0;
  let bytes = 0;
  const ofToken = new Map<string, number>();
  return {
    outer: (request, response, next) => {
      const size = Number(request.headers['content-length'] ?? UNKNOWN_BYTES);
      if (requests + 1 > limits.requests || (requests > 0 && bytes + size > limits.bytes))
        throw tooMany('at once');
      requests++;
      bytes += size;
      endSlowBody(request, response, limits.bodyMs);
      response.once('close', () => {
        requests--;
        bytes -= size;
      });
      next();
    },
    inner: (_request, response, next) => {
      const { id } = response.locals.token as UsedToken;
      const underWay = (ofToken.get(id) ?? 0) + 1;
      if (underWay > limits.ofOneToken) throw tooMany('with this token at once');
      ofToken.set(id, underWay);
      response.once('close', () => {
        const left = ofToken.get(id)! - 1;
        if (left === 0) ofToken.delete(id);
        else ofToken.set(id, left);
      });
      next();
    },
  };
}

function tooMany(how: string): BeaconError {
  return new BeaconError(
    'TOO_MANY',
    `Too many pushes ${how}. Send this one again after ${WAIT_SECONDS} s; nothing of it was taken.`,
    undefined,
    WAIT_SECONDS,
  );
}

function endSlowBody(request: Request, response: Response, bodyMs: number): void {
  const late = setTimeout(() => {
    if (request.complete || response.headersSent) return;
    const { status, code, message } = new BeaconError(
      'TOO_SLOW',
      `The body took longer than ${bodyMs / 1000} s. Send it again, in smaller parts; nothing of it was taken.`,
    );
    response.setHeader('Connection', 'close');
    response.status(status).json({ error: { code, message } });
    response.once('finish', () => request.destroy());
  }, bodyMs);
  response.once('close', () => clearTimeout(late));
}
