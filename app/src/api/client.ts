import type { WireError } from '@vivid-beacon/core';

/** What the server (or the way to it) answered when something could not be done. */
export class ApiError extends Error {
  constructor(
    readonly code: WireError['code'] | 'NO_CONNECTION',
    message: string,
    readonly path?: string,
  ) {
    super(message);
    this.name = 'ApiError';
  }
}

let formToken = '';

/** The token every change must carry; the session answer brings it. */
export function setFormToken(token: string): void {
  formToken = token;
}

type Method = 'GET' | 'POST' | 'PUT' | 'DELETE';

/**
 * Calls the server. @throws {ApiError} with words for the person.
 */
export async function call<T>(
  method: Method,
  path: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<T> {
  const response = await send(method, path, body, signal);
  if (response.status === 204) return undefined as T;
  const answer: unknown = await response.json().catch(() => null);
  if (response.ok) return answer as T;
  const error = (answer as { error?: WireError } | null)?.error;
  throw new ApiError(
    error?.code ?? 'INTERNAL',
    error?.message ?? `The server answered with status ${response.status}.`,
    error?.path,
  );
}

async function send(method: Method, path: string, body: unknown, signal?: AbortSignal): Promise<Response> {
  try {
    return await fetch(path, {
      method,
      signal,
      credentials: 'same-origin',
      headers: {
        accept: 'application/json',
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(method === 'GET' ? {} : { 'x-form-token': formToken }),
      },
      body: body === undefined ? undefined : JSON.stringify(body),
    });
  } catch (error) {
    if ((error as Error).name === 'AbortError') throw error;
    throw new ApiError('NO_CONNECTION', 'The server cannot be reached. Check the connection and try again.');
  }
}
