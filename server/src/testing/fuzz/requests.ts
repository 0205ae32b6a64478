import fc, { type Arbitrary } from 'fast-check';
import { BYTES } from '@vivid-beacon/core/src/api/samples';
import type { Endpoint } from '../../http/endpoint';
import { changed } from './changed';
import { fromShape } from './fromShape';
import { WORLD_METRICS, type GoodBodies } from './goodBodies';
import { anyJson, oddText, someId } from './oddValues';
import { someCalendar, someExposition, someLines, somePart, somePush } from './oddTexts';

/** One request as it is sent. */
export interface OddRequest {
  /** "POST /api/…" as it stands in the list. */
  readonly endpoint: string;
  readonly method: string;
  readonly path: string;
  /** Who sends it: the administrator, somebody whose session may end, or a device with a token. */
  readonly as: 'administrator' | 'visitor' | 'device';
  readonly contentType?: string;
  readonly body?: string | Uint8Array<ArrayBuffer>;
}

type Body = Pick<OddRequest, 'contentType' | 'body'>;

/** Any request to any endpoint of the list. */
export function oddRequest(endpoints: readonly Endpoint[], good: GoodBodies): Arbitrary<OddRequest> {
  return fc.oneof(...endpoints.map((each) => requestTo(each, good)));
}

function requestTo(endpoint: Endpoint, good: GoodBodies): Arbitrary<OddRequest> {
  const method = endpoint.method.toUpperCase();
  const given = good[`${method} ${endpoint.path}`] ?? [];
  const body = method === 'GET' ? fc.constant<Body>({}) : bodyOf(endpoint, given);
  return fc
    .record({ path: pathOf(endpoint.path), query: queryOf(endpoint, given), body })
    .map(({ path, query, body: sent }) => ({
      endpoint: `${method} ${endpoint.path}`,
      method,
      path: path + query,
      as:
        endpoint.access === 'token'
          ? 'device'
          : endpoint.path === '/api/session'
            ? 'visitor'
            : 'administrator',
      ...sent,
    }));
}

function pathOf(path: string): Arbitrary<string> {
  const id = path.startsWith('/api/derived/') ? fc.oneof(fc.constant(DERIVED_ID), idInPath) : idInPath;
  const parts = path.split('/').map((part) => (part.startsWith(':') ? id : fc.constant(part)));
  return fc.tuple(...parts).map((each) => each.join('/'));
}

/** Derived metrics are numbered after those with samples. */
const DERIVED_ID = String(WORLD_METRICS + 1);

const idInPath: Arbitrary<string> = fc.oneof(
  { weight: 15, arbitrary: someId },
  {
    weight: 1,
    arbitrary: fc.oneof(oddText.map(encoded), fc.constantFrom('%E0%A4%A', '%00', '%2e%2e', '%ff')),
  },
);

function encoded(text: string): string {
  return encodeURIComponent(text.replace(/\p{Surrogate}/gu, '\ufffd')).slice(0, 2000);
}

function queryOf({ query, method }: Endpoint, good: readonly object[]): Arbitrary<string> {
  if (!query) return fc.constant('');
  const right =
    method === 'get' && good.length > 0 ? fc.constantFrom(...good).chain(changed) : fromShape(query);
  const fitting = fc.oneof(right, fromShape(query)).map((members) => {
    const address = new URLSearchParams();
    for (const [name, value] of Object.entries(members ?? {})) {
      if (value !== undefined)
        address.append(name, typeof value === 'object' ? JSON.stringify(value) : String(value));
    }
    return `?${address.toString()}`;
  });
  const odd = fc.constantFrom(
    '',
    '?',
    '?from=1&from=2',
    '?to[a]=1',
    '?metricIds=1,2&metricIds[]=3',
    '?from=%00&to=%ff',
  );
  return fc.oneof({ weight: 8, arbitrary: fitting }, { weight: 1, arbitrary: odd });
}

const json = (value: unknown): Body => ({
  contentType: 'application/json',
  body: JSON.stringify(value) ?? '',
});

function bodyOf({ body, content = [], access }: Endpoint, good: readonly object[]): Arbitrary<Body> {
  const kinds: Arbitrary<Body>[] = [anyJson.map(json)];
  if (body) kinds.push(...times(6, fromShape(body).map(json)));
  if (good.length > 0)
    kinds.push(
      ...times(
        8,
        fc
          .constantFrom(...good)
          .chain(changed)
          .map(json),
      ),
    );
  if (access === 'token') kinds.push(...times(3, somePush.map(json)));
  for (const type of content) {
    const sent = type === BYTES ? somePart.map((part) => part as Uint8Array<ArrayBuffer>) : textOf(type);
    kinds.push(
      ...times(
        4,
        (sent as Arbitrary<Body['body']>).map((each) => ({ contentType: type, body: each })),
      ),
    );
  }
  kinds.push(oddText.map((sent) => ({ contentType: 'application/json', body: sent })));
  return fc.oneof(...kinds);
}

function times<T>(n: number, arbitrary: Arbitrary<T>): Arbitrary<T>[] {
  return Array.from({ length: n }, () => arbitrary);
}

function textOf(type: string): Arbitrary<string> {
  if (type === 'text/calendar') return someCalendar;
  return type.endsWith('ndjson') ? someLines : someExposition;
}
