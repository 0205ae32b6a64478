import type { Intake, Reading, WireError } from '@vivid-beacon/core';
import { startTestServer, TEST_NOW, withMetric, type TestServer, type Visitor } from '../testing/testServer';

const DAY = 86_400_000;
let test: TestServer;
let analyst: Visitor;
beforeAll(async () => {
  test = await startTestServer();
  analyst = await test.as('analyst');
});
afterAll(() => test.stop());

const begin = async (size = 1000): Promise<{ status: number; body: { id: string; error?: WireError } }> =>
  analyst.call('POST', '/api/intakes', {
    fileName: 'weather.csv',
    fileSize: size,
    fileHash: 'a'.repeat(64),
    layout: {},
  });
const samples = async (): Promise<number> =>
  (await test.server.app.pool.query<{ n: number }>('select coalesce(sum(n), 0)::int as n from sample_day'))
    .rows[0].n;

describe('an intake', () => {
  it('stores nothing before it is finished, then all of it at once, and nothing the second time', async () => {
    const { metricId } = await withMetric(analyst);
    const before = await samples();
    const part = { metricId, t: [TEST_NOW - 2 * DAY, TEST_NOW - DAY], v: [5, 6] };
    const refusals = [{ line: 3, column: 'time', value: 'soon', reason: 'not a time' }];
    const bringIn = async (): Promise<Intake> => {
      const { body } = await begin();
      await analyst.call('POST', `/api/intakes/${body.id}/batches`, { seq: 0, parts: [part], refusals });
      expect(await samples()).toBeLessThanOrEqual(before + 2);
      return (
        await analyst.call<Intake>('POST', `/api/intakes/${body.id}/finish`, {
          batches: 1,
          rows: 2,
          refused: 1,
        })
      ).body;
    };
    expect(await bringIn()).toMatchObject({
      status: 'done',
      added: 2,
      unchanged: 0,
      refusedCount: 1,
      refusals,
    });
    expect(await samples()).toBe(before + 2);
    expect(await bringIn()).toMatchObject({ added: 0, unchanged: 2, corrected: 0 });
    const reading = await analyst.call<Reading>('POST', '/api/readings/value', {
      measure: { metricId, summary: 'max', per: null },
      window: { kind: 'rolling', count: 3, unit: 'day' },
    });
    expect(reading.body.provenance.parts[0].sources).toEqual([
      { kind: 'file', name: 'weather.csv', importedAt: TEST_NOW, samples: 2 },
    ]);
  });

  it('takes nothing when a part is missing', async () => {
    const { metricId } = await withMetric(analyst);
    const before = await samples();
    const { body } = await begin();
    await analyst.call('POST', `/api/intakes/${body.id}/batches`, {
      seq: 0,
      parts: [{ metricId, t: [TEST_NOW], v: [1] }],
    });
    expect(
      (await analyst.call('POST', `/api/intakes/${body.id}/finish`, { batches: 2, rows: 2, refused: 0 }))
        .status,
    ).toBe(409);
    expect(await samples()).toBe(before);
  });

  it('leaves nothing behind when it is cancelled', async () => {
    const { metricId } = await withMetric(analyst);
    const { body } = await begin();
    await analyst.call('POST', `/api/intakes/${body.id}/batches`, {
      seq: 0,
      parts: [{ metricId, t: [TEST_NOW], v: [1] }],
    });
    expect((await analyst.call('DELETE', `/api/intakes/${body.id}`)).status).toBe(204);
    const { rows } = await test.server.app.pool.query('select 1 from intake_batch where intake_id = $1', [
      body.id,
    ]);
    expect(rows).toEqual([]);
    expect(
      (await analyst.call('POST', `/api/intakes/${body.id}/finish`, { batches: 1, rows: 1, refused: 0 }))
        .status,
    ).toBe(409);
  });

  it('is refused for an empty or too large file, uneven columns, and by other people', async () => {
    const { metricId } = await withMetric(analyst);
    expect((await begin(0)).status).toBe(422);
    expect(await begin(200_000_000)).toMatchObject({ status: 413, body: { error: { code: 'TOO_LARGE' } } });
    const { body } = await begin();
    const uneven = { seq: 0, parts: [{ metricId, t: [TEST_NOW], v: [] }] };
    expect((await analyst.call('POST', `/api/intakes/${body.id}/batches`, uneven)).status).toBe(422);
    const other = await test.as('administrator');
    expect((await other.call('DELETE', `/api/intakes/${body.id}`)).status).toBe(404);
  });
});
