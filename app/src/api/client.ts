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

/** Reads an answer in bytes, chunk by chunk as they come. @throws {ApiError} */
export async function postForBytes(
  path: string,
  body: unknown,
  signal: AbortSignal,
  onChunk: (chunk: Uint8Array) => void,
): Promise<void> {
  const response = await send('POST', path, body, signal);
  if (!response.ok) throw await errorOf(response);
  if (!response.body) {
    onChunk(new Uint8Array(await response.arrayBuffer()));
    return;
  }
  const reader = response.body.getReader();
  try {
    for (let part = await reader.read(); !part.done; part = await reader.read()) onChunk(part.value);
  } catch (error) {
    throw lost(error);
  }
}

/** Reads an answer in columns of bytes. @throws {ApiError} */
export async function readBytes(path: string, signal?: AbortSignal): Promise<ArrayBuffer> {
  const headers = { accept: 'application/octet-stream' };
  const response = await reach(path, { method: 'GET', signal, credentials: 'same-origin', headers });
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
  return errorFrom(await response.json().catch(() => null), response.status);
}

/** What the server said went wrong. @param words where it said nothing. */
export function errorFrom(
  answer: unknown,
  status: number,
  words = `The server answered with status ${status}.`,
): ApiError {
  const error = (answer as { error?: WireError } | null)?.error;
  return new ApiError(error?.code ?? 'INTERNAL', error?.message ?? words, error?.path);
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
    throw lost(error);
  }
}

/** A connection that failed, unless somebody broke it off. */
function lost(error: unknown): unknown {
  if ((error as Error).name === 'AbortError') return error;
  return new ApiError('NO_CONNECTION', 'The server cannot be reached. Check the connection and try again.');
}
