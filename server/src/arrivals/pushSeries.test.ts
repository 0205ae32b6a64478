import { Gauge, Registry } from 'prom-client';
import type { HeardSeries, PushAnswer, PushToken } from '@vivid-beacon/core';
import { onTestServer, push, TEST_NOW, serverWithMetric } from '../testing/testServer';

const { test, analyst } = onTestServer('analyst');

interface Sender {
  readonly id: string;
  readonly send: (text: string) => Promise<PushAnswer>;
  readonly sendJson: (samples: object[]) => Promise<PushAnswer>;
  readonly heard: () => Promise<HeardSeries[]>;
  readonly rule: (rule: object) => Promise<number>;
  readonly map: (body: object) => Promise<{ status: number; body: { metricId: string | null } }>;
}

async function sender(): Promise<Sender> {
  const { body } = await analyst.call<{ id: string; token: string }>('POST', '/api/push-tokens', {
    name: 'Text',
  });
  const path = `/api/push-tokens/${body.id}`;
  return {
    id: body.id,
    send: async (text) =>
      (
        await push<PushAnswer>(test.url, body.token, `${text}\n# EOF\n`, {
          'content-type': 'application/openmetrics-text; version=1.0.0',
        })
      ).body,
    sendJson: async (samples) => (await push<PushAnswer>(test.url, body.token, samples)).body,
    heard: async () => (await analyst.call<HeardSeries[]>('GET', `${path}/heard`)).body,
    rule: async (rule) => (await analyst.call('PUT', `${path}/rule`, rule)).status,
    map: (mapping) => analyst.call('POST', `${path}/heard`, mapping),
  };
}

const stored = async (metricId: string): Promise<number[]> =>
  (
    await test.server.app.pool.query<{ v: number }>(
      `select v from metric_samples($1, '2000-01-01', '2100-01-01') order by t`,
      [metricId],
    )
  ).rows.map(({ v }) => v);

const seconds = (ago: number): number => TEST_NOW / 1000 - ago;

describe('labels of exposition text', () => {
  it('tell series apart: each waits in a list until it is mapped, in one step', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const { send, heard, map } = await sender();
    const text = `flow{line="2",plant="x"} 2 ${seconds(60)}\nflow{plant="x",line="1"} 1 ${seconds(60)}`;
    const first = await send(text);
    expect(first.added).toBe(0);
    expect(first.refused.map(({ reason }) => reason)).toEqual([
      expect.stringContaining('flow{line="2",plant="x"} is heard but not mapped'),
      expect.stringContaining('flow{line="1",plant="x"} is heard but not mapped'),
    ]);
    expect(await heard()).toMatchObject([
      {
        series: 'flow{line="1",plant="x"}',
        labels: { line: '1', plant: 'x' },
        lastValue: 1,
        metricId: null,
        heard: 1,
      },
      { series: 'flow{line="2",plant="x"}', lastValue: 2 },
    ]);
    expect((await map({ series: 'flow{line="1",plant="x"}', metricId })).status).toBe(200);
    expect((await send(text)).added).toBe(1);
    expect(await stored(metricId)).toEqual([1]);
    expect((await map({ series: 'never', metricId })).status).toBe(404);
    const { body } = await analyst.call<PushToken[]>('GET', '/api/push-tokens');
    expect(body.find(({ name, waiting }) => name === 'Text' && waiting === 1)).toBeDefined();
  });

  it('name asset and metric by the rule of the token, which finds them or makes them', async () => {
    const { assetId } = await serverWithMetric(analyst);
    const { send, rule, heard } = await sender();
    expect(await rule({ unknown: 'make', assetLabel: 'machine' })).toBe(422);
    expect(await rule({ unknown: 'make', assetLabel: 'machine', parentId: assetId })).toBe(204);
    const text = ['Dryer 1', 'Dryer 2']
      .map((machine, i) => `bed_temperature{machine="${machine}"} ${200 + i} ${seconds(60)}`)
      .join('\n');
    expect(await send(text)).toMatchObject({ added: 2, refused: [] });
    expect(await send(text)).toMatchObject({ added: 0, unchanged: 2 });
    const { rows } = await test.server.app.pool.query(
      `select asset.name as asset, metric.name as metric from metric join asset on asset.id = metric.asset_id
       where asset.parent_id = $1 order by asset.name`,
      [assetId],
    );
    expect(rows).toEqual([
      { asset: 'Dryer 1', metric: 'bed_temperature' },
      { asset: 'Dryer 2', metric: 'bed_temperature' },
    ]);
    expect((await heard()).every(({ metricId }) => metricId !== null)).toBe(true);
  });

  it('are read from the text of a client library, whose series never grow together', async () => {
    const kept = new Registry();
    const gauge = new Gauge({
      name: 'bed_temperature',
      help: 'x',
      labelNames: ['machine'],
      registers: [kept],
    });
    gauge.set({ machine: 'Ironer 1' }, 200);
    gauge.set({ machine: 'Ironer 2' }, 210);
    const { body } = await analyst.call<{ id: string; token: string }>('POST', '/api/push-tokens', {
      name: 'Client',
    });
    const answer = await push<PushAnswer>(test.url, body.token, await kept.metrics(), {
      'content-type': kept.contentType,
    });
    expect([answer.status, answer.body.refused.length]).toEqual([200, 2]);
    const heard = await analyst.call<HeardSeries[]>('GET', `/api/push-tokens/${body.id}/heard`);
    expect(heard.body.map(({ labels, lastValue }) => [labels.machine, lastValue])).toEqual([
      ['Ironer 1', 200],
      ['Ironer 2', 210],
    ]);
  });
});

describe('names of exposition text', () => {
  it('keep a counter and a gauge of the same stem apart', async () => {
    const gauge = await serverWithMetric(analyst, { name: 'Requests' });
    const { send } = await sender();
    const name = gauge.key.replace(/[^a-z0-9]+/g, '_');
    expect(await send(`${name}_total 5 ${seconds(120)}`)).toMatchObject({ added: 1 });
    const both = await send(`${name}_total 6 ${seconds(60)}\n${name} 3 ${seconds(60)}`);
    expect([both.added, both.refused.length]).toEqual([1, 1]);
    expect(await stored(gauge.metricId)).toEqual([5, 3]);
  });

  it('are refused with the key that was probably meant', async () => {
    const { key } = await serverWithMetric(analyst);
    const { sendJson } = await sender();
    const wrong = key.replace('bed-temperature', 'bedtemperatur');
    const { refused } = await sendJson([{ metric: wrong, t: TEST_NOW, v: 1 }]);
    expect(refused[0].reason).toBe(
      `there is no metric "${wrong}" that takes samples; did you mean "${key}"?`,
    );
  });
});

describe('texts that cannot be stored', () => {
  it('refuse their sample and not the batch', async () => {
    const { key } = await serverWithMetric(analyst);
    const { sendJson, send } = await sender();
    const good = { metric: key, t: TEST_NOW - 60_000, v: 1 };
    for (const odd of ['a\0b', 'a\uD83Db']) {
      const answer = await sendJson([good, { ...good, metric: odd }]);
      expect(answer.refused).toMatchObject([
        { index: 1, reason: expect.stringContaining('there is no metric') },
      ]);
    }
    const { refused } = await send(`x{a="\0"} 1\nx{metric="${key}"} 1 ${seconds(30)}`);
    expect(refused).toEqual([{ index: 0, reason: expect.stringContaining('U+0000') }]);
    const named = await analyst.call<{ error: { path: string } }>('POST', '/api/push-tokens', {
      name: 'a\0',
    });
    expect([named.status, named.body.error.path]).toEqual([422, 'name']);
  });
});

describe('values that meet in one push', () => {
  it('are told with both places, and the last holds unless the token says otherwise', async () => {
    const { key, metricId } = await serverWithMetric(analyst);
    const { sendJson, rule } = await sender();
    const samples = (ago: number, ...values: number[]) =>
      values.map((v) => ({ metric: key, t: TEST_NOW - ago * 60_000, v }));
    const last = await sendJson(samples(9, 1, 1, 4));
    expect(last).toMatchObject({ added: 1, unchanged: 2, met: [{ index: 2, first: 0 }] });
    expect(last.met[0].reason).toContain('4 meets 1 of the same series');
    for (const [ago, collisions] of [
      [8, 'first'],
      [7, 'sum'],
      [6, 'mean'],
    ] as const) {
      expect(await rule({ collisions })).toBe(204);
      await sendJson(samples(ago, 1, 4));
    }
    expect(await stored(metricId)).toEqual([4, 1, 5, 2.5]);
  });

  it('without times of their own meet too', async () => {
    const { key, metricId } = await serverWithMetric(analyst);
    const { send } = await sender();
    const { met } = await send(`x{metric="${key}",a="1"} 1\nx{metric="${key}",a="2"} 2`);
    expect(met).toMatchObject([{ index: 1, first: 0 }]);
    expect(await stored(metricId)).toEqual([2]);
  });
});
