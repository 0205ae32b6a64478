import type { ErrorRequestHandler } from 'express';
import * as yup from 'yup';
import { BeaconError, isStorable, type ErrorBody } from '@vivid-beacon/core';
import { databaseAway, isDatabaseAway } from '../db/databaseAway';
import type { AppContext } from './appContext';

/** Whether a member of this name would shadow a method of every object. */
function hidesBuiltIn(name: string): boolean {
  return name in Object.prototype || name === 'prototype';
}

const DEEPEST = 100;

function refuseOddMembers(value: unknown, path: string, depth = 0): void {
  if (typeof value === 'string' && !isStorable(value)) throw unstorable(path);
  if (typeof value !== 'object' || value === null) return;
  if (depth > DEEPEST) {
    throw new BeaconError(
      'BAD_INPUT',
      `The request is nested more than ${DEEPEST} levels deep.`,
      path.slice(0, 60),
    );
  }
  for (const [key, member] of Object.entries(value)) {
    const place = Array.isArray(value) ? `${path}[${key}]` : path === '' ? key : `${path}.${key}`;
    if (!isStorable(key)) throw unstorable(path);
    if (!Array.isArray(value) && hidesBuiltIn(key))
      throw new BeaconError('BAD_INPUT', `A member must not be named "${key}".`, place);
    refuseOddMembers(member, place, depth + 1);
  }
}

function unstorable(path: string): BeaconError {
  return new BeaconError(
    'BAD_INPUT',
    'A text must not hold the character U+0000 or half a surrogate pair.',
    path.slice(0, 60) || undefined,
  );
}

/** Checks input against its schema; what is wrong is named by field. */
export async function checked<T>(schema: yup.ISchema<T>, value: unknown): Promise<T> {
  refuseOddMembers(value, '');
  try {
    return await schema.validate(value, { abortEarly: true, strict: false, stripUnknown: false });
  } catch (error) {
    if (error instanceof yup.ValidationError) {
      throw new BeaconError('BAD_INPUT', error.errors[0], error.path || undefined);
    }
    throw error;
  }
}

/** The only place that turns errors into responses: `{ error: { code, message, path } }`. */
export function errorHandler(app: AppContext): ErrorRequestHandler {
  return (error: unknown, request, response, next) => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const { status, body, retryAfterS } = toAnswer(app, error, request.path);
    if (retryAfterS !== undefined) response.setHeader('Retry-After', String(retryAfterS));
    response.status(status).json(body);
  };
}

/** An error as sent to the client; internal errors go to the log. */
export function toAnswer(
  app: AppContext,
  error: unknown,
  path: string,
): { status: number; body: { error: ErrorBody }; retryAfterS?: number } {
  const known = asBeaconError(error);
  if (known.code === 'NOT_READY') app.log.warn({ url: path }, known.message);
  else if (known.status >= 500) app.log.error({ err: error, url: path }, 'request failed');
  return {
    status: known.status,
    body: { error: { code: known.code, message: known.message, path: known.path } },
    retryAfterS: known.retryAfterS,
  };
}

function asBeaconError(error: unknown): BeaconError {
  if (error instanceof BeaconError) return error;
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.parse.failed') {
    return new BeaconError('BAD_SHAPE', `The request is not valid JSON: ${(error as Error).message}.`);
  }
  if (type === 'entity.too.large') {
    const { limit, length } = error as { limit?: number; length?: number };
    return new BeaconError(
      'TOO_LARGE',
      `The request may have at most ${limit} bytes, got ${length}. Send it in parts.`,
    );
  }
  if (status && status >= 400 && status < 500) {
    return new BeaconError('BAD_SHAPE', (error as Error).message);
  }
  if (isDatabaseAway(error)) return databaseAway();
  return new BeaconError(
    'INTERNAL',
    'The server could not finish this. Try again; if it stays, tell the administrator.',
  );
}
