import { TextDecoder, TextEncoder } from 'node:util';
import type { ReactElement } from 'react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { configure, render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { writeFrame, type ErrorBody } from '@vivid-beacon/core';
import { checkExchange } from './checkExchange';
import { answerFromLists } from './standInLists';

// Browsers have them; the test page does not.
Object.assign(globalThis, { TextDecoder, TextEncoder });

// Hidden parts are not rendered here at all, and asking the style sheet about every element takes seconds.
// And with other tests running, an answer that leads to the next question may take longer than the usual
// second.
configure({ defaultHidden: true, asyncUtilTimeout: 5000 });

/** What was sent to the server in a test. */
export interface SentRequest {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

/** An answer: JSON, or a refusal. */
export type StandInAnswer = unknown;

export class Refused {
  constructor(
    readonly status: number,
    readonly error: ErrorBody,
  ) {}
}

/** An answer in bytes. */
export class Bytes {
  constructor(readonly bytes: Uint8Array<ArrayBuffer>) {}
}

/** Answers by "METHOD /path" (the path up to its question mark); a function is given what was sent. */
export type Answers = Readonly<Record<string, StandInAnswer | ((sent: SentRequest) => StandInAnswer)>>;

/**
 * Replaces fetch with a stand-in for the server. Readings requested together are recorded and answered as if
 * each had been requested by itself. @returns all that is sent from now on.
 */
export function standInServer(answers: Answers): SentRequest[] {
  const sent: SentRequest[] = [];
  const answerTo = (one: SentRequest): StandInAnswer => {
    const answer = given(one);
    const isJson = !(answer instanceof Refused || answer instanceof Bytes) && answer !== undefined;
    const said = isJson ? { json: JSON.parse(JSON.stringify(answer)) as unknown } : null;
    try {
      checkExchange(one, said, answer instanceof Refused);
    } catch (error) {
      // A screen would treat it as an answer of the server and continue.
      differing.push((error as Error).message);
    }
    return answer;
  };
  const given = (one: SentRequest): StandInAnswer => {
    sent.push(one);
    const key = `${one.method} ${one.path.split('?')[0]}`;
    const listed = answerFromLists(key, one.path, one.body, answers);
    if (listed) return listed;
    if (!(key in answers)) throw new Error(`The test has no answer for ${key}`);
    const found = answers[key];
    return typeof found === 'function' ? (found as (sent: SentRequest) => StandInAnswer)(one) : found;
  };
  globalThis.fetch = (async (path: string, request: RequestInit = {}) => {
    const body = typeof request.body === 'string' ? parsed(request.body) : request.body;
    if (path === '/api/readings') {
      const { asks } = body as { asks: readonly { kind: string; ask: unknown }[] };
      const frames = asks.map(({ kind, ask }, index) =>
        frameOf(index, answerTo({ method: 'POST', path: `${path}/${kind}`, body: ask })),
      );
      return { status: 200, ok: true, arrayBuffer: async () => joined(frames).buffer } as Response;
    }
    const answer = answerTo({ method: request.method ?? 'GET', path, body });
    if (answer instanceof Refused) return response(answer.status, { error: answer.error });
    if (answer instanceof Bytes) {
      return { status: 200, ok: true, arrayBuffer: async () => answer.bytes.buffer } as Response;
    }
    return answer === undefined ? response(204, null) : response(200, answer);
  }) as typeof fetch;
  return sent;
}

const differing: string[] = [];
afterEach(() => {
  expect(differing.splice(0)).toEqual([]);
});

function joined(parts: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  return Uint8Array.from(parts.flatMap((part) => [...part]));
}

function frameOf(index: number, answer: StandInAnswer): Uint8Array<ArrayBuffer> {
  if (answer instanceof Bytes) return writeFrame({ index, status: 200, columns: true, body: answer.bytes });
  const [status, said] = answer instanceof Refused ? [answer.status, { error: answer.error }] : [200, answer];
  const body = new TextEncoder().encode(JSON.stringify(said));
  return writeFrame({ index, status, columns: false, body });
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}

function response(status: number, body: unknown): Response {
  return { status, ok: status < 400, json: async () => body } as Response;
}

/** Renders a part of the app with a stand-in server. @returns the simulated user and what was sent. */
export function renderScreen(element: ReactElement, answers: Answers = {}) {
  const sent = standInServer(answers);
  const client = new QueryClient({
    defaultOptions: { queries: { retry: false }, mutations: { retry: false } },
  });
  const view = render(element, {
    wrapper: ({ children }) => <QueryClientProvider client={client}>{children}</QueryClientProvider>,
  });
  return { ...view, person: userEvent.setup(), sent, client };
}
