import type { SessionState, ErrorBody } from '@vivid-beacon/core';
import { makeFirstAdministrator } from './firstAdministrator';
import { onTestServer } from '../testing/testServer';

const { test } = onTestServer();

describe('signing in', () => {
  it('signs in, tells who one is, and signs out', async () => {
    const visitor = test.visitor();
    expect((await visitor.signIn('analyst@test.example')).body.person).toMatchObject({ role: 'analyst' });
    expect((await visitor.call<SessionState>('GET', '/api/session')).body.person?.name).toBe('The analyst');
    expect((await visitor.call('DELETE', '/api/session')).status).toBe(204);
    expect((await visitor.call('GET', '/api/boards')).status).toBe(401);
  });

  it('gives another session id when somebody signs in, so that a planted one is worth nothing', async () => {
    const visitor = test.visitor();
    await visitor.call('GET', '/api/session');
    const before = visitor.cookie();
    await visitor.signIn('viewer@test.example');
    expect(visitor.cookie()).not.toBe(before);
  });

  it('answers a wrong password and an unknown account alike', async () => {
    const answers = await Promise.all(
      ['viewer@test.example', 'nobody@test.example'].map((email) => test.visitor().signIn(email, 'wrong')),
    );
    for (const { status, body } of answers) {
      expect(status).toBe(401);
      expect((body as unknown as { error: ErrorBody }).error.message).toBe(
        'Wrong e-mail address or password.',
      );
    }
  });

  it('stops guessing after eight failures, also with the right password', async () => {
    for (let i = 0; i < 8; i++) await test.visitor().signIn('operator@test.example', 'wrong');
    expect((await test.visitor().signIn('operator@test.example')).status).toBe(429);
  });

  it('checks no more passwords than the limit when many guesses come at once, and says when to come again', async () => {
    const visitors = await Promise.all(
      Array.from({ length: 20 }, async () => {
        const visitor = test.visitor();
        await visitor.call('GET', '/api/session');
        return visitor;
      }),
    );
    const answers = await Promise.all(
      visitors.map((visitor) => visitor.signIn('administrator@test.example', 'wrong')),
    );
    const count = (status: number): number => answers.filter((answer) => answer.status === status).length;
    expect([count(401), count(429)]).toEqual([8, 12]);
  });

  it('refuses a change without the form token of the session', async () => {
    const analyst = await test.as('analyst');
    const response = await fetch(`${test.url}/api/assets`, {
      method: 'POST',
      headers: { cookie: analyst.cookie(), 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'X', kind: 'plant', zone: 'UTC' }),
    });
    expect(response.status).toBe(403);
    expect(((await response.json()) as { error: ErrorBody }).error.code).toBe('STALE_FORM');
  });

  it('writes nothing for a visit without signing in', async () => {
    const count = async (): Promise<number> =>
      (await test.server.app.pool.query<{ n: number }>('select count(*)::int as n from session')).rows[0].n;
    const before = await count();
    for (let i = 0; i < 5; i++) {
      const visitor = test.visitor();
      await visitor.call('GET', '/api/session');
      await visitor.signIn('viewer@test.example', 'wrong');
    }
    expect(await count()).toBe(before);
    await test.as('viewer');
    expect(await count()).toBe(before + 1);
  });

  it('stores passwords with argon2id only', async () => {
    const { rows } = await test.server.app.pool.query<{ password_hash: string }>(
      'select password_hash from person',
    );
    expect(rows.every(({ password_hash }) => password_hash.startsWith('$argon2id$'))).toBe(true);
  });
});

describe('a session', () => {
  const signedInAt = Date.now();
  afterEach(() => jest.restoreAllMocks());
  const at = (hours: number): void => {
    jest.spyOn(Date, 'now').mockReturnValue(signedInAt + hours * 3_600_000);
  };
  const expires = async (): Promise<number> => {
    const { rows } = await test.server.app.pool.query<{ t: number }>(
      `select max(extract(epoch from expire))::float8 * 1000 as t from session`,
    );
    return rows[0].t;
  };

  it('is prolonged by use, noted every few minutes, and ends after twelve hours in any case', async () => {
    const visitor = await test.as('viewer');
    const first = await expires();
    await visitor.call('GET', '/api/boards');
    expect(await expires()).toBe(first);
    at(3);
    expect((await visitor.call('GET', '/api/boards')).status).toBe(200);
    expect((await expires()) - first).toBeGreaterThan(2.9 * 3_600_000);
    at(6.5);
    expect((await visitor.call('GET', '/api/boards')).status).toBe(200);
    at(12.1);
    expect((await visitor.call('GET', '/api/boards')).status).toBe(401);
  });
});

describe('roles', () => {
  it('are checked on the server', async () => {
    const viewer = await test.as('viewer');
    expect((await viewer.call('GET', '/api/boards')).status).toBe(200);
    expect((await viewer.call('POST', '/api/alarms/1/acknowledgement', { remark: '' })).status).toBe(403);
    expect((await viewer.call('POST', '/api/assets', { name: 'X', kind: 'plant', zone: 'UTC' })).status).toBe(
      403,
    );
    expect((await test.visitor().call('GET', '/api/boards')).status).toBe(401);
  });
});

describe('answers', () => {
  it('name the field that is wrong, in one shape', async () => {
    const analyst = await test.as('analyst');
    const { status, body } = await analyst.call<{ error: ErrorBody }>('POST', '/api/assets', {
      name: '',
      kind: 'plant',
      zone: 'UTC',
    });
    expect(status).toBe(422);
    expect(body.error).toMatchObject({ code: 'BAD_INPUT', path: 'name' });
    const malformed = await analyst.call<{ error: ErrorBody }>('POST', '/api/assets', '{"name":');
    expect(malformed).toMatchObject({ status: 400, body: { error: { code: 'BAD_SHAPE' } } });
    expect((await analyst.call('GET', '/api/boards/abc')).status).toBe(404);
    expect((await analyst.call('GET', '/api/nothing')).status).toBe(404);
  });

  it('carry a content policy that lets in no foreign script', async () => {
    const response = await fetch(`${test.url}/api/health`);
    const policy = response.headers.get('content-security-policy')!;
    expect(policy).toContain("script-src 'self'");
    expect(policy).toContain("default-src 'none'");
    expect(response.headers.get('x-powered-by')).toBeNull();
  });
});

describe('makeFirstAdministrator', () => {
  it('makes one account where there is none, and never a second', async () => {
    const { pool } = test.server.app;
    expect(await makeFirstAdministrator(pool, 'first@test.example', 0)).toBeNull();
    await pool.query('delete from person');
    const password = await makeFirstAdministrator(pool, 'first@test.example', 0);
    const { status, body } = await test.visitor().signIn('first@test.example', password!);
    expect(status).toBe(200);
    expect(body.person?.role).toBe('administrator');
  });
});

describe('guesses from one address', () => {
  it('counts the address a request came from, not one that it gives itself, and answers 429 as RFC 6585 and 9110 have it', async () => {
    const visitor = test.visitor();
    const { csrfToken } = (await visitor.call<SessionState>('GET', '/api/session')).body;
    const guess = (i: number, address: string): Promise<Response> =>
      fetch(`${test.url}/api/session`, {
        method: 'POST',
        headers: {
          ...visitor.headers(),
          'x-form-token': csrfToken,
          'content-type': 'application/json',
          'x-forwarded-for': address,
        },
        body: JSON.stringify({ email: `somebody-${i}@test.example`, password: 'wrong' }),
      });
    const answers = [await guess(0, '9'.repeat(300))];
    for (let i = 1; i < 60; i++) answers.push(await guess(i, `203.0.113.${i}`));
    const statuses = answers.map(({ status }) => status);
    expect(new Set(statuses)).toEqual(new Set([401, 429]));
    expect(statuses.filter((status) => status === 401).length).toBeLessThanOrEqual(40);
    const last = answers.at(-1)!;
    expect(Number(last.headers.get('retry-after'))).toBeGreaterThan(60);
  }, 120_000);
});
