import type { Alarm, ErrorBody, PageOf, Rights } from '@vivid-beacon/core';
import { addPerson } from '../people/sql';
import { hashPassword } from '../people/passwords';
import { onTestServer, PASSWORD, push, ruleDraft, TEST_NOW, type Visitor } from '../testing/testServer';

const { test, administrator } = onTestServer('administrator');

const post = async <T = { id: string }>(path: string, body: object): Promise<T> =>
  (await administrator.call<T>('POST', path, body)).body;
const plant = (name: string) => post('/api/assets', { name, kind: 'plant', zone: 'Europe/London' });

async function join(name: string, rights: Rights): Promise<Visitor> {
  const email = `${name}@plant.example`;
  const passwordHash = await hashPassword(PASSWORD);
  await addPerson(test.server.app.pool, { email, name, rights, passwordHash, at: TEST_NOW });
  const visitor = test.visitor();
  await visitor.signIn(email);
  return visitor;
}

describe('an asset that moves to another plant with an alarm standing', () => {
  it('takes its alarm, its flag and its metric along, for those who see that plant; a token of the old one writes no more', async () => {
    const [from, to] = [await plant('Old quay'), await plant('New quay')];
    const machine = await post('/api/assets', {
      name: 'Press',
      kind: 'machine',
      parentId: from.id,
      zone: null,
    });
    const metric = await post<{ id: string; key: string }>('/api/metrics', {
      assetId: machine.id,
      name: 'Oil',
      unit: '°C',
      kind: 'level',
      intervalMs: 60_000,
    });
    const { token } = await post<{ token: string }>('/api/push-tokens', {
      name: 'Old gateway',
      plantId: from.id,
    });
    await push(test.url, token, [{ metric: metric.key, t: TEST_NOW - 60_000, v: 300 }]);
    await post('/api/alarm-rules', ruleDraft(metric.id));
    const there = await join('there', { everywhere: null, plants: { [from.id]: 'analyst' } });
    const elsewhere = await join('elsewhere', { everywhere: null, plants: { [to.id]: 'operator' } });
    const alarms = async (by: Visitor): Promise<readonly Alarm[]> =>
      (await by.call<PageOf<Alarm>>('GET', '/api/alarms?list=standing')).body.items;
    expect([(await alarms(there)).length, (await alarms(elsewhere)).length]).toEqual([1, 0]);

    const moved = { name: 'Press', kind: 'machine', parentId: to.id, zone: null, attributes: {} };
    // Who reaches the old plant only cannot give it away.
    const refused = await there.call<{ error: ErrorBody }>('PUT', `/api/assets/${machine.id}`, moved);
    expect([refused.status, refused.body.error.path]).toEqual([422, 'parentId']);
    expect((await administrator.call('PUT', `/api/assets/${machine.id}`, moved)).status).toBe(200);

    expect([(await alarms(there)).length, (await alarms(elsewhere)).length]).toEqual([0, 1]);
    const [{ id }] = await alarms(elsewhere);
    expect((await there.call('GET', `/api/alarms/${id}`)).status).toBe(404);
    expect((await elsewhere.call('POST', `/api/alarms/${id}/acknowledgement`, { remark: '' })).status).toBe(
      200,
    );
    expect((await there.call('GET', `/api/metrics/${metric.id}`)).status).toBe(404);
    test.clock.now += 60_000;
    const late = await push<{ added: number; refused: { reason: string }[] }>(test.url, token, [
      { metric: metric.key, t: test.clock.now, v: 1 },
    ]);
    expect([late.body.added, late.body.refused[0].reason]).toEqual([
      0,
      expect.stringContaining('may not write'),
    ]);
  });
});

describe('a token', () => {
  it('writes at its plant, its metrics and until its end only', async () => {
    const [own, other] = [await plant('Own'), await plant('Other')];
    const metricOf = (assetId: string, name: string) =>
      post<{ id: string; key: string }>('/api/metrics', {
        assetId,
        name,
        unit: '°C',
        kind: 'level',
        intervalMs: 60_000,
      });
    const metrics = [await metricOf(own.id, 'A'), await metricOf(own.id, 'B'), await metricOf(other.id, 'C')];
    const { token } = await post<{ token: string }>('/api/push-tokens', {
      name: 'A only',
      plantId: own.id,
      metricIds: [metrics[0].id],
      endsAt: test.clock.now + 60_000,
    });
    const send = () =>
      push<{ added: number; refused: { index: number }[] }>(
        test.url,
        token,
        metrics.map(({ key }) => ({ metric: key, t: test.clock.now, v: 1 })),
      );
    const { body } = await send();
    expect([body.added, body.refused.map(({ index }) => index)]).toEqual([1, [1, 2]]);
    test.clock.now += 61_000;
    test.server.app.tokens.forget();
    expect((await send()).status).toBe(401);
    const wrong = { name: 'X', plantId: own.id, metricIds: [metrics[2].id] };
    expect((await administrator.call('POST', '/api/push-tokens', wrong)).status).toBe(422);
  });
});
