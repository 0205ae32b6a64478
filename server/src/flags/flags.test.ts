import {
  rightsEverywhere,
  type Flag,
  type FlagCause,
  type FlagEvent,
  type PageOf,
  type Person,
  type ErrorBody,
} from '@vivid-beacon/core';
import { addPerson } from '../people/sql';
import { hashPassword } from '../people/passwords';
import {
  onTestServer,
  PASSWORD,
  TEST_NOW,
  type Visitor,
  serverWithMetric,
  peopleOf,
} from '../testing/testServer';

const { test, analyst, operator } = onTestServer('analyst', 'operator');
let assetId: string;
let metricId: string;
let people: readonly Person[];
beforeAll(async () => {
  ({ assetId, metricId } = await serverWithMetric(analyst));
  const passwordHash = await hashPassword(PASSWORD);
  const at = TEST_NOW;
  await addPerson(test.server.app.pool, {
    email: 'second@test.example',
    name: 'Second',
    rights: rightsEverywhere('operator'),
    passwordHash,
    at,
  });
  people = await peopleOf(analyst);
});

const idOf = (name: string): string => people.find((person) => person.name === name)!.id;
const hand = (by: Visitor, part: object = {}) =>
  by.call<Flag>('POST', '/api/flags', {
    title: 'Look at it',
    note: '',
    toPersonId: idOf('Second'),
    dueAt: TEST_NOW,
    alarmId: null,
    assetId,
    ...part,
  });

describe('flags', () => {
  it('are handed to people who can close them, on assets that exist', async () => {
    expect((await hand(operator)).body).toMatchObject({
      title: 'Look at it',
      to: { name: 'Second' },
      closedAt: null,
    });
    expect((await hand(operator, { toPersonId: idOf('The viewer') })).status).toBe(422);
    expect((await hand(operator, { assetId: '999999' })).status).toBe(422);
    expect((await hand(operator, { alarmId: '999999' })).status).toBe(422);
    expect((await hand(operator, { title: '  ' })).body).toMatchObject({ error: { path: 'title' } });
    expect((await hand(await test.as('viewer'))).status).toBe(403);
  });

  it('are closed by their taker, their giver or an analyst, not by any operator', async () => {
    const outcome = { outcome: 'noFault', note: '' };
    const given = (await hand(analyst)).body;
    expect((await operator.call('POST', `/api/flags/${given.id}/outcome`, outcome)).status).toBe(403);
    const taker = test.visitor();
    await taker.signIn('second@test.example');
    expect((await taker.call<Flag>('POST', `/api/flags/${given.id}/outcome`, outcome)).body).toMatchObject({
      outcome: 'noFault',
      closedAt: TEST_NOW,
    });
    const other = (await hand(operator)).body;
    expect((await operator.call('POST', `/api/flags/${other.id}/outcome`, { outcome: 'magic' })).status).toBe(
      422,
    );
    expect((await analyst.call('POST', `/api/flags/${other.id}/outcome`, outcome)).status).toBe(200);
  });

  it('leave the open list once they are closed', async () => {
    const flag = (await hand(operator)).body;
    const open = async () =>
      (await operator.call<PageOf<Flag>>('GET', '/api/flags')).body.items.some(({ id }) => id === flag.id);
    expect(await open()).toBe(true);
    await operator.call('POST', `/api/flags/${flag.id}/outcome`, {
      outcome: 'adjusted',
      note: 'Turned down.',
    });
    expect(await open()).toBe(false);
  });

  const evidence = {
    title: 'Bed temperature',
    address: '/boards/4?window=x',
    window: { start: TEST_NOW - 7_200_000, end: TEST_NOW - 3_600_000 },
    numbers: [{ name: 'Mean', text: '81.3 °C' }],
  };
  const detail = async (id: string) =>
    (await operator.call<{ flag: Flag; events: FlagEvent[] }>('GET', `/api/flags/${id}`)).body;

  it('keep their evidence as it was, and lie on the time line of their metric where it points to', async () => {
    const { id } = (await hand(operator, { metricId, kind: 'loss', priority: 'high', evidence })).body;
    expect((await detail(id)).flag).toMatchObject({
      evidence,
      kind: 'loss',
      priority: 'high',
      status: 'open',
    });
    const onTime = async (from: number, to: number) =>
      (
        await operator.call<Flag[]>('GET', `/api/flags/on-time?metricIds=${metricId}&from=${from}&to=${to}`)
      ).body.map((flag) => flag.id);
    expect(await onTime(TEST_NOW - 4_000_000, TEST_NOW)).toEqual([id]);
    expect(await onTime(TEST_NOW - 3_000_000, TEST_NOW)).toEqual([]);
    for (const query of ['metricIds=x&from=1&to=2', `metricIds=${metricId}&from=2&to=2`]) {
      expect((await operator.call('GET', `/api/flags/on-time?${query}`)).status).toBe(422);
    }
  });

  it.each([
    ['leads out of the app', { ...evidence, address: '//elsewhere.example' }, 'evidence.address'],
    [
      'has a stretch that ends before it starts',
      { ...evidence, window: { start: 2, end: 1 } },
      'evidence.window',
    ],
    [
      'has numbers without end',
      { ...evidence, numbers: Array(61).fill({ name: 'n', text: '1' }) },
      'evidence.numbers',
    ],
  ])('refuse evidence that %s', async (_what, wrong, path) => {
    const { status, body } = await hand(operator, { evidence: wrong });
    expect([status, (body as unknown as { error: ErrorBody }).error.path]).toEqual([422, path]);
  });

  it('go from open to in hand to done with cause and time spent, every step with who and when', async () => {
    const cause = (await analyst.call<FlagCause>('POST', '/api/flag-causes', { name: 'Lint in the filter' }))
      .body;
    expect((await analyst.call('POST', '/api/flag-causes', { name: 'Lint in the filter' })).status).toBe(409);
    const { id } = (await hand(operator)).body;
    const taker = test.visitor();
    await taker.signIn('second@test.example');
    expect((await taker.call<Flag>('POST', `/api/flags/${id}/in-hand`)).body.status).toBe('inHand');
    expect((await taker.call('POST', `/api/flags/${id}/in-hand`)).status).toBe(409);
    await taker.call('POST', `/api/flags/${id}/comments`, { remark: 'Filter is full.' });
    expect((await taker.call('POST', `/api/flags/${id}/comments`, { remark: ' ' })).status).toBe(422);
    const close = { outcome: 'mended', note: 'Cleaned.', causeId: cause.id, minutesSpent: 25 };
    expect(
      (await taker.call('POST', `/api/flags/${id}/outcome`, { ...close, causeId: '987654' })).status,
    ).toBe(422);
    expect(
      (await taker.call('POST', `/api/flags/${id}/outcome`, { ...close, minutesSpent: -1 })).status,
    ).toBe(422);
    expect((await taker.call<Flag>('POST', `/api/flags/${id}/outcome`, close)).body).toMatchObject({
      status: 'done',
      cause: 'Lint in the filter',
      minutesSpent: 25,
    });
    // A cause removed from the list stays with the flags that name it.
    expect((await analyst.call('DELETE', `/api/flag-causes/${cause.id}`)).status).toBe(204);
    expect((await detail(id)).flag.cause).toBe('Lint in the filter');
    expect((await operator.call<FlagCause[]>('GET', '/api/flag-causes')).body).toEqual([]);
    expect((await taker.call<Flag>('DELETE', `/api/flags/${id}/outcome`)).body).toMatchObject({
      status: 'open',
      closedAt: null,
    });
    expect((await taker.call('DELETE', `/api/flags/${id}/outcome`)).status).toBe(409);
    const { events } = await detail(id);
    expect(events.map(({ kind, personName }) => [kind, personName])).toEqual([
      ['handed', 'The operator'],
      ['inHand', 'Second'],
      ['comment', 'Second'],
      ['closed', 'Second'],
      ['reopened', 'Second'],
    ]);
    expect(events[3].remark).toBe('Mended. Cleaned.');
  });

  it('are not a problem where no fault was found', async () => {
    const { id } = (await hand(operator)).body;
    const answer = await operator.call<Flag>('POST', `/api/flags/${id}/outcome`, { outcome: 'noFault' });
    expect(answer.body.status).toBe('notProblem');
    const closed = (await operator.call<PageOf<Flag>>('GET', '/api/flags?state=closed')).body.items;
    expect(closed.some((flag) => flag.id === id)).toBe(true);
  });

  it('are handed on by those they belong to, to somebody who can close them', async () => {
    const { id } = (await hand(analyst)).body;
    const to = { toPersonId: idOf('The operator'), remark: 'Night shift.' };
    expect((await operator.call('POST', `/api/flags/${id}/taker`, to)).status).toBe(403);
    expect(
      (await analyst.call('POST', `/api/flags/${id}/taker`, { toPersonId: idOf('The viewer') })).status,
    ).toBe(422);
    expect((await analyst.call<Flag>('POST', `/api/flags/${id}/taker`, to)).body.to.name).toBe(
      'The operator',
    );
    expect((await detail(id)).events[1].remark).toBe('to The operator. Night shift.');
    await operator.call('POST', `/api/flags/${id}/outcome`, { outcome: 'other' });
    expect((await analyst.call('POST', `/api/flags/${id}/taker`, to)).status).toBe(409);
  });

  it('are closed once, though two people close them at the same moment', async () => {
    const { id } = (await hand(operator)).body;
    const answers = await Promise.all(
      [operator, analyst, operator, analyst].map((each) =>
        each.call('POST', `/api/flags/${id}/outcome`, { outcome: 'mended' }),
      ),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409, 409, 409]);
    expect((await detail(id)).events.filter(({ kind }) => kind === 'closed')).toHaveLength(1);
  });
});
