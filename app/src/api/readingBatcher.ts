import {
  FrameReader,
  MAX_REQUESTS,
  decodeQuery,
  decodeTrend,
  type Frame,
  type AskAnswer,
  type AskKind,
  type AskOf,
} from '@vivid-beacon/core';
import { errorFrom, readChunks, type ApiError } from './client';

/** How answers in columns are read. */
const COLUMNS: Readonly<Partial<Record<AskKind, (bytes: ArrayBuffer) => unknown>>> = {
  query: decodeQuery,
  trend: decodeTrend,
};

/**
 * How long a request waits for others, ms: less than a frame, and longer than the readouts of a board need to
 * mount.
 */
const WAIT_MS = 10;

interface Waiting {
  readonly kind: AskKind;
  readonly ask: object;
  readonly signal?: AbortSignal;
  readonly resolve: (answer: unknown) => void;
  readonly reject: (error: unknown) => void;
}

let waiting: Waiting[] = [];

/**
 * Requests a reading, batched with others of the same moment: one request per board, in which the server
 * reads each metric once. Each answer is delivered as soon as it arrives.
 *
 * @throws {ApiError} of this reading alone.
 */
export function askReading<Kind extends AskKind>(
  kind: Kind,
  ask: AskOf<Kind>,
  signal?: AbortSignal,
): Promise<AskAnswer<Kind>> {
  return new Promise<unknown>((resolve, reject) => {
    if (waiting.length === 0) setTimeout(sendWaiting, WAIT_MS);
    waiting.push({ kind, ask, signal, resolve, reject });
  }) as Promise<AskAnswer<Kind>>;
}

function sendWaiting(): void {
  // Whoever has gone on meanwhile is not asked for.
  const all = waiting.filter(({ signal, reject }) => {
    if (signal?.aborted) reject(signal.reason);
    return !signal?.aborted;
  });
  waiting = [];
  for (let i = 0; i < all.length; i += MAX_REQUESTS) void send(all.slice(i, i + MAX_REQUESTS));
}

async function send(asks: readonly Waiting[]): Promise<void> {
  const open = new Set(asks);
  const stop = new AbortController();
  for (const each of asks) {
    each.signal?.addEventListener('abort', () => {
      each.reject(each.signal!.reason);
      open.delete(each);
      // The last one that still wanted an answer.
      if (open.size === 0) stop.abort();
    });
  }
  const take = ({ index, status, columns, body }: Frame): void => {
    const { kind, resolve, reject } = asks[index];
    open.delete(asks[index]);
    try {
      if (columns) resolve(COLUMNS[kind]!(body.buffer));
      else if (status === 200) resolve(jsonOf(body));
      else reject(errorFrom(jsonOf(body), status));
    } catch (error) {
      reject(error);
    }
  };
  try {
    const body = { asks: asks.map(({ kind, ask }) => ({ kind, ask })) };
    const reader = new FrameReader();
    await readChunks('POST /api/readings', { body }, stop.signal, (chunk) =>
      reader.push(chunk).forEach(take),
    );
    if (open.size > 0) throw errorFrom(null, 200, 'The answer ended too early. Try again.');
  } catch (error) {
    for (const { reject } of open) reject(error as ApiError);
  }
}

function jsonOf(body: Uint8Array): unknown {
  return JSON.parse(new TextDecoder().decode(body));
}
