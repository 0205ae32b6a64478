import type {
  Account,
  ErrorBody,
  InvitationLink,
  OwnAccount,
  PageOf,
  SessionState,
} from '@vivid-beacon/core';
import { listenTo, onTestServer, serverWithMetric, type Visitor } from '../testing/testServer';

const { test, administrator, analyst } = onTestServer('administrator', 'analyst');

const GOOD = 'seven grey geese over the harbour';
const HOUR = 3_600_000;
type Refused = { error: ErrorBody };

let count = 0;
interface Invited {
  readonly id: string;
  readonly email: string;
  readonly link: InvitationLink;
}

async function invite(rights: object = { everywhere: 'operator' }, part: object = {}): Promise<Invited> {
  const email = `new-${count++}@test.example`;
  const { status, body } = await administrator.call<Invited>('POST', '/api/accounts', {
    name: 'Nora Lind',
    email,
    rights,
    ...part,
  });
  expect(status).toBe(200);
  return { ...body, email };
}

const tokenOf = ({ path }: InvitationLink): string => path.split('#')[1];

/** Uses a link. */
async function welcome(link: InvitationLink, password = GOOD, by: Visitor = test.visitor()) {
  // For its form token.
  await by.call('GET', '/api/session');
  return by.call<SessionState & Refused>('POST', '/api/invitations', { token: tokenOf(link), password });
}

async function joined(rights?: object): Promise<Invited & { visitor: Visitor }> {
  const invited = await invite(rights);
  expect((await welcome(invited.link)).status).toBe(200);
  const visitor = test.visitor();
  expect((await visitor.signIn(invited.email, GOOD)).status).toBe(200);
  return { ...invited, visitor };
}

const account = async (id: string): Promise<Account> =>
  (await administrator.call<Account>('GET', `/api/accounts/${id}`)).body;

describe('an invitation', () => {
  it('lets somebody choose a password, once, and signs them in with their rights', async () => {
    const { id, email, link } = await invite();
    expect(await account(id)).toMatchObject({
      state: 'invited',
      role: 'operator',
      invitedUntil: link.endsAt,
    });
    const visitor = test.visitor();
    expect((await visitor.signIn(email, GOOD)).status).toBe(401);
    const read = await visitor.call('POST', '/api/invitations/read', { token: tokenOf(link) });
    expect(read.body).toEqual({ name: 'Nora Lind', email, endsAt: link.endsAt });
    expect((await welcome(link)).body.person).toMatchObject({ id, role: 'operator' });
    expect(await account(id)).toMatchObject({ state: 'active', invitedUntil: null });
    const again = await welcome(link);
    expect([again.status, again.body.error.message]).toEqual([404, expect.stringContaining('used already')]);
  });

  it('is used by one of two who hold it at the same moment', async () => {
    const { link } = await invite();
    const answers = await Promise.all([welcome(link), welcome(link, `${GOOD} too`)]);
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 404]);
  });

  it('ends at its time, with the account that is disabled, and with a newer one', async () => {
    const late = await invite(undefined, { holdsForH: 1 });
    test.clock.now += HOUR;
    expect((await welcome(late.link)).status).toBe(404);
    const newer = await administrator.call<InvitationLink>('POST', `/api/accounts/${late.id}/invitation`, {});
    const newest = await administrator.call<InvitationLink>(
      'POST',
      `/api/accounts/${late.id}/invitation`,
      {},
    );
    expect((await welcome(newer.body)).status).toBe(404);
    await administrator.call('PUT', `/api/accounts/${late.id}/disabled`, { disabled: true });
    expect((await welcome(newest.body)).status).toBe(404);
    await administrator.call('PUT', `/api/accounts/${late.id}/disabled`, { disabled: false });
    expect((await welcome(newest.body)).status).toBe(200);
  });

  it('resets a forgotten password: the old one works until the new one is set, and then no session of before', async () => {
    const { id, email, visitor } = await joined();
    const { body: link } = await administrator.call<InvitationLink>(
      'POST',
      `/api/accounts/${id}/invitation`,
      {},
    );
    expect((await visitor.call('GET', '/api/boards')).status).toBe(200);
    expect((await welcome(link, 'nine brown bears by the river')).status).toBe(200);
    expect((await visitor.call('GET', '/api/boards')).status).toBe(401);
    expect((await test.visitor().signIn(email, GOOD)).status).toBe(401);
  });

  it.each([
    ['short', 'grey geese'],
    ['known from breaches', '1234567890123456'],
    ['a keyboard walk', 'qwertyuiopasdfgh'],
    ['a repetition', 'aaaaaaaaaaaaaaaaaa'],
    ['made of their own name', 'Nora Lind Nora Lind'],
  ])('refuses a password that is %s', async (_what, password) => {
    const { link } = await invite();
    expect((await welcome(link, password)).status).toBe(422);
    expect((await welcome(link)).status).toBe(200);
  });

  it('is not made twice for one address, in whatever letter case, nor for a plant that is not there', async () => {
    const { email } = await invite();
    const same = await administrator.call<Refused>('POST', '/api/accounts', {
      name: 'X',
      email: email.toUpperCase(),
      rights: { everywhere: 'viewer' },
    });
    expect([same.status, same.body.error.path]).toEqual([422, 'email']);
    for (const rights of [{}, { plants: {} }, { plants: { 987654: 'viewer' } }, { plants: { 1: 'boss' } }]) {
      const body = { name: 'X', email: 'x@test.example', rights };
      expect((await administrator.call('POST', '/api/accounts', body)).status).toBe(422);
    }
  });
});

describe('changed rights', () => {
  it('hold with the next request, end live messages at once, and go on under a new session id', async () => {
    const { assetId: first } = await serverWithMetric(analyst);
    const { assetId: second } = await serverWithMetric(analyst);
    const { id, email, visitor } = await joined({ plants: { [first]: 'viewer', [second]: 'operator' } });
    const seen = async (): Promise<string[]> =>
      (await visitor.call<PageOf<{ id: string }>>('GET', '/api/assets')).body.items.map((each) => each.id);
    expect((await seen()).sort()).toEqual([first, second].sort());
    const screen = await listenTo(test.url, visitor);
    await screen.until('event:hello');
    const cookie = visitor.cookie();
    const rights = { everywhere: null, plants: { [first]: 'viewer' } };
    await administrator.call('PUT', `/api/accounts/${id}`, { name: 'Nora Lind', email, rights });
    await screen.until('event:rights');
    await screen.ended;
    expect(await seen()).toEqual([first]);
    const { person } = (await visitor.call<SessionState>('GET', '/api/session')).body;
    expect(person).toMatchObject({ role: 'viewer', rights });
    expect(visitor.cookie()).not.toBe(cookie);
    expect(await seen()).toEqual([first]);
  });

  it('tell those who see some plants that something changed, and not what', async () => {
    const { assetId } = await serverWithMetric(analyst);
    const { visitor } = await joined({ plants: { [assetId]: 'viewer' } });
    const [one, all] = [await listenTo(test.url, visitor), await listenTo(test.url, analyst)];
    await Promise.all([one.until('event:hello'), all.until('event:hello')]);
    const { metricId } = await serverWithMetric(analyst);
    await all.until(`"ids":["${metricId}"]`);
    expect(await one.until('"topic":"metrics"')).not.toMatch(/"ids":\["/);
    one.stop();
    all.stop();
  });
});

describe('the last administrator', () => {
  it('stays, also when two remove one another at the same moment', async () => {
    const second = await joined({ everywhere: 'administrator' });
    const me = (await administrator.call<SessionState>('GET', '/api/session')).body.person!.id;
    const disable = (by: Visitor, id: string) =>
      by.call<Refused>('PUT', `/api/accounts/${id}/disabled`, { disabled: true });
    const both = await Promise.all([disable(administrator, second.id), disable(second.visitor, me)]);
    // The other one is refused as the last, or is signed out already.
    const statuses = both.map(({ status }) => status).sort();
    expect(statuses[0]).toBe(200);
    expect([401, 403, 409]).toContain(statuses[1]);
    const left = both[0].status === 200 ? administrator : second.visitor;
    const own = both[0].status === 200 ? me : second.id;
    expect((await disable(left, own)).body.error.message).toContain('the last account');
    const fewer = await left.call<Refused>('PUT', `/api/accounts/${own}`, {
      name: 'X',
      email: 'last@test.example',
      rights: { everywhere: 'analyst' },
    });
    expect([fewer.status, fewer.body.error.code]).toEqual([409, 'WRONG_STATE']);
    // As it was, for the tests after this one.
    const gone = both[0].status === 200 ? second.id : me;
    await left.call('PUT', `/api/accounts/${gone}/disabled`, { disabled: false });
    if (gone === me) await administrator.signIn('administrator@test.example');
  });
});

describe('the own account', () => {
  it('keeps where one begins, and refuses addresses outside of the app', async () => {
    const { visitor } = await joined();
    const put = (startAt: string) =>
      visitor.call('PUT', '/api/own-account', { name: 'Nora Lind', startAt, formats: null });
    expect((await put('/boards/7')).status).toBe(204);
    expect((await visitor.call<SessionState>('GET', '/api/session')).body.startAt).toBe('/boards/7');
    for (const wrong of [
      'https://elsewhere.example',
      '//elsewhere.example',
      '/boards/7/../..',
      'javascript:1',
      '',
    ]) {
      expect((await put(wrong)).status).toBe(422);
    }
  });

  it('shows where one is signed in, and signs out elsewhere', async () => {
    const { email, visitor } = await joined();
    const phone = test.visitor();
    await phone.signIn(email, GOOD);
    const own = async (): Promise<OwnAccount> =>
      (await visitor.call<OwnAccount>('GET', '/api/own-account')).body;
    // That of the invitation is one more.
    const { sessions } = await own();
    expect(sessions.map(({ current }) => current).sort()).toEqual([false, false, true]);
    expect(JSON.stringify(sessions)).not.toContain(decodeURIComponent(visitor.cookie()).slice(20, 40));
    const other = sessions.find(({ current }) => !current)!;
    expect((await visitor.call('DELETE', `/api/own-account/sessions/${other.id}`)).status).toBe(204);
    expect((await visitor.call('DELETE', `/api/own-account/sessions/${other.id}`)).status).toBe(404);
    expect((await visitor.call('DELETE', '/api/own-account/sessions')).status).toBe(204);
    expect((await own()).sessions).toHaveLength(1);
    expect((await phone.call('GET', '/api/boards')).status).toBe(401);
  });

  it('changes its password only with the present one, and ends all other sessions', async () => {
    const { email, visitor } = await joined();
    const phone = test.visitor();
    await phone.signIn(email, GOOD);
    const next = 'nine brown bears by the river';
    const change = (old: string, by = visitor) =>
      by.call<SessionState & Refused>('PUT', '/api/own-account/password', { old, new: next });
    const wrong = await change('not this one');
    expect([wrong.status, wrong.body.error.path]).toEqual([401, 'old']);
    const cookie = visitor.cookie();
    expect((await change(GOOD)).status).toBe(200);
    expect(visitor.cookie()).not.toBe(cookie);
    expect((await visitor.call('GET', '/api/boards')).status).toBe(200);
    expect((await phone.call('GET', '/api/boards')).status).toBe(401);
    expect((await test.visitor().signIn(email, next)).status).toBe(200);
  });

  it('cannot be used to try passwords without end', async () => {
    const { visitor } = await joined();
    const tries = [];
    for (let i = 0; i < 9; i++) {
      tries.push(
        (await visitor.call('PUT', '/api/own-account/password', { old: 'wrong', new: GOOD })).status,
      );
    }
    expect(tries).toEqual([...Array<number>(8).fill(401), 429]);
  });

  it('ends when an administrator disables it or signs it out', async () => {
    const { id, email, visitor } = await joined();
    await administrator.call('DELETE', `/api/accounts/${id}/sessions`);
    expect((await visitor.call('GET', '/api/boards')).status).toBe(401);
    expect((await visitor.signIn(email, GOOD)).status).toBe(200);
    await administrator.call('PUT', `/api/accounts/${id}/disabled`, { disabled: true });
    expect((await visitor.call('GET', '/api/boards')).status).toBe(401);
    expect((await visitor.signIn(email, GOOD)).status).toBe(401);
    const { body } = await administrator.call<PageOf<Account>>(
      'GET',
      `/api/accounts?state=disabled&search=${email}`,
    );
    expect(body.items.map((each) => each.id)).toEqual([id]);
  });
});

describe('10,000 people', () => {
  it('are listed a page at a time and found by words', async () => {
    await test.server.app.pool.query(
      `insert into person (email, name, role, role_everywhere, created_at)
       select 'many-' || n || '@test.example', 'Person ' || n, 'viewer', 'viewer', now() from generate_series(1, 10000) n`,
    );
    const { body } = await administrator.call<PageOf<Account>>('GET', '/api/accounts?search=person&limit=50');
    expect([body.total, body.items[1].name]).toEqual([10_000, 'Person 2']);
    const found = await analyst.call<PageOf<{ name: string }>>('GET', '/api/people?search=person%209999');
    expect(found.body.items.map(({ name }) => name)).toEqual(['Person 9999']);
  });
});
