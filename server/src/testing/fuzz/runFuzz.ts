import fc from 'fast-check';
import { ENDPOINTS } from '../../endpoints';
import { makeVisitor } from '../testServer';
import { oddRequest, type OddRequest } from './requests';
import { startWatchedProcess } from './watchedProcess';
import { makeWorld } from './world';

/** No answer may take longer, and the thread must not be held longer for one. */
export const SLOWEST_MS = 2000;
export const MAX_HELD_MS = 200;

/** A request with an answer that must not be. */
export interface Finding {
  readonly request: OddRequest;
  readonly status: number;
  readonly tookMs: number;
  readonly heldMs: number;
  readonly answer: string;
}

export interface FuzzSummary {
  readonly seed: number;
  readonly requests: number;
  /** Endpoints that never answered 2xx: the code behind their checks was not reached. */
  readonly neverReached: readonly string[];
  /** How many answers of 2xx, 4xx and so on. */
  readonly byClass: Readonly<Record<string, number>>;
  readonly slowestMs: number;
  readonly longestHeldMs: number;
  /** Memory in use, bytes, ten times over the run. */
  readonly memory: readonly number[];
  readonly findings: readonly Finding[];
}

/**
 * Sends odd requests, one after another, to the real server in its own process, on an empty database.
 *
 * @param seed the same seed sends the same requests.
 */
export async function runFuzz(
  databaseUrl: string,
  { requests, seed, onProgress }: { requests: number; seed: number; onProgress?: (done: number) => void },
): Promise<FuzzSummary> {
  const { url, pool, administrator, ask, stop } = await startWatchedProcess(databaseUrl);
  try {
    const visitor = makeVisitor(url);
    // Only for its form token: nobody is signed in.
    await visitor.signIn('nobody@test.example', 'not the password');
    const { good, token } = await makeWorld(url, pool, administrator);
    const headers = {
      administrator: administrator.headers(),
      visitor: visitor.headers(),
      device: { authorization: `Bearer ${token}` },
    };
    await ask('memory');
    const byClass: Record<string, number> = {};
    const memory: number[] = [];
    const findings: Finding[] = [];
    const asked = ENDPOINTS.filter(({ path: at }) => !SIGNS_OUT.includes(at));
    const neverReached = new Set(asked.map(({ method, path: at }) => `${method.toUpperCase()} ${at}`));
    let slowestMs = 0;
    let longestHeldMs = 0;
    const all = removingLast(fc.sample(oddRequest(asked, good), { numRuns: requests, seed }));
    for (const [i, request] of all.entries()) {
      const { status, tookMs, answer } = await send(url, request, headers[request.as]);
      const { longestMs: heldMs } = await ask('held');
      if (status >= 200 && status < 300) neverReached.delete(request.endpoint);
      const key = `${Math.floor(status / 100)}xx`;
      byClass[key] = (byClass[key] ?? 0) + 1;
      slowestMs = Math.max(slowestMs, tookMs);
      longestHeldMs = Math.max(longestHeldMs, heldMs);
      if (status >= 500 || status === 0 || tookMs > SLOWEST_MS || heldMs > MAX_HELD_MS) {
        findings.push({ request, status, tookMs, heldMs, answer });
      }
      if ((i + 1) % Math.ceil(requests / 10) === 0) {
        memory.push((await ask('memory')).heapUsed);
        onProgress?.(i + 1);
      }
    }
    return {
      seed,
      requests,
      byClass,
      slowestMs,
      longestHeldMs,
      memory,
      neverReached: [...neverReached],
      findings,
    };
  } finally {
    await stop();
  }
}

/**
 * Requests that remove something come in the last fifth; before that everything stays there to be requested.
 */
function removingLast(all: readonly OddRequest[]): OddRequest[] {
  const early = all.slice(0, all.length * 0.8);
  const removes = ({ method }: OddRequest): boolean => method === 'DELETE';
  const late = [...early.filter(removes), ...all.slice(early.length)];
  // Spread evenly, so that removed things are requested too.
  const step = Math.ceil(late.length / 7);
  const dealt = Array.from({ length: step }, (_, i) => late.filter((_each, k) => k % step === i)).flat();
  return [...early.filter((each) => !removes(each)), ...dealt];
}

/** Live messages stay open: the connection is closed after their head. */
async function send(
  url: string,
  { method, path: to, body, contentType }: OddRequest,
  headers: Readonly<Record<string, string>>,
): Promise<{ status: number; tookMs: number; answer: string }> {
  const began = performance.now();
  const stop = new AbortController();
  const late = setTimeout(() => stop.abort(), 60_000);
  try {
    const response = await fetch(url + to, {
      method,
      headers: { ...headers, ...(contentType === undefined ? {} : { 'content-type': contentType }) },
      body: method === 'GET' ? undefined : (body as BodyInit | undefined),
      signal: stop.signal,
    });
    const answered = performance.now() - began;
    const streams = response.headers.get('content-type') === 'text/event-stream';
    // A download takes as long as its reader, and this one does not read long ones to the end; what counts is
    // when it begins.
    const file = response.headers.has('content-disposition');
    const answer = streams ? '' : await beginningOf(response, file ? FILE_BYTES : Infinity);
    return { status: response.status, tookMs: file ? answered : performance.now() - began, answer };
  } catch (error) {
    // No answer at all: it crashed, broke off, or took a minute.
    return { status: 0, tookMs: performance.now() - began, answer: String((error as Error).cause ?? error) };
  } finally {
    clearTimeout(late);
    stop.abort();
  }
}

const FILE_BYTES = 100_000;
/** With the id of the person who asks it would end the session that all others need. */
const SIGNS_OUT = ['/api/accounts/:id/sessions', '/api/accounts/:id/second-factor'];

/** The first 300 characters of an answer, of which at most this many bytes are read. */
async function beginningOf(response: Response, mostBytes: number): Promise<string> {
  const parts: Uint8Array[] = [];
  let bytes = 0;
  const reader = response.body?.getReader();
  for (let next = await reader?.read(); next?.value && bytes < mostBytes; next = await reader?.read()) {
    parts.push(next.value);
    bytes += next.value.length;
  }
  await reader?.cancel();
  return Buffer.concat(parts).toString('utf8', 0, 300);
}
