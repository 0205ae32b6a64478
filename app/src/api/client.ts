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
  if (!response.ok) throw await errorOf(response);
  return (await response.json()) as T;
}

/** Sends bytes, for example a part of a file. @throws {ApiError} */
export async function sendBytes(path: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
  const response = await reach(path, {
    method: 'POST',
    credentials: 'same-origin',
    headers: { 'content-type': 'application/octet-stream', 'x-form-token': formToken },
    body: bytes,
  });
  if (!response.ok) throw await errorOf(response);
}

/** Reads an answer in columns of bytes. @throws {ApiError} */
export async function readBytes(
  method: 'GET' | 'POST',
  path: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<ArrayBuffer> {
  const response = await reach(path, {
    method,
    signal,
    credentials: 'same-origin',
    headers: {
      accept: 'application/octet-stream',
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...(method === 'GET' ? {} : { 'x-form-token': formToken }),
    },
    body: body === undefined ? undefined : JSON.stringify(body),
  });
  if (!response.ok) throw await errorOf(response);
  return response.arrayBuffer();
}

/** Sends text of another kind than JSON and reads the JSON answer. @throws {ApiError} */
export async function sendText<T>(path: string, contentType: string, text: string): Promise<T> {
  const response = await reach(path, {
    method: 'POST',
    credentials: 'same-origin',
    headers: { 'content-type': contentType, 'x-form-token': formToken },
    body: text,
  });
  if (!response.ok) throw await errorOf(response);
  return (await response.json()) as T;
}

async function errorOf(response: Response): Promise<ApiError> {
  const answer: unknown = await response.json().catch(() => null);
  const error = (answer as { error?: WireError } | null)?.error;
  return new ApiError(
    error?.code ?? 'INTERNAL',
    error?.message ?? `The server answered with status ${response.status}.`,
    error?.path,
  );
}

async function send(method: Method, path: string, body: unknown, signal?: AbortSignal): Promise<Response> {
  return reach(path, {
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
}

async function reach(path: string, request: RequestInit): Promise<Response> {
  try {
    return await fetch(path, request);
  } catch (error) {
    if ((error as Error).name === 'AbortError') throw error;
    throw new ApiError('NO_CONNECTION', 'The server cannot be reached. Check the connection and try again.');
  }
}
