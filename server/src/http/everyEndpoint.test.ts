import fc from 'fast-check';
import { ROLES, allows, type Role } from '@vivid-beacon/core';
import { ENDPOINTS } from '../endpoints';
import { startTestServer, type TestServer, type Visitor } from '../testing/testServer';
import type { Endpoint } from './endpoint';

/* What must hold for every endpoint, also for future ones. */

let test: TestServer;
let people: ReadonlyMap<Role, Visitor>;

beforeAll(async () => {
  test = await startTestServer();
  people = new Map(await Promise.all(ROLES.map(async (role) => [role, await test.as(role)] as const)));
}, 120_000);
afterAll(() => test.stop());

const nameOf = ({ method, path }: Endpoint): string => `${method.toUpperCase()} ${path}`;
/** A path of the endpoint with ids that do not exist. */
const pathOf = ({ path }: Endpoint): string => path.replace(/:\w+/g, '987654321');
const isRole = (access: string): access is Role => (ROLES as readonly string[]).includes(access);
/** Stays open and sends events, so there is no end to wait for. */
const streams = ({ path }: Endpoint): boolean => path === '/api/live';
const forRoles = ENDPOINTS.filter(({ access }) => isRole(access)).map(
  (endpoint) => [nameOf(endpoint), endpoint] as const,
);
const codeOf = (body: unknown): string | undefined =>
  (body as { error?: { code?: string } } | undefined)?.error?.code;

describe('rights', () => {
  it.each(forRoles)('%s is closed to those who are not signed in', async (_name, endpoint) => {
    const stranger = test.visitor();
    // A session with a form token but nobody signed in.
    await stranger.signIn('nobody@test.example', 'not the password');
    const { status, body } = await stranger.call(endpoint.method.toUpperCase(), pathOf(endpoint));
    expect([status, codeOf(body)]).toEqual([401, 'NOT_SIGNED_IN']);
  });

  it.each(forRoles)('%s is closed to lesser roles and open to the others', async (_name, endpoint) => {
    if (streams(endpoint)) return;
    for (const role of ROLES) {
      const { status, body } = await people.get(role)!.call(endpoint.method.toUpperCase(), pathOf(endpoint));
      if (allows(role, endpoint.access as Role)) {
        expect(['NOT_ALLOWED', 'NOT_SIGNED_IN', 'STALE_FORM']).not.toContain(codeOf(body));
        expect(status).toBeLessThan(500);
      } else expect([status, codeOf(body)]).toEqual([403, 'NOT_ALLOWED']);
    }
  });

  it.each(forRoles.filter(([, { method }]) => method !== 'get'))(
    '%s refuses a change without the form token of its session',
    async (_name, endpoint) => {
      const response = await fetch(test.url + pathOf(endpoint), {
        method: endpoint.method.toUpperCase(),
        headers: { cookie: people.get('administrator')!.cookie(), 'content-type': 'application/json' },
        body: endpoint.method === 'delete' ? undefined : '{}',
      });
      expect([response.status, codeOf(await response.json())]).toEqual([403, 'STALE_FORM']);
    },
  );

  it.each(ENDPOINTS.filter(({ access }) => access === 'token').map((each) => [nameOf(each), each] as const))(
    '%s refuses a token that was never given out',
    async (_name, endpoint) => {
      for (const authorization of ['', 'Bearer ', 'Bearer vb_nonsense', 'Basic YTpi']) {
        const response = await fetch(test.url + pathOf(endpoint), {
          method: endpoint.method.toUpperCase(),
          headers: { authorization, 'content-type': 'application/json' },
          body: '{}',
        });
        expect([response.status, codeOf(await response.json())]).toEqual([401, 'WRONG_TOKEN']);
      }
    },
  );
});

describe('input', () => {
  const withBody = ENDPOINTS.filter(({ body, access }) => body && access !== 'token').map(
    (endpoint) => [nameOf(endpoint), endpoint] as const,
  );

  it.each(withBody)(
    '%s never fails on any JSON: it answers or says what is wrong',
    async (_name, endpoint) => {
      const administrator = people.get('administrator')!;
      await fc.assert(
        fc.asyncProperty(fc.jsonValue({ maxDepth: 4 }), async (value) => {
          // Signing out in the middle would end the session of this test.
          if (endpoint.path === '/api/session') return;
          const { status, body } = await administrator.call(
            endpoint.method.toUpperCase(),
            pathOf(endpoint),
            JSON.stringify(value),
          );
          expect(status).toBeLessThan(500);
          if (status >= 400) {
            const { error } = body as { error: { code: string; message: string } };
            expect(error.code).toMatch(/^[A-Z_]+$/);
            expect(error.message).toMatch(/^.{5,}\.?$/s);
            expect(error.message).not.toMatch(/\bat .*\.(ts|js):\d+|select |insert |relation "/i);
          }
        }),
        { numRuns: 12 },
      );
    },
  );

  it.each(withBody)(
    '%s does not fail on an object or a list in the place of any field',
    async (_name, endpoint) => {
      const described = endpoint.body!.describe() as { fields?: Record<string, unknown> };
      const administrator = people.get('administrator')!;
      if (endpoint.path === '/api/session') return;
      for (const field of Object.keys(described.fields ?? {})) {
        for (const value of [{}, [], [[]], true, 1e99]) {
          const body = JSON.stringify({ [field]: value });
          const { status } = await administrator.call(endpoint.method.toUpperCase(), pathOf(endpoint), body);
          expect([field, value, status < 500]).toEqual([field, value, true]);
        }
      }
    },
  );

  it.each(ENDPOINTS.filter(({ path }) => path.includes(':')).map((each) => [nameOf(each), each] as const))(
    '%s does not take ids that are none',
    async (_name, { method, path }) => {
      for (const id of ['abc', '0', '-1', '1;drop', '99999999999999999999', '%00', '1.5']) {
        const { status } = await people
          .get('administrator')!
          .call(
            method.toUpperCase(),
            path.replace(/:\w+/g, id),
            method === 'get' || method === 'delete' ? undefined : {},
          );
        expect(status).toBeGreaterThanOrEqual(400);
        expect(status).toBeLessThan(500);
      }
    },
  );

  it('is refused when it is not JSON at all, is too large, or is of an unknown kind', async () => {
    const administrator = people.get('administrator')!;
    const broken = await administrator.call('POST', '/api/assets', '{"name": ');
    expect([broken.status, codeOf(broken.body)]).toEqual([400, 'BAD_SHAPE']);
    const deep = await administrator.call(
      'POST',
      '/api/assets',
      `{"name":${'['.repeat(200_000)}${']'.repeat(200_000)}}`,
    );
    expect([deep.status, codeOf(deep.body)]).toEqual([422, 'BAD_INPUT']);
    const large = await administrator.call(
      'POST',
      '/api/assets',
      JSON.stringify({ name: 'x'.repeat(1_100_000) }),
    );
    expect([large.status, codeOf(large.body)]).toEqual([413, 'TOO_LARGE']);
    const nowhere = await administrator.call('GET', '/api/nowhere');
    expect([nowhere.status, codeOf(nowhere.body)]).toEqual([404, 'NOT_FOUND']);
  });
});
