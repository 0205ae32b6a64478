import type { Intake, Reading, WireError } from '@vivid-beacon/core';
import { filePart, onTestServer, push, TEST_NOW, withMetric } from '../testing/testServer';

const DAY = 86_400_000;
const { test, analyst } = onTestServer('analyst');

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
      await analyst.call('POST', `/api/intakes/${body.id}/parts`, filePart(0, [part], refusals));
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
    await analyst.call(
      'POST',
      `/api/intakes/${body.id}/parts`,
      filePart(0, [{ metricId, t: [TEST_NOW], v: [1] }]),
    );
    expect(
      (await analyst.call('POST', `/api/intakes/${body.id}/finish`, { batches: 2, rows: 2, refused: 0 }))
        .status,
    ).toBe(409);
    expect(await samples()).toBe(before);
  });

  it('leaves nothing behind when it is cancelled', async () => {
    const { metricId } = await withMetric(analyst);
    const { body } = await begin();
    await analyst.call(
      'POST',
      `/api/intakes/${body.id}/parts`,
      filePart(0, [{ metricId, t: [TEST_NOW], v: [1] }]),
    );
    expect((await analyst.call('DELETE', `/api/intakes/${body.id}`)).status).toBe(204);
    const { rows } = await test.server.app.pool.query('select 1 from intake_part where intake_id = $1', [
      body.id,
    ]);
    expect(rows).toEqual([]);
    expect(
      (await analyst.call('POST', `/api/intakes/${body.id}/finish`, { batches: 1, rows: 1, refused: 0 }))
        .status,
    ).toBe(409);
  });

  it('is refused when empty, with uneven columns or senseless samples, and for other people', async () => {
    const { metricId } = await withMetric(analyst);
    expect((await begin(0)).status).toBe(422);
    const { body } = await begin();
    const send = (part: unknown) =>
      analyst.call<{ error: WireError }>('POST', `/api/intakes/${body.id}/parts`, part);
    expect((await send(filePart(0, [{ metricId, t: [TEST_NOW], v: [] }]))).status).toBe(400);
    expect((await send(filePart(0, [{ metricId, t: [TEST_NOW], v: [NaN] }]))).status).toBe(422);
    expect((await send(filePart(0, [{ metricId, t: [TEST_NOW + 2 * DAY], v: [1] }]))).status).toBe(422);
    expect((await send(new Uint8Array([1, 2]))).status).toBe(400);
    expect((await send(filePart(0, [{ metricId: '999999', t: [TEST_NOW], v: [1] }]))).status).toBe(404);
    const other = await test.as('administrator');
    expect((await other.call('DELETE', `/api/intakes/${body.id}`)).status).toBe(404);
  });
});

/** Brings in samples of one metric as a finished intake. */
async function bringIn(metricId: string, t: number[], v: number[], more: object = {}): Promise<string> {
  const { body } = await begin();
  await analyst.call('POST', `/api/intakes/${body.id}/parts`, filePart(0, [{ metricId, t, v }]));
  const told = { batches: 1, rows: t.length, refused: 0, ...more };
  await analyst.call('POST', `/api/intakes/${body.id}/finish`, told);
  return body.id;
}

describe('undoing an intake', () => {
  const read = async (metricId: string): Promise<[number, number][]> =>
    (
      await test.server.app.pool.query<{ t: Date; v: number }>(
        `select t, v from metric_samples($1, '2000-01-01', '2100-01-01')`,
        [metricId],
      )
    ).rows.map(({ t, v }) => [t.getTime(), v]);
  const at = (days: number): number => TEST_NOW - days * DAY;

  it('takes away what it added, gives back what it replaced, and leaves what has changed since', async () => {
    const { metricId, key, token } = await withMetric(analyst, { maxGapMs: 2 * DAY });
    await push(test.url, token, [
      { metric: key, t: at(5), v: 1 },
      { metric: key, t: at(4), v: 2 },
    ]);
    const id = await bringIn(metricId, [at(4), at(3), at(2)], [20, 30, 40]);
    await push(test.url, token, [{ metric: key, t: at(3), v: 33 }]);
    const undone = await analyst.call('POST', `/api/intakes/${id}/undo`);
    expect(undone).toMatchObject({ status: 200, body: { removed: 1, restored: 1, kept: 1 } });
    expect(await read(metricId)).toEqual([
      [at(5), 1],
      [at(4), 2],
      [at(3), 33],
    ]);
    const reading = await analyst.call<Reading>('POST', '/api/readings/value', {
      measure: { metricId, summary: 'max', per: null },
      window: { kind: 'rolling', count: 10, unit: 'day' },
    });
    expect(reading.body).toMatchObject({ value: 33, asOf: at(3) });
    expect((await analyst.call('POST', `/api/intakes/${id}/undo`)).status).toBe(409);
  });

  it('leaves no rollup and no newest sample of a metric that had nothing before', async () => {
    const { metricId } = await withMetric(analyst);
    const id = await bringIn(metricId, [at(3), at(2)], [1, 2]);
    await analyst.call('POST', `/api/intakes/${id}/undo`);
    for (const table of ['sample_day', 'rollup_day', 'metric_latest']) {
      const { rows } = await test.server.app.pool.query(`select 1 from ${table} where metric_id = $1`, [
        metricId,
      ]);
      expect(rows).toEqual([]);
    }
  });
});

describe('what an intake leaves for people', () => {
  it('remembers how a file of this shape was read', async () => {
    const { metricId } = await withMetric(analyst);
    const remember = {
      shape: 'c'.repeat(64),
      layout: { separator: ';' },
      plans: { 1: { metricId } },
      zone: 'UTC',
    };
    await bringIn(metricId, [TEST_NOW - DAY], [1], { remember });
    const { body } = await analyst.call('GET', `/api/intake-mappings?shape=${remember.shape}`);
    expect(body).toEqual({ layout: remember.layout, plans: remember.plans, zone: 'UTC' });
    expect((await analyst.call('GET', `/api/intake-mappings?shape=${'d'.repeat(64)}`)).body).toBeNull();
  });

  it('gives refused rows as a file that a spreadsheet cannot be tricked by', async () => {
    const { metricId } = await withMetric(analyst);
    const { body } = await begin();
    const refusals = [{ line: 7, column: 'Flow', value: '=HYPERLINK("x")', reason: 'not a number' }];
    await analyst.call(
      'POST',
      `/api/intakes/${body.id}/parts`,
      filePart(0, [{ metricId, t: [TEST_NOW], v: [1] }], refusals),
    );
    await analyst.call('POST', `/api/intakes/${body.id}/finish`, { batches: 1, rows: 1, refused: 1 });
    const file = await analyst.call<string>('GET', `/api/intakes/${body.id}/refusals.csv`);
    expect(file.body.split('\r\n').slice(0, 2)).toEqual([
      'file,line,column,value,reason',
      `weather.csv,7,Flow,"'=HYPERLINK(""x"")",not a number`,
    ]);
  });
});
