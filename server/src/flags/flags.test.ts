import type { Flag, Person } from '@vivid-beacon/core';
import { addPerson } from '../people/sql';
import { hashPassword } from '../people/passwords';
import {
  PASSWORD,
  startTestServer,
  TEST_NOW,
  withMetric,
  type TestServer,
  type Visitor,
} from '../testing/testServer';

let test: TestServer;
let analyst: Visitor;
let operator: Visitor;
let assetId: string;
let people: Person[];
beforeAll(async () => {
  test = await startTestServer();
  analyst = await test.as('analyst');
  operator = await test.as('operator');
  assetId = (await withMetric(analyst)).assetId;
  const passwordHash = await hashPassword(PASSWORD);
  const at = TEST_NOW;
  await addPerson(test.server.app.pool, {
    email: 'second@test.example',
    name: 'Second',
    role: 'operator',
    passwordHash,
    at,
  });
  people = (await analyst.call<Person[]>('GET', '/api/people')).body;
});
afterAll(() => test.stop());

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
      (await operator.call<Flag[]>('GET', '/api/flags')).body.some(({ id }) => id === flag.id);
    expect(await open()).toBe(true);
    await operator.call('POST', `/api/flags/${flag.id}/outcome`, {
      outcome: 'adjusted',
      note: 'Turned down.',
    });
    expect(await open()).toBe(false);
  });
});
