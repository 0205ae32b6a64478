import { TextDecoder, TextEncoder } from 'node:util';
import type { ReactElement } from 'react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { configure, render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { writeFrame, type WireError } from '@vivid-beacon/core';
import { checkExchange } from './checkExchange';
import { USUAL_METRIC } from './usual';

// Browsers have them; the stand-in has not.
Object.assign(globalThis, { TextDecoder, TextEncoder });

// What is hidden is not drawn here at all; asking the style sheet about every element takes seconds. And beside other
// tests an answer that leads to the next question may take more than the usual second.
configure({ defaultHidden: true, asyncUtilTimeout: 5000 });

/** What was sent to the server in a test. */
export interface Sent {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

/** An answer: JSON, or a refusal. */
export type Answer = unknown;

export class Refused {
  constructor(
    readonly status: number,
    readonly error: WireError,
  ) {}
}

/** An answer in bytes. */
export class Bytes {
  constructor(readonly bytes: Uint8Array<ArrayBuffer>) {}
}

/** Answers by "METHOD /path" (the path up to its question mark); a function is given what was sent. */
export type Answers = Readonly<Record<string, Answer | ((sent: Sent) => Answer)>>;

/**
 * Puts a stand-in for the server in the place of fetch. Readings that are asked for together are told, and answered,
 * as if each had been asked for by itself.
 *
 * @returns all that is sent from now on.
 */
export function standInServer(answers: Answers): Sent[] {
  const sent: Sent[] = [];
  const answerTo = (one: Sent): Answer => {
    const answer = given(one);
    const isJson = !(answer instanceof Refused || answer instanceof Bytes) && answer !== undefined;
    const said = isJson ? { json: JSON.parse(JSON.stringify(answer)) as unknown } : null;
    try {
      checkExchange(one, said, answer instanceof Refused);
    } catch (error) {
      // A screen would take it for an answer of the server and go on.
      differing.push((error as Error).message);
    }
    return answer;
  };
  const given = (one: Sent): Answer => {
    sent.push(one);
    const key = `${one.method} ${one.path.split('?')[0]}`;
    if (key === 'GET /api/assets/attributes' && !(key in answers))
      return attributesOf(listIn(answers, 'GET /api/assets'));
    if (key === 'GET /api/metrics/feeds' && !(key in answers))
      return countStates(listIn(answers, 'GET /api/metrics'));
    if (!(key in answers)) throw new Error(`The test has no answer for ${key}`);
    const found = answers[key];
    if (LISTS.has(key) && Array.isArray(found))
      return pageOf(found as Listed[], one.path, listIn(answers, 'GET /api/metrics'));
    return typeof found === 'function' ? (found as (sent: Sent) => Answer)(one) : found;
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

/** Long lists: a test gives all there are, and the stand-in answers as the server does. */
const LISTS: ReadonlySet<string> = new Set(['GET /api/metrics', 'GET /api/assets']);
type Listed = Readonly<Record<string, unknown>> & { readonly id: string };

function listIn(answers: Answers, key: string): readonly Listed[] {
  return (Array.isArray(answers[key]) ? answers[key] : []) as Listed[];
}

function pageOf(
  all: readonly Listed[],
  path: string,
  metrics: readonly Listed[],
): { items: readonly Listed[]; total: number } {
  const asked = new URLSearchParams(path.split('?')[1]);
  const rows = path.startsWith('/api/assets')
    ? all.map((each) => asTreeRow(each, all, metrics))
    : (asked.has('feeds') ? feedsOf(all) : all).map((each) => ({ ...USUAL_METRIC, ...each }));
  const found = rows.filter((each) =>
    [...asked].every(([name, value]) => {
      switch (name) {
        case 'ids':
          return value.split(',').includes(each.id);
        case 'search':
          return matches(each, value);
        case 'title':
          return value
            .toLowerCase()
            .split(/\s+/)
            .every((word) => String(each.title).toLowerCase().includes(word));
        case 'under':
          return ((each.path ?? [each.plantId, each.assetId]) as unknown[]).includes(value);
        case 'parentId':
          return (each.parentId ?? 'none') === value;
        case 'origin':
          return (each.origin ?? 'samples') === value;
        case 'state':
          return (each.health as { state: string }).state === value;
        case 'offset':
        case 'limit':
        case 'facts':
        case 'feeds':
          return true;
        default:
          return String(each[name]) === value;
      }
    }),
  );
  const offset = Number(asked.get('offset') ?? 0);
  return { items: found.slice(offset, offset + Number(asked.get('limit') ?? 50)), total: found.length };
}

/** Every word begins a word of the names, kind and facts. */
function matches({ name, kind, key, assetName, plantName, attributes }: Listed, search: string): boolean {
  const facts = Object.entries((attributes ?? {}) as object).flat();
  const own = [name, kind, key, assetName, plantName, ...facts]
    .join(' ')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u);
  const words = search.toLowerCase().split(/\s+/);
  return words.every((word) => own.some((each) => each.startsWith(word)));
}

/** An asset as the server gives it: with its way down and what hangs on it. */
function asTreeRow(asset: Listed, all: readonly Listed[], metrics: readonly Listed[]): Listed {
  const wayTo = (last: Listed | undefined): Listed[] => {
    const way: Listed[] = [];
    for (let at = last; at; at = all.find(({ id }) => id === at!.parentId)) way.unshift(at);
    return way;
  };
  const way = wayTo(asset);
  const troubled = metrics.filter(({ health }) => !FINE.has((health as { state?: string })?.state));
  return {
    kind: 'machine',
    plantId: way[0]?.id,
    parentId: null,
    ownZone: null,
    zone: 'Europe/London',
    attributes: {},
    path: way.map(({ id }) => id),
    title: way.map(({ name }) => name).join(' / '),
    children: all.filter(({ parentId }) => parentId === asset.id).length,
    metrics: metrics.filter(({ assetId }) => assetId === asset.id).length,
    troubled: troubled.filter(({ assetId }) => wayTo(all.find(({ id }) => id === assetId)).includes(asset))
      .length,
    ...asset,
  };
}

const FINE: ReadonlySet<string | undefined> = new Set([undefined, 'reporting', 'never']);
const FEEDS_IN_ORDER = ['silent', 'outOfRange', 'flat', 'clockAhead', 'never', 'reporting'];
const stateOf = ({ health }: Listed): string => (health as { state: string }).state;

function feedsOf(metrics: readonly Listed[]): Listed[] {
  return metrics
    .filter(({ origin }) => origin === 'samples')
    .sort((a, b) => FEEDS_IN_ORDER.indexOf(stateOf(a)) - FEEDS_IN_ORDER.indexOf(stateOf(b)));
}

function countStates(metrics: readonly Listed[]): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const each of feedsOf(metrics)) counts[stateOf(each)] = (counts[stateOf(each)] ?? 0) + 1;
  return counts;
}

function attributesOf(assets: readonly Listed[]): object[] {
  const found = new Map<string, Set<string | number>>();
  for (const { attributes } of assets) {
    for (const [name, value] of Object.entries((attributes ?? {}) as Record<string, string | number>)) {
      found.set(name, (found.get(name) ?? new Set()).add(value));
    }
  }
  return [...found].map(([name, values]) => ({ name, values: [...values].sort(), many: values.size > 60 }));
}

function joined(parts: readonly Uint8Array[]): Uint8Array<ArrayBuffer> {
  return Uint8Array.from(parts.flatMap((part) => [...part]));
}

function frameOf(index: number, answer: Answer): Uint8Array<ArrayBuffer> {
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

/** Draws a part of the app before a stand-in server. @returns the person at the keys, and what is sent. */
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
