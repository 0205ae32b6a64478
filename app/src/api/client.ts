import type { Address, AnswerOf, Api, CallOf, ErrorBody } from '@vivid-beacon/core';

/** An error of the server or the connection. */
export class ApiError extends Error {
  constructor(
    readonly code: ErrorBody['code'] | 'NO_CONNECTION',
    message: string,
    readonly path?: string,
  ) {
    super(message);
    this.name = 'ApiError';
  }
}

/** Whether something is gone, or not this person's any more: what was read of it before is not shown any further. */
export const isGone = (error: Error | null): boolean =>
  error instanceof ApiError && (error.code === 'NOT_FOUND' || error.code === 'NOT_ALLOWED');

let formToken = '';

/** CSRF token for every change; it comes with the session. */
export function setFormToken(token: string): void {
  formToken = token;
}

const BYTES = 'application/octet-stream';

/** Path parameters, query and body; the contract says which exist. */
interface Parts {
  readonly params?: Readonly<Record<string, string>>;
  readonly query?: object;
  readonly body?: unknown;
}

type Ask<A extends keyof Api> = CallOf<A, Api[A]>;
/** No argument if the contract takes none. */
type AskAndSignal<A extends keyof Api> =
  object extends Ask<A> ? [ask?: Ask<A> | null, signal?: AbortSignal] : [ask: Ask<A>, signal?: AbortSignal];

/**
 * Calls an endpoint.
 *
 * @example const { alarm } = await call('GET /api/alarms/:id', { params: { id: '7' } });
 * @throws {ApiError} with a message for the user.
 */
export async function call<A extends keyof Api>(
  address: A,
  ...[ask, signal]: AskAndSignal<A>
): Promise<AnswerOf<Api[A]>> {
  const response = await send(address, ask ?? {}, { signal });
  return (response.status === 204 ? undefined : await response.json()) as AnswerOf<Api[A]>;
}

/** Sends a body other than JSON, for example part of a file. @throws {ApiError} */
export async function sendContent<A extends keyof Api>(
  address: A,
  ask: Ask<A>,
  content: { readonly type: string; readonly data: string | Uint8Array<ArrayBuffer> },
): Promise<AnswerOf<Api[A]>> {
  const response = await send(address, ask, { content });
  return (response.status === 204 ? undefined : await response.json()) as AnswerOf<Api[A]>;
}

/** Reads a binary response. @throws {ApiError} */
export async function readBytes<A extends keyof Api>(
  address: A,
  ask: Ask<A>,
  signal?: AbortSignal,
): Promise<ArrayBuffer> {
  return (await send(address, ask, { signal, accept: BYTES })).arrayBuffer();
}

/** Reads a binary response chunk by chunk. @throws {ApiError} */
export async function readChunks<A extends keyof Api>(
  address: A,
  ask: Ask<A>,
  signal: AbortSignal,
  onChunk: (chunk: Uint8Array) => void,
): Promise<void> {
  const response = await send(address, ask, { signal });
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

/** URL of an endpoint for a link, with its parameters. */
export const linkTo = <A extends keyof Api>(address: A, ask: Ask<A>): string => filledIn(address, ask);

/** Undefined, null and empty values are left out. */
function filledIn(address: Address, { params = {}, query }: Parts): string {
  const path = address.slice(address.indexOf(' ') + 1).replace(/:(\w+)/g, (_, id: string) => params[id]);
  const search = new URLSearchParams();
  for (const [name, value] of Object.entries(query ?? {})) {
    if (value !== undefined && value !== null && value !== '') search.set(name, String(value));
  }
  const text = search.toString();
  return text === '' ? path : `${path}?${text}`;
}

/** The error of a response. @param words fallback message. */
export function errorFrom(
  answer: unknown,
  status: number,
  words = `The server answered with status ${status}.`,
): ApiError {
  const error = (answer as { error?: ErrorBody } | null)?.error;
  return new ApiError(error?.code ?? 'INTERNAL', error?.message ?? words, error?.path);
}

interface How {
  readonly signal?: AbortSignal;
  readonly accept?: string;
  readonly content?: { readonly type: string; readonly data: string | Uint8Array<ArrayBuffer> };
}

async function send(
  address: Address,
  parts: Parts,
  { signal, accept = 'application/json', content }: How,
): Promise<Response> {
  const method = address.slice(0, address.indexOf(' '));
  const isJson = content === undefined && parts.body !== undefined;
  const type = isJson ? 'application/json' : content?.type;
  const response = await reach(filledIn(address, parts), {
    method,
    signal,
    credentials: 'same-origin',
    headers: {
      accept,
      ...(type === undefined ? {} : { 'content-type': type }),
      ...(method === 'GET' ? {} : { 'x-form-token': formToken }),
    },
    body: isJson ? JSON.stringify(parts.body) : content?.data,
  });
  if (!response.ok) throw errorFrom(await response.json().catch(() => null), response.status);
  return response;
}

async function reach(path: string, request: RequestInit): Promise<Response> {
  try {
    return await fetch(path, request);
  } catch (error) {
    throw lost(error);
  }
}

/** A failed connection, unless it was aborted. */
function lost(error: unknown): unknown {
  if ((error as Error).name === 'AbortError') return error;
  return new ApiError('NO_CONNECTION', 'The server cannot be reached. Check the connection and try again.');
}
