import type { Request, Response } from 'express';
import { SENT, type Sent } from '../http/endpoint';
import { BYTES } from '@vivid-beacon/core/src/api/samples';

/** Does the caller ask for columns of bytes? */
export function wantsColumns(request: Request): boolean {
  return (request.headers.accept ?? '').includes(BYTES);
}

/** Sends bytes, unless told otherwise those made by encodeColumns. */
export function sendColumns(response: Response, bytes: Uint8Array, type = BYTES): Sent {
  response.setHeader('Content-Type', type);
  response.end(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
  return SENT;
}
