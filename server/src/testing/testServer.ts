import { createHash, randomBytes } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import path from 'node:path';
import { hash } from '@node-rs/argon2';
import { emptyBalance } from '@vivid-beacon/core/src/intakeFiles';
import {
  encodeColumns,
  rightsEverywhere,
  type Alarm,
  type PageOf,
  type Person,
  type Role,
  type SessionState,
} from '@vivid-beacon/core';
import type { Config } from '../config';
import { openPool, type Pool } from '../db/database';
import { migrate, MIGRATIONS_FOLDER } from '../db/migrate';
import { addPerson } from '../people/sql';
import { runServer, type RunningServer } from '../runServer';
import { checkAnswer } from './checkAnswer';
import { scratchDatabase, templateDatabase } from './scratchDatabase';

/** Noon of a winter day; tests move it on. */
export const TEST_NOW = Date.UTC(2026, 10, 19, 12, 0);

/** One person's access to the server, with cookie and form token. */
export interface Visitor {
  readonly call: <T = unknown>(
    method: string,
    path: string,
    body?: unknown,
  ) => Promise<{ status: number; body: T }>;
  readonly signIn: (email: string, password?: string) => Promise<{ status: number; body: SessionState }>;
  readonly cookie: () => string;
  /** Cookie and form token, for requests sent otherwise. */
  readonly headers: () => Record<string, string>;
}

export interface TestServer {
  readonly url: string;
  readonly databaseUrl: string;
  readonly server: RunningServer;
  readonly clock: { now: number };
  readonly visitor: () => Visitor;
  /** A visitor signed in with this role. */
  readonly as: (role: Role) => Promise<Visitor>;
  /** The database with the rights of its owner; what the server itself works with has fewer. */
  readonly owner: Pool;
  readonly stop: () => Promise<void>;
}

export const PASSWORD = 'a long enough password';

function baseUrl(): string {
  const url = process.env.TEST_DATABASE_URL;
  if (!url)
    throw new Error('TEST_DATABASE_URL is missing. Run the tests with "npm test", which starts PostgreSQL.');
  return url;
}

/** The weakest settings argon2id accepts: signing in during tests proves nothing about password storage. */
const QUICK = { memoryCost: 8, timeCost: 1, parallelism: 1 };

let template: Promise<string> | undefined;

/** A migrated database with one person a role, for every test server to begin with. @returns its name. */
function peopledTemplate(): Promise<string> {
  template ??= (async () => {
    const name = `template_${await hashOfMigrations()}`;
    await templateDatabase(baseUrl(), name, async (url) => {
      const pool = openPool(url, () => undefined);
      await migrate(pool);
      const passwordHash = await hash(PASSWORD, QUICK);
      for (const role of ['viewer', 'operator', 'analyst', 'administrator'] as const) {
        await addPerson(pool, {
          email: `${role}@test.example`,
          name: `The ${role}`,
          rights: rightsEverywhere(role),
          passwordHash,
          at: TEST_NOW,
        });
      }
      await pool.end();
    });
    return name;
  })();
  return template;
}

async function hashOfMigrations(): Promise<string> {
  const all = createHash('sha256');
  for (const name of (await readdir(MIGRATIONS_FOLDER)).sort()) {
    all.update(name).update(await readFile(path.join(MIGRATIONS_FOLDER, name)));
  }
  return all.digest('hex').slice(0, 12);
}

/** A server on a free port with a database of its own in the real PostgreSQL, and one person a role. */
export async function startTestServer({
  through = (url) => url,
  config = {},
}: {
  /** Settings that are not as usual in tests. */
  config?: Partial<Config>;
  /** Puts a proxy between the server and its database. */
  through?: (url: string) => string | Promise<string>;
} = {}): Promise<TestServer> {
  const database = await scratchDatabase(baseUrl(), await peopledTemplate());
  const databaseUrl = database.url;
  const clock = { now: TEST_NOW };
  const server = await runServer(
    {
      databaseUrl: await through(databaseUrl),
      host: '127.0.0.1',
      port: 0,
      sessionSecret: 'x'.repeat(40),
      secureCookies: false,
      webFolder: null,
      demoAccounts: [],
      logLevel: 'silent',
      ...config,
    },
    // Tests run the background jobs themselves, so that they know when. The thread for pushes has its own
    // tests.
    { now: () => clock.now, jobs: false, pushThread: false },
  );
  const visitor = (): Visitor => makeVisitor(server.url);
  const owner = openPool(databaseUrl, () => undefined, { connections: 2 });
  return {
    owner,
    url: server.url,
    databaseUrl,
    server,
    clock,
    visitor,
    as: async (role) => {
      const one = visitor();
      await one.signIn(`${role}@test.example`);
      return one;
    },
    stop: async () => {
      await owner.end();
      await server.stop();
      await database.drop();
    },
  };
}

/**
 * A test server for all tests of a file, with one visitor a role. The returned values can be used inside
 * tests and hooks, not at the top of the file.
 */
export function onTestServer<R extends Role>(
  ...roles: R[]
): { readonly test: TestServer } & Record<R, Visitor> {
  const standing = new Map<string, object>();
  beforeAll(async () => {
    const test = await startTestServer();
    standing.set('test', test);
    for (const role of roles) standing.set(role, await test.as(role));
  });
  afterAll(() => (standing.get('test') as TestServer | undefined)?.stop());
  const later = (name: string): object =>
    new Proxy({}, { get: (_, key) => Reflect.get(standing.get(name)!, key) as unknown });
  return Object.fromEntries(['test', ...roles].map((name) => [name, later(name)])) as ReturnType<
    typeof onTestServer<R>
  >;
}

export function makeVisitor(url: string): Visitor {
  const cookies = new Map<string, string>();
  const cookie = (): string => [...cookies].map(([name, value]) => `${name}=${value}`).join('; ');
  let formToken = '';
  const own = (): Record<string, string> => ({
    ...(cookies.size > 0 ? { cookie: cookie() } : {}),
    ...(formToken ? { 'x-form-token': formToken } : {}),
  });
  const call: Visitor['call'] = async (method, path, body) => {
    const response = await fetch(url + path, {
      method,
      headers: {
        ...own(),
        ...(body === undefined
          ? {}
          : { 'content-type': body instanceof Uint8Array ? 'application/octet-stream' : 'application/json' }),
      },
      body:
        body === undefined
          ? undefined
          : typeof body === 'string' || body instanceof Uint8Array
            ? (body as BodyInit)
            : JSON.stringify(body),
    });
    for (const set of response.headers.getSetCookie()) {
      const [, name, value] = /^([^=]+)=([^;]*)/.exec(set)!;
      cookies.set(name, value);
    }
    const text = await response.text();
    const contentType = response.headers.get('content-type') ?? '';
    const said =
      text === '' ? undefined : contentType.startsWith('application/json') ? JSON.parse(text) : text;
    checkAnswer(method, path, { status: response.status, contentType, body: said });
    // A session that goes on under a new id has another token.
    formToken = said?.session?.csrfToken ?? said?.csrfToken ?? formToken;
    return { status: response.status, body: said };
  };
  return {
    call,
    cookie,
    headers: own,
    signIn: async (email, password = PASSWORD) => {
      const before = await call<SessionState>('GET', '/api/session');
      formToken = before.body.csrfToken;
      const answer = await call<SessionState>('POST', '/api/session', { email, password });
      if (answer.status === 200) formToken = answer.body.csrfToken;
      return answer;
    },
  };
}

/** A screen that listens to live messages: everything it has heard so far, and a function that closes it. */
export async function listenTo(
  url: string,
  visitor: Visitor,
): Promise<{
  /** Waits until it has heard a text. @throws after 10 s. */
  readonly until: (text: string) => Promise<string>;
  /** Resolves when the server has ended the connection. */
  readonly ended: Promise<void>;
  readonly stop: () => void;
}> {
  const stop = new AbortController();
  const response = await fetch(`${url}/api/live`, { headers: visitor.headers(), signal: stop.signal });
  let heard = '';
  const reader = response.body!.getReader();
  const read = async (): Promise<void> => {
    for (;;) {
      const { value, done } = await reader.read();
      if (done) return;
      heard += new TextDecoder().decode(value);
    }
  };
  return {
    ended: read().catch(() => undefined),
    stop: () => stop.abort(),
    until: async (text) => {
      for (let i = 0; i < 1000 && !heard.includes(text); i++) {
        await new Promise((done) => setTimeout(done, 10));
      }
      if (!heard.includes(text)) throw new Error(`"${text}" was not heard, but: ${heard}`);
      return heard;
    },
  };
}

/** An asset with one metric and a push token. */
export async function serverWithMetric(
  analyst: Visitor,
  metric: object = {},
): Promise<{ assetId: string; metricId: string; key: string; token: string }> {
  const asset = await analyst.call<{ id: string }>('POST', '/api/assets', {
    // Letters only: what is searched by a number is not found by chance.
    name: `Plant ${randomBytes(3)
      .toString('hex')
      .replace(/\d/g, (digit) => 'ghijklmnop'[Number(digit)])}`,
    kind: 'plant',
    zone: 'Europe/London',
  });
  const made = await analyst.call<{ id: string; key: string }>('POST', '/api/metrics', {
    assetId: asset.body.id,
    name: 'Bed temperature',
    unit: '°C',
    kind: 'level',
    intervalMs: 60_000,
    maxGapMs: 600_000,
    ...metric,
  });
  const token = await analyst.call<{ token: string }>('POST', '/api/push-tokens', { name: 'Test sender' });
  return { assetId: asset.body.id, metricId: made.body.id, key: made.body.key, token: token.body.token };
}

/** A rule as it is sent; by default: over 205, without delay, with a deadband of 4. */
export function ruleDraft(metricId: string, part: object = {}): object {
  return {
    name: 'Too hot',
    metricId,
    test: { kind: 'limit', side: 'above', limit: 205, deadband: 4 },
    onDelayMs: 0,
    offDelayMs: 0,
    level: 'breach',
    ...part,
  };
}

/** An indicator as it is sent: the mean of the last hour, 100 or less is Clear, up to 120 Caution. */
export function indicatorDraft(assetId: string, metricId: string, part: object = {}): object {
  return {
    name: 'Mean',
    assetId,
    measure: { metricId, summary: 'mean', per: null },
    window: { kind: 'rolling', count: 1, unit: 'hour' },
    judge: { kind: 'limits', band: { direction: 'lower', caution: 100, breach: 120, target: null } },
    target: { kind: 'none' },
    reference: { kind: 'before' },
    decimals: 1,
    ...part,
  };
}

/** The people that a visitor sees. */
export async function peopleOf(visitor: Visitor): Promise<readonly Person[]> {
  return (await visitor.call<PageOf<Person>>('GET', '/api/people?limit=500')).body.items;
}

/** Every alarm of a rule, oldest first. */
export async function alarmsOf(visitor: Visitor, ruleId: string): Promise<Alarm[]> {
  const read = async (list: string): Promise<readonly Alarm[]> =>
    (await visitor.call<PageOf<Alarm>>('GET', `/api/alarms?list=${list}&ruleId=${ruleId}&limit=500`)).body
      .items;
  return [...(await read('standing')), ...(await read('over'))].sort((a, b) => a.raisedAt - b.raisedAt);
}

/** One part of a file as it is sent: columns of times and values by metric. */
export function filePart(
  seq: number,
  columns: readonly { metricId: string; t: readonly number[]; v: readonly number[] }[],
  told: readonly object[] = [],
): Uint8Array<ArrayBuffer> {
  return encodeColumns(
    { seq, metricIds: columns.map(({ metricId }) => metricId), told },
    columns.flatMap(({ t, v }, i): [string, readonly number[]][] => [
      [`t ${i}`, t],
      [`v ${i}`, v],
    ]),
  );
}

/** What finishing an intake sends; by default a balance in which every line was taken. */
export function finishOrder(
  batches: number,
  part: { readonly taken?: number; readonly refused?: number } & Readonly<Record<string, unknown>> = {},
): object {
  const { taken = 0, refused = 0, ...rest } = part;
  return { batches, balance: { ...emptyBalance(), lines: taken + refused, taken, refused }, ...rest };
}

/** Posts samples with a token; text and bytes as they are, with their content type. */
export async function push<T = unknown>(
  url: string,
  token: string,
  samples: unknown,
  headers: Record<string, string> = {},
): Promise<{ status: number; body: T }> {
  const response = await fetch(`${url}/api/samples`, {
    method: 'POST',
    headers: { authorization: `Bearer ${token}`, 'content-type': 'application/json', ...headers },
    body:
      typeof samples === 'string' || samples instanceof Uint8Array
        ? (samples as BodyInit)
        : JSON.stringify({ samples }),
  });
  const body = (await response.json()) as T;
  const contentType = response.headers.get('content-type') ?? '';
  checkAnswer('POST', '/api/samples', { status: response.status, contentType, body });
  return { status: response.status, body };
}
