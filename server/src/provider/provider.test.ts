import { createPublicKey, verify, type JsonWebKey } from 'node:crypto';
import OpenIDConnectStrategy from 'passport-openidconnect';
import type { Account, SessionState } from '@vivid-beacon/core';
import { startProviderStandIn, STAND_IN_CLIENT, type ProviderStandIn } from '../testing/providerStandIn';
import { PASSWORD, startTestServer, TEST_NOW, type TestServer, type Visitor } from '../testing/testServer';
import { addPerson } from '../people/sql';

/*
 * OpenID Connect Core 1.0 and RFC 7636, 8176, 9207, by clause (numbers from memory), against the stand-in; and the stand-in
 * against another client library, so that both could not be wrong alike.
 */

let standIn: ProviderStandIn;
let test: TestServer;
let administrator: Visitor;

beforeAll(async () => {
  standIn = await startProviderStandIn();
  test = await startTestServer({
    config: {
      provider: {
        issuer: standIn.issuer,
        clientId: STAND_IN_CLIENT.id,
        clientSecret: STAND_IN_CLIENT.secret,
        name: 'Hollowmere accounts',
      },
    },
  });
  administrator = await test.as('administrator');
});
afterAll(async () => {
  await test.stop();
  await standIn.stop();
});
beforeEach(() => standIn.behave());

/** A browser as far as it matters: it follows redirects and keeps cookies of the server. */
class Browser {
  readonly cookies = new Map<string, string>();

  async get(address: string): Promise<Response> {
    const own = address.startsWith(test.url);
    const answer = await fetch(address, {
      redirect: 'manual',
      headers: own ? { cookie: [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; ') } : {},
    });
    if (own) {
      for (const each of answer.headers.getSetCookie()) {
        const [name, value] = each.split(';')[0].split('=');
        if (value === '') this.cookies.delete(name);
        else this.cookies.set(name, value);
      }
    }
    return answer;
  }

  /** Follows redirects to where no other follows. @returns the addresses on the way. */
  async follow(address: string, until = 'nowhere'): Promise<string[]> {
    const way = [address];
    for (;;) {
      const next = (await this.get(way.at(-1)!)).headers.get('location');
      if (next === null) return way;
      way.push(new URL(next, way.at(-1)).href);
      if (way.at(-1)!.includes(until) || new URL(way.at(-1)!).pathname === '/' || way.length > 6) return way;
    }
  }

  async person(): Promise<SessionState['person']> {
    return ((await (await this.get(`${test.url}/api/session`)).json()) as SessionState).person;
  }
}

const START = () => `${test.url}/api/sign-in/start`;
const problemOf = (way: readonly string[]): string | null => new URL(way.at(-1)!).searchParams.get('signIn');

/** Signs in with the account of the stand-in. @returns the problem, or null, and who is signed in. */
async function signIn(): Promise<{ problem: string | null; name: string | null; way: string[] }> {
  const browser = new Browser();
  const way = await browser.follow(START());
  return { problem: problemOf(way), name: (await browser.person())?.name ?? null, way };
}
const as = (email: string, parts: Partial<ProviderStandIn['account']> = {}): void => {
  standIn.account = { sub: `sub of ${email}`, email, email_verified: true, ...parts };
};
const ANALYST = 'analyst@test.example';
const accountOf = async (name: string): Promise<Account> =>
  (await administrator.call<{ items: Account[] }>('GET', '/api/accounts?limit=100')).body.items.find(
    (each) => each.name === name,
  )!;

describe('signing in with the provider', () => {
  it('begins a session for the account with this address, and remembers whose it is', async () => {
    as(ANALYST);
    const { problem, name } = await signIn();
    expect([problem, name]).toEqual([null, 'The analyst']);
    expect((await accountOf('The analyst')).linkedAt).toBe(test.clock.now);
    // The provider's account counts from now on, not its address.
    standIn.account = { sub: `sub of ${ANALYST}`, email: 'viewer@test.example', email_verified: true };
    expect((await signIn()).name).toBe('The analyst');
  });

  it('leads to where the person wanted to go, and only within the app', async () => {
    as(ANALYST);
    const browser = new Browser();
    const way = await browser.follow(
      `${START()}?to=${encodeURIComponent('/boards/7?window=x')}`,
      '/boards/7',
    );
    expect(way.at(-1)).toBe(`${test.url}/boards/7?window=x`);
    for (const to of [
      'https://elsewhere.example',
      '//elsewhere.example',
      '/\\elsewhere.example',
      '/api/session',
    ]) {
      expect((await browser.get(`${START()}?to=${encodeURIComponent(to)}`)).status).toBe(422);
    }
  });

  it('asks as Core 3.1.2.1 and RFC 7636 4.3 say: code, openid, state, nonce, S256', async () => {
    const { headers } = await new Browser().get(START());
    const asked = Object.fromEntries(new URL(headers.get('location')!).searchParams);
    expect(asked).toMatchObject({
      response_type: 'code',
      client_id: STAND_IN_CLIENT.id,
      redirect_uri: `${test.url}/api/sign-in/return`,
      code_challenge_method: 'S256',
    });
    expect(asked.scope.split(' ')).toContain('openid');
    for (const name of ['state', 'nonce', 'code_challenge'])
      expect(asked[name].length).toBeGreaterThanOrEqual(43);
    as(ANALYST);
    await signIn();
    // RFC 7636 4.1: 43 to 128 unreserved characters, sent with the code.
    expect(standIn.exchanges.at(-1)!.code_verifier).toMatch(/^[\w.~-]{43,128}$/);
  });

  it('tells a person who is not known here, or whose address is not verified', async () => {
    as('stranger@elsewhere.example');
    expect(await signIn()).toMatchObject({ problem: 'unknown', name: null });
    for (const verified of [false, undefined, 'true', 1]) {
      as('viewer@test.example', { sub: 'unverified', email_verified: verified });
      expect(await signIn()).toMatchObject({ problem: 'unknown', name: null });
    }
  });

  it('does not hand an account over to another account of the provider with the same address', async () => {
    as('operator@test.example', { sub: 'first' });
    expect((await signIn()).name).toBe('The operator');
    as('operator@test.example', { sub: 'second' });
    expect(await signIn()).toMatchObject({ problem: 'taken', name: null });
    // Until an administrator takes the first away.
    const { id } = await accountOf('The operator');
    expect((await administrator.call('DELETE', `/api/accounts/${id}/provider`)).status).toBe(204);
    expect((await administrator.call('DELETE', `/api/accounts/${id}/provider`)).status).toBe(404);
    expect((await signIn()).name).toBe('The operator');
  });

  it('is refused to a disabled account, and accepts an invitation', async () => {
    const invited = await administrator.call<Account>('POST', '/api/accounts', {
      name: 'Nora Lind',
      email: 'nora@test.example',
      rights: { everywhere: 'viewer' },
    });
    as('nora@test.example');
    expect(await signIn()).toMatchObject({ problem: null, name: 'Nora Lind' });
    expect((await accountOf('Nora Lind')).state).toBe('active');
    await administrator.call('PUT', `/api/accounts/${invited.body.id}/disabled`, { disabled: true });
    expect(await signIn()).toMatchObject({ problem: 'unknown', name: null });
  });

  it('asks for a second factor where the account has one: RFC 8176 amr', async () => {
    await addPerson(test.server.app.pool, {
      email: 'two@test.example',
      name: 'Two factors',
      rights: { everywhere: 'viewer', plants: {} },
      passwordHash: null,
      at: TEST_NOW,
    });
    await test.owner.query(`update person set otp_secret = '\\x00' where email = 'two@test.example'`);
    as('two@test.example');
    expect(await signIn()).toMatchObject({ problem: 'secondFactor', name: null });
    as('two@test.example', { amr: ['pwd'] });
    expect(await signIn()).toMatchObject({ problem: 'secondFactor', name: null });
    as('two@test.example', { amr: ['pwd', 'otp', 'mfa'] });
    expect(await signIn()).toMatchObject({ problem: null, name: 'Two factors' });
  });

  it('stands in the trail, with who was refused', async () => {
    const { body } = await administrator.call<{ items: { action: string; name: string; request: string }[] }>(
      'GET',
      '/api/trail?subject=session&limit=100',
    );
    const told = body.items.filter(({ request }) => request === 'GET /api/sign-in/return');
    expect(told.map(({ action, name }) => `${action} ${name}`)).toEqual(
      expect.arrayContaining([
        'signedIn The analyst',
        'signInRefused The operator',
        'signInRefused Two factors',
      ]),
    );
  });
});

describe('the way back', () => {
  it('works once, in the browser it began in, and within ten minutes', async () => {
    as(ANALYST);
    const browser = new Browser();
    const way = await browser.follow(START(), '/api/sign-in/return');
    const back = way.at(-1)!;
    // Another browser, to which somebody was sent with this address.
    expect(problemOf(await new Browser().follow(back))).toBe('expired');
    expect(problemOf(await browser.follow(back))).toBeNull();
    expect(problemOf(await browser.follow(back))).toBe('expired');
  });

  it('is not taken from a cookie that was made up', async () => {
    const browser = new Browser();
    browser.cookies.set('vivid-beacon-departure', Buffer.from('{"state":"x"}').toString('base64url'));
    expect(problemOf(await browser.follow(`${test.url}/api/sign-in/return?code=1&state=x`))).toBe('expired');
  });

  it('leads on only when the session is kept: a browser asks as soon as it is told where', async () => {
    as(ANALYST);
    const names = [];
    for (let i = 0; i < 40; i++) names.push((await signIn()).name);
    expect(new Set(names)).toEqual(new Set(['The analyst']));
  });

  it('does not keep the session from before: its id is another', async () => {
    as(ANALYST);
    const browser = new Browser();
    await browser.follow(START());
    const before = browser.cookies.get('vivid-beacon');
    await browser.follow(START());
    expect(browser.cookies.get('vivid-beacon')).not.toBe(before);
  });
});

describe('an answer that does not fit signs nobody in', () => {
  const past = (seconds: number) => Math.floor(Date.now() / 1000) - seconds;

  it.each<[string, ProviderStandIn['nonsense']]>([
    ['Core 3.1.3.7 no. 2: another issuer', { claims: (each) => ({ ...each, iss: 'https://other.example' }) }],
    ['no. 3: for another client', { claims: (each) => ({ ...each, aud: 'somebody else' }) }],
    [
      'no. 4 and 5: for several, authorized for another',
      {
        claims: (each) => ({ ...each, aud: [STAND_IN_CLIENT.id, 'other'], azp: 'other' }),
      },
    ],
    ['no. 6: signed with another key', { otherKey: true }],
    ['no. 7: not signed', { unsigned: true }],
    ['no. 9: over', { claims: (each) => ({ ...each, exp: past(600) }) }],
    ['no. 9: without an end', { claims: ({ exp: _exp, ...each }) => each }],
    ['no. 11: another nonce', { claims: (each) => ({ ...each, nonce: 'another' }) }],
    ['no. 11: no nonce', { claims: ({ nonce: _nonce, ...each }) => each }],
    ['section 2: without a subject', { claims: ({ sub: _sub, ...each }) => each }],
    ['section 2: a subject that is no text', { claims: (each) => ({ ...each, sub: 7 as never }) }],
    ['RFC 6749 10.12: another state', { state: 'another' }],
    ['RFC 9207: sent back by another issuer', { iss: 'https://other.example' }],
    ['no ID token', { token: { status: 200, body: '{"access_token":"x","token_type":"Bearer"}' } }],
    [
      'an ID token that is none',
      {
        token: { status: 200, body: '{"access_token":"x","token_type":"Bearer","id_token":"a.b.c"}' },
      },
    ],
    ['broken JSON', { token: { status: 200, body: '{"access' } }],
    ['a page', { token: { status: 200, body: '<html>Welcome</html>', type: 'html' } }],
    ['an error of the server', { token: { status: 500, body: 'oops', type: 'text' } }],
    ['nothing', { token: { status: 204, body: '' } }],
    ['a million characters', { token: { status: 200, body: `"${'x'.repeat(1_000_000)}"` } }],
  ])('%s', async (_what, nonsense) => {
    as(ANALYST);
    standIn.nonsense = nonsense;
    const { problem, name } = await signIn();
    expect([problem, name]).toEqual(['provider', null]);
  });

  it('a person who gives up at the provider is told so', async () => {
    standIn.nonsense = { error: 'access_denied' };
    expect(await signIn()).toMatchObject({ problem: 'refused', name: null });
  });

  it('clocks may differ by less than a minute', async () => {
    as(ANALYST);
    standIn.nonsense = { claims: (each) => ({ ...each, exp: past(30) }) };
    expect((await signIn()).name).toBe('The analyst');
  });
});

describe('a provider that is away or answers nonsense about itself', () => {
  it.each([
    ['is away', { status: 503, body: 'Later' }],
    ['names another issuer', { status: 200, body: '{"issuer":"https://other.example"}' }],
    ['answers no JSON', { status: 200, body: '<html>' }],
  ])('that %s is told, and asked again the next time', async (_what, discovery) => {
    const own = await startProviderStandIn();
    const apart = await startTestServer({
      config: {
        provider: {
          issuer: own.issuer,
          clientId: STAND_IN_CLIENT.id,
          clientSecret: STAND_IN_CLIENT.secret,
          name: 'Away',
        },
      },
    });
    own.nonsense = { discovery };
    const start = () => fetch(`${apart.url}/api/sign-in/start`, { redirect: 'manual' });
    expect((await start()).headers.get('location')).toBe('/?signIn=provider');
    own.behave();
    expect((await start()).headers.get('location')).toContain(`${own.issuer}/authorize`);
    // Passwords do not need it.
    await own.stop();
    expect((await apart.visitor().signIn(ANALYST, PASSWORD)).status).toBe(200);
    await apart.stop();
  });

  it('is offered only where one is set', async () => {
    const without = await startTestServer();
    const { body } = await without.visitor().call<SessionState>('GET', '/api/session');
    expect(body.provider).toBeNull();
    expect((await fetch(`${without.url}/api/sign-in/start`)).status).toBe(404);
    await without.stop();
    expect((await test.visitor().call<SessionState>('GET', '/api/session')).body.provider).toBe(
      'Hollowmere accounts',
    );
  });
});

describe('the stand-in', () => {
  /** What another client library makes of a request, as it would in an Express application. */
  function ask(strategy: InstanceType<typeof OpenIDConnectStrategy>, query: object, session: object) {
    return new Promise<{ redirect?: string; user?: { id: string }; failed?: unknown }>((resolve, reject) => {
      const call = Object.assign(Object.create(strategy) as typeof strategy, {
        redirect: (redirect: string) => resolve({ redirect }),
        success: (user: { id: string }) => resolve({ user }),
        fail: (failed: unknown) => resolve({ failed }),
        error: reject,
      });
      call.authenticate({ query, session, headers: {}, connection: {} } as never, {});
    });
  }
  const strategyOf = (): InstanceType<typeof OpenIDConnectStrategy> =>
    new OpenIDConnectStrategy(
      {
        issuer: standIn.issuer,
        authorizationURL: `${standIn.issuer}/authorize`,
        tokenURL: `${standIn.issuer}/token`,
        clientID: STAND_IN_CLIENT.id,
        clientSecret: STAND_IN_CLIENT.secret,
        callbackURL: 'http://127.0.0.1/back',
        skipUserProfile: true,
        nonce: true,
      } as never,
      ((_issuer: string, profile: { id: string }, done: (error: null, user: object) => void) =>
        done(null, { id: profile.id })) as never,
    );
  /** Goes there and back with the other library. */
  async function wayThere() {
    const strategy = strategyOf();
    const session = {};
    const { redirect } = await ask(strategy, {}, session);
    const back = (await fetch(redirect!, { redirect: 'manual' })).headers.get('location')!;
    return { strategy, session, query: Object.fromEntries(new URL(back).searchParams) };
  }

  it('is a provider to another client library, which signs the same account in', async () => {
    as(ANALYST);
    const { strategy, session, query } = await wayThere();
    expect(await ask(strategy, query, session)).toMatchObject({ user: { id: `sub of ${ANALYST}` } });
  });

  it('is refused by that library, too, with another nonce, audience or issuer', async () => {
    as(ANALYST);
    for (const change of [{ nonce: 'another' }, { aud: 'other' }, { iss: 'https://other.example' }]) {
      standIn.nonsense = { claims: (each) => ({ ...each, ...change }) };
      const { strategy, session, query } = await wayThere();
      const answer = await ask(strategy, query, session).catch((error: unknown) => ({ failed: error }));
      expect(answer).toHaveProperty('failed');
    }
  });

  it('signs as RFC 7515 says: its published key verifies the token without any such library', async () => {
    as(ANALYST);
    const { headers } = await fetch(
      `${standIn.issuer}/authorize?redirect_uri=http://127.0.0.1/back&state=s&nonce=n`,
      { redirect: 'manual' },
    );
    const code = new URL(headers.get('location')!).searchParams.get('code')!;
    const answer = await fetch(`${standIn.issuer}/token`, {
      method: 'POST',
      body: new URLSearchParams({
        code,
        client_secret: STAND_IN_CLIENT.secret,
        redirect_uri: 'http://127.0.0.1/back',
      }),
    });
    const { id_token: token } = (await answer.json()) as { id_token: string };
    const { keys } = (await (await fetch(`${standIn.issuer}/keys`)).json()) as { keys: JsonWebKey[] };
    const key = createPublicKey({ key: keys[0], format: 'jwk' });
    const [head, body, signature] = token.split('.');
    const fits = (signed: string): boolean =>
      verify('sha256', Buffer.from(signed), key, Buffer.from(signature, 'base64url'));
    expect([fits(`${head}.${body}`), fits(`${head}.${body}x`)]).toEqual([true, false]);
  });
});
