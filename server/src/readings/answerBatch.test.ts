import {
  FrameReader,
  decodeQuery,
  decodeTrend,
  type Frame,
  type QueryAnswer,
  type ErrorBody,
} from '@vivid-beacon/core';
import { onTestServer, push, TEST_NOW, serverWithMetric } from '../testing/testServer';

const HOUR = 3_600_000;
const { test, analyst } = onTestServer('analyst');

async function readingBatcher(asks: readonly object[]): Promise<Frame[]> {
  const session = await fetch(`${test.url}/api/session`, { headers: { cookie: analyst.cookie() } });
  const { csrfToken } = (await session.json()) as { csrfToken: string };
  const response = await fetch(`${test.url}/api/readings`, {
    method: 'POST',
    headers: { cookie: analyst.cookie(), 'x-form-token': csrfToken, 'content-type': 'application/json' },
    body: JSON.stringify({ asks }),
  });
  expect(response.status).toBe(200);
  const reader = new FrameReader();
  const frames = reader.push(new Uint8Array(await response.arrayBuffer()));
  expect(reader.cutShort).toBe(false);
  return frames.sort((a, b) => a.index - b.index);
}

/** The names of the prepared statements sent during an action. */
async function statementsOf(work: () => Promise<unknown>): Promise<string[]> {
  const { pool } = test.server.app;
  const names: string[] = [];
  const spy = jest.spyOn(pool, 'query');
  await work();
  for (const [first] of spy.mock.calls as unknown as [unknown][]) {
    if (typeof first === 'object' && first !== null && 'name' in first) names.push(String(first.name));
  }
  spy.mockRestore();
  return names;
}

const rolling = (count: number, unit: string) => ({ kind: 'rolling', count, unit });
const textOf = (frame: Frame): { error: ErrorBody } => JSON.parse(new TextDecoder().decode(frame.body));

describe('readings that are asked for together', () => {
  it('are answered as each by itself, and one that fails takes no other with it', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst);
    await push(
      test.url,
      token,
      Array.from({ length: 90 }, (_, i) => ({ metric: key, t: TEST_NOW - (90 - i) * 60_000, v: i })),
    );
    const query = {
      measures: [{ select: { metricIds: [metricId] }, summary: 'mean' }],
      window: rolling(1, 'hour'),
    };
    const trend = {
      measure: { metricId, summary: 'mean', per: null },
      window: rolling(1, 'hour'),
      columns: 100,
    };
    const frames = await readingBatcher([
      { kind: 'query', ask: query },
      {
        kind: 'query',
        ask: { ...query, measures: [{ select: { metricIds: ['999999'] }, summary: 'mean' }] },
      },
      { kind: 'trend', ask: trend },
      { kind: 'trend', ask: { ...trend, columns: 'many' } },
    ]);
    expect(frames.map(({ status, columns }) => [status, columns])).toEqual([
      [200, true],
      [404, false],
      [200, true],
      [422, false],
    ]);
    const alone = await analyst.call<QueryAnswer>('POST', '/api/readings/query', query);
    expect(decodeQuery(frames[0].body.buffer)).toEqual(alone.body);
    expect(textOf(frames[1]).error).toMatchObject({ code: 'NOT_FOUND' });
    const { body } = await analyst.call('POST', '/api/readings/trend', trend);
    expect(decodeTrend(frames[2].body.buffer)).toEqual(body);
    expect(textOf(frames[3]).error.path).toBe('columns');
  });

  it('look each metric up once and read its days once, whatever number of readouts show it', async () => {
    const made = [await serverWithMetric(analyst), await serverWithMetric(analyst)];
    for (const { key, token } of made) {
      const samples = Array.from({ length: 200 }, (_, i) => ({ metric: key, t: TEST_NOW - i * HOUR, v: i }));
      await push(test.url, token, samples);
    }
    const asks = made.flatMap(({ metricId }) =>
      ['mean', 'max', 'min', 'count'].flatMap((summary) =>
        [2, 3, 4].map((days) => ({
          kind: 'query',
          ask: {
            measures: [{ select: { metricIds: [metricId] }, summary }],
            window: { kind: 'periods', count: days, unit: 'day', current: false },
          },
        })),
      ),
    );
    const names = await statementsOf(() => readingBatcher(asks));
    const count = (name: string): number => names.filter((each) => each === name).length;
    expect(asks).toHaveLength(24);
    expect(count('metrics_by_id')).toBe(1);
    expect(names.filter((name) => name.startsWith('read_rollups'))).toHaveLength(1);
    const apart = await statementsOf(async () => {
      for (const { ask } of asks) await analyst.call('POST', '/api/readings/query', ask);
    });
    expect(apart.filter((name) => name.startsWith('read_rollups'))).toHaveLength(24);
  });

  it('are refused as a whole when there are too many, or of no kind', async () => {
    const ask = { kind: 'levels', ask: {} };
    const many = await analyst.call<{ error: ErrorBody }>('POST', '/api/readings', {
      asks: Array(81).fill(ask),
    });
    expect(many).toMatchObject({ status: 422, body: { error: { path: 'asks' } } });
    const odd = await analyst.call<{ error: ErrorBody }>('POST', '/api/readings', {
      asks: [{ kind: 'guess', ask: {} }],
    });
    expect(odd).toMatchObject({ status: 422, body: { error: { path: 'asks[0].kind' } } });
  });
});
