import { generate } from 'otplib';
import type { Account, ErrorBody, OwnAccount, SessionState } from '@vivid-beacon/core';
import { onTestServer, PASSWORD, type Visitor } from '../testing/testServer';
import { makeSeal } from '../http/seal';
import { stepOfCode } from './oneTimeCode';

const { test, administrator } = onTestServer('administrator');
type Refused = { error: ErrorBody };
const MINUTE = 60_000;
const HOUR = 60 * MINUTE;

const codeOf = (secret: string, at = test.clock.now): Promise<string> =>
  generate({ secret, epoch: Math.floor(at / 1000) });

/** A visitor with a second factor. */
async function withSecondFactor(role: 'viewer' | 'operator' | 'analyst') {
  const visitor = await test.as(role);
  const begun = await visitor.call<{ secret: string; uri: string }>(
    'POST',
    '/api/own-account/second-factor',
    {
      password: PASSWORD,
    },
  );
  expect(begun.status).toBe(200);
  const { secret } = begun.body;
  const confirmed = await visitor.call<{ recoveryCodes: string[] }>('PUT', '/api/own-account/second-factor', {
    code: await codeOf(secret),
  });
  expect(confirmed.status).toBe(200);
  return { visitor, secret, uri: begun.body.uri, recoveryCodes: confirmed.body.recoveryCodes };
}

/** Signs in with a code. */
async function signIn(email: string, code?: string, by: Visitor = test.visitor()) {
  // For its form token.
  const { csrfToken } = (await by.call<SessionState>('GET', '/api/session')).body;
  const response = await fetch(`${test.url}/api/session`, {
    method: 'POST',
    headers: { ...by.headers(), 'x-form-token': csrfToken, 'content-type': 'application/json' },
    body: JSON.stringify({ email, password: PASSWORD, code }),
  });
  return { status: response.status, body: (await response.json()) as SessionState & Refused };
}

describe('one-time codes', () => {
  // RFC 6238, appendix B, SHA-1; of eight digits the last six.
  const RFC_SECRET = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';
  it.each([
    [59, '287082'],
    [1_111_111_109, '081804'],
    [1_111_111_111, '050471'],
    [1_234_567_890, '005924'],
    [2_000_000_000, '279037'],
    [20_000_000_000, '353130'],
  ])('fit the test vectors of RFC 6238 at %i s', async (seconds, code) => {
    const now = seconds * 1000;
    expect(await stepOfCode(RFC_SECRET, code, { lastStep: null, now })).toBe(Math.floor(seconds / 30));
    await expect(stepOfCode(RFC_SECRET, code, { lastStep: Math.floor(seconds / 30), now })).rejects.toThrow(
      'used already',
    );
  });

  it('are taken one step early or late, and no more', async () => {
    const now = 1_234_567_890_000;
    const at = (offsetMs: number) =>
      stepOfCode(RFC_SECRET, '005924', { lastStep: null, now: now + offsetMs });
    await expect(at(30_000)).resolves.toBe(Math.floor(now / 30_000));
    await expect(at(-30_000)).resolves.toBe(Math.floor(now / 30_000));
    await expect(at(61_000)).rejects.toThrow('1 min behind');
  });

  it.each([
    [10 * MINUTE, 'a clock that is 10 min behind'],
    [-10 * MINUTE, 'a clock that is 10 min ahead'],
    [2 * HOUR, 'wrong or too old'],
  ])('tell how far a clock is off: %i ms', async (offset, words) => {
    const now = 1_234_567_890_000;
    await expect(stepOfCode(RFC_SECRET, '005924', { lastStep: null, now: now + offset })).rejects.toThrow(
      words,
    );
  });
});

describe('a second factor', () => {
  it('is asked for after the right password only, and lets in with its code', async () => {
    const { secret, uri } = await withSecondFactor('viewer');
    expect(uri).toMatch(/^otpauth:\/\/totp\/Vivid%20Beacon:viewer(%40|@)test\.example\?.*secret=/);
    const email = 'viewer@test.example';
    const without = await signIn(email);
    expect([without.status, without.body.error.code]).toEqual([401, 'CODE_NEEDED']);
    const wrong = await test.visitor().signIn(email, 'not the password');
    expect((wrong.body as unknown as Refused).error.code).toBe('WRONG_PASSWORD');
    // The code that confirmed it was used.
    expect((await signIn(email, await codeOf(secret))).body.error.message).toContain('used already');
    test.clock.now += MINUTE;
    expect((await signIn(email, await codeOf(secret))).body.person?.name).toBe('The viewer');
  });

  it('takes each recovery code once, however it is typed', async () => {
    const { visitor, recoveryCodes } = await withSecondFactor('operator');
    expect(new Set(recoveryCodes).size).toBe(10);
    const email = 'operator@test.example';
    const typed = recoveryCodes[3].toUpperCase().replaceAll('-', ' ');
    expect((await signIn(email, typed)).status).toBe(200);
    expect((await signIn(email, typed)).status).toBe(401);
    const { body } = await visitor.call<OwnAccount>('GET', '/api/own-account');
    expect([body.secondFactor, body.recoveryLeft]).toEqual([{ on: true, required: false }, 9]);
  });

  it('cannot be guessed: a right password does not make tries of codes free', async () => {
    await withSecondFactor('analyst');
    const tries: number[] = [];
    for (let i = 0; i < 10; i++)
      tries.push((await signIn('analyst@test.example', i % 2 ? '000000' : undefined)).status);
    expect(tries).toEqual([...Array<number>(8).fill(401), 429, 429]);
  });

  it('is kept sealed, and not in the trail', async () => {
    const { rows } = await test.owner.query<{ secret: Buffer }>(
      `select otp_secret as secret from person where email = 'viewer@test.example'`,
    );
    expect(makeSeal('x'.repeat(40)).open(rows[0].secret)).toMatch(/^[A-Z2-7]{32}$/);
    expect(makeSeal('y'.repeat(40)).open(rows[0].secret)).toBeUndefined();
    const told = await test.owner.query<{ after: Record<string, unknown> }>(
      `select after from trail where subject = 'person' and after ->> 'otp_secret' is not null limit 1`,
    );
    expect(told.rows[0].after.otp_secret).toBe('(secret)');
  });

  it('that is required has to be set up before anything else', async () => {
    const admin = (await administrator.call<SessionState>('GET', '/api/session')).body.person!;
    const people = await administrator.call<{ items: Account[] }>('GET', '/api/accounts?search=The%20viewer');
    const { id } = people.body.items[0];
    expect((await administrator.call('DELETE', `/api/accounts/${id}/second-factor`)).status).toBe(204);
    await administrator.call('PUT', `/api/accounts/${id}/second-factor`, { required: true });
    const visitor = await test.as('viewer');
    expect((await visitor.call<SessionState>('GET', '/api/session')).body.secondFactorDue).toBe(true);
    const refused = await visitor.call<Refused>('GET', '/api/boards');
    expect([refused.status, refused.body.error.code]).toEqual([403, 'SECOND_FACTOR']);
    test.clock.now += MINUTE;
    const begun = await visitor.call<{ secret: string }>('POST', '/api/own-account/second-factor', {
      password: PASSWORD,
    });
    await visitor.call('PUT', '/api/own-account/second-factor', { code: await codeOf(begun.body.secret) });
    expect((await visitor.call('GET', '/api/boards')).status).toBe(200);
    const removed = await visitor.call<Refused>('POST', '/api/own-account/second-factor/removal', {
      password: PASSWORD,
    });
    expect(removed.status).toBe(409);
    expect(admin.role).toBe('administrator');
  });

  it('is removed with the present password', async () => {
    const { visitor } = { visitor: test.visitor() };
    await visitor.signIn('administrator@test.example');
    const begun = await visitor.call<{ secret: string }>('POST', '/api/own-account/second-factor', {
      password: PASSWORD,
    });
    await visitor.call('PUT', '/api/own-account/second-factor', { code: await codeOf(begun.body.secret) });
    expect(
      (await visitor.call('POST', '/api/own-account/second-factor/removal', { password: 'wrong' })).status,
    ).toBe(401);
    expect(
      (await visitor.call('POST', '/api/own-account/second-factor/removal', { password: PASSWORD })).status,
    ).toBe(204);
    expect((await signIn('administrator@test.example')).status).toBe(200);
  });
});
