import type { RequestHandler } from 'express';
import { BeaconError } from '@vivid-beacon/core';

/** How much may be on its way at once. */
export interface GateLimits {
  readonly requests: number;
  readonly bytes: number;
}

export const USUAL_GATE: GateLimits = { requests: 24, bytes: 48_000_000 };
const WAIT_SECONDS = 1;
/** A body without a stated length is counted as this much. */
const UNKNOWN_BYTES = 5_000_000;

/**
 * Back pressure: when more pushes are on their way than the server can hold, the next is answered 429 with
 * Retry-After before its body is read, so that memory does not grow.
 */
export function pushGate(limits: GateLimits): RequestHandler {
  let requests = 0;
  let bytes = 0;
  return (request, response, next) => {
    const size = Number(request.headers['content-length'] ?? UNKNOWN_BYTES);
    if (requests + 1 > limits.requests || (requests > 0 && bytes + size > limits.bytes)) {
      throw new BeaconError(
        'TOO_MANY',
        `Too many pushes at once. Send this one again after ${WAIT_SECONDS} s; nothing of it was taken.`,
        undefined,
        WAIT_SECONDS,
      );
    }
    requests++;
    bytes += size;
    response.once('close', () => {
      requests--;
      bytes -= size;
    });
    next();
  };
}
