import type { Intake, Reading, ErrorBody } from '@vivid-beacon/core';
import { filePart, finishOrder, onTestServer, push, TEST_NOW, serverWithMetric } from '../testing/testServer';

const DAY = 86_400_000;
const { test, analyst } = onTestServer('analyst');

const begin = async (size = 1000): Promise<{ status: number; body: { id: string; error?: ErrorBody } }> =>
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
    const { metricId } = await serverWithMetric(analyst);
    const before = await samples();
    const part = { metricId, t: [TEST_NOW - 2 * DAY, TEST_NOW - DAY], v: [5, 6] };
    const told = [{ kind: 'refused', line: 3, column: 'time', value: 'soon', reason: 'not a time' }];
    const bringIn = async (): Promise<Intake> => {
      const { body } = await begin();
      await analyst.call('POST', `/api/intakes/${body.id}/parts`, filePart(0, [part], told));
      expect(await samples()).toBeLessThanOrEqual(before + 2);
      const order = finishOrder(1, { taken: 2, refused: 1 });
      return (await analyst.call<{ intake: Intake }>('POST', `/api/intakes/${body.id}/finish`, order)).body
        .intake;
    };
    expect(await bringIn()).toMatchObject({
      status: 'done',
      added: 2,
      unchanged: 0,
      refusedCount: 1,
      lines: told,
      notes: { balance: { lines: 3, taken: 2, refused: 1 } },
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
    const { metricId } = await serverWithMetric(analyst);
    const before = await samples();
    const { body } = await begin();
    await analyst.call(
      'POST',
      `/api/intakes/${body.id}/parts`,
      filePart(0, [{ metricId, t: [TEST_NOW], v: [1] }]),
    );
    expect(
      (await analyst.call('POST', `/api/intakes/${body.id}/finish`, finishOrder(2, { taken: 2 }))).status,
    ).toBe(409);
    expect(await samples()).toBe(before);
  });

  it('says that a metric was removed meanwhile, before and instead of storing', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const { metricId: kept } = await serverWithMetric(analyst);
    const before = await samples();
    const { body } = await begin();
    const parts = [metricId, kept].map((id) => ({ metricId: id, t: [TEST_NOW], v: [1] }));
    await analyst.call('POST', `/api/intakes/${body.id}/parts`, filePart(0, parts));
    expect((await analyst.call('DELETE', `/api/metrics/${metricId}`)).status).toBe(204);
    for (const [method, path, sent] of [
      ['GET', 'check', undefined],
      ['POST', 'finish', finishOrder(1, { taken: 2 })],
      ['POST', 'finish', finishOrder(1, { taken: 2, corrections: 'keep' })],
    ] as const) {
      const answer = await analyst.call<{ error: ErrorBody }>(
        method,
        `/api/intakes/${body.id}/${path}`,
        sent,
      );
      expect([404, 409]).toContain(answer.status);
      expect(answer.body.error.message).toContain(metricId);
    }
    expect(await samples()).toBe(before);
  });

  it('leaves nothing behind when it is cancelled', async () => {
    const { metricId } = await serverWithMetric(analyst);
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
      (await analyst.call('POST', `/api/intakes/${body.id}/finish`, finishOrder(1, { taken: 1 }))).status,
    ).toBe(409);
  });

  it('is refused when empty, with uneven columns or senseless samples, and for other people', async () => {
    const { metricId } = await serverWithMetric(analyst);
    expect((await begin(0)).status).toBe(422);
    const { body } = await begin();
    const send = (part: unknown) =>
      analyst.call<{ error: ErrorBody }>('POST', `/api/intakes/${body.id}/parts`, part);
    expect((await send(filePart(0, [{ metricId, t: [TEST_NOW], v: [] }]))).status).toBe(400);
    expect((await send(filePart(0, [{ metricId, t: [TEST_NOW], v: [NaN] }]))).status).toBe(422);
    expect((await send(filePart(0, [{ metricId, t: [TEST_NOW + 2 * DAY], v: [1] }]))).status).toBe(422);
    expect((await send(new Uint8Array([1, 2]))).status).toBe(400);
    expect((await send(filePart(0, [{ metricId: '999999', t: [TEST_NOW], v: [1] }]))).status).toBe(404);
    const other = await test.as('administrator');
    expect((await other.call('DELETE', `/api/intakes/${body.id}`)).status).toBe(404);
  });
});

/** Imports samples of one metric as a finished intake. */
async function bringIn(metricId: string, t: number[], v: number[], more: object = {}): Promise<string> {
  const { body } = await begin();
  await analyst.call('POST', `/api/intakes/${body.id}/parts`, filePart(0, [{ metricId, t, v }]));
  const order = finishOrder(1, { taken: t.length, corrections: 'replace', ...more });
  expect(await analyst.call('POST', `/api/intakes/${body.id}/finish`, order)).toMatchObject({ status: 200 });
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
    const { metricId, key, token } = await serverWithMetric(analyst, { maxGapMs: 2 * DAY });
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
    const { metricId } = await serverWithMetric(analyst);
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
    const { metricId } = await serverWithMetric(analyst);
    const remember = {
      shape: 'c'.repeat(64),
      correct: { separator: ';' },
      plans: { 1: { metricId } },
      zone: 'UTC',
    };
    await bringIn(metricId, [TEST_NOW - DAY], [1], { remember });
    const { body } = await analyst.call('GET', `/api/intake-mappings?shape=${remember.shape}`);
    expect(body).toEqual({
      correct: remember.correct,
      plans: remember.plans,
      zone: 'UTC',
      fileName: 'weather.csv',
      usedAt: TEST_NOW,
    });
    expect((await analyst.call('GET', `/api/intake-mappings?shape=${'d'.repeat(64)}`)).body).toBeNull();
  });

  it('gives the balance as a file that a spreadsheet cannot be tricked by', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const { body } = await begin();
    const told = [
      { kind: 'refused', line: 7, column: 'Flow', value: '=HYPERLINK("x")', reason: 'not a number' },
    ];
    await analyst.call(
      'POST',
      `/api/intakes/${body.id}/parts`,
      filePart(0, [{ metricId, t: [TEST_NOW], v: [1] }], told),
    );
    const columns = [{ heading: 'Flow', part: 'value', note: '' }];
    await analyst.call(
      'POST',
      `/api/intakes/${body.id}/finish`,
      finishOrder(1, { taken: 1, refused: 1, columns }),
    );
    const file = await analyst.call<string>('GET', `/api/intakes/${body.id}/balance.csv`);
    const rows = file.body.split('\r\n');
    expect(rows[0]).toBe('file,kind,line,column,value,reason');
    expect(rows).toContain('weather.csv,count,,,2,lines of the file');
    expect(rows).toContain('weather.csv,column,,Flow,value,');
    expect(rows).toContain(`weather.csv,refused,7,Flow,"'=HYPERLINK(""x"")",not a number`);
  });

  it('refuses a balance that does not add up', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const { body } = await begin();
    await analyst.call(
      'POST',
      `/api/intakes/${body.id}/parts`,
      filePart(0, [{ metricId, t: [TEST_NOW], v: [1] }]),
    );
    const order = finishOrder(1, { taken: 1 }) as { balance: { lines: number } };
    const lost = { ...order, balance: { ...order.balance, lines: 5 } };
    const answer = await analyst.call<{ error: ErrorBody }>('POST', `/api/intakes/${body.id}/finish`, lost);
    expect([answer.status, answer.body.error.message]).toEqual([
      422,
      expect.stringContaining('does not add up: 4 lines'),
    ]);
  });
});

describe('an intake that makes what it feeds', () => {
  const name = (): string => `Made ${Math.random().toString(36).slice(2)}`;
  const metric = (ref: string, asset: number | null, part: object = {}) => ({
    ref,
    asset,
    assetId: null,
    name: `Flow ${ref}`,
    unit: 'kW',
    kind: 'level',
    intervalMs: 60_000,
    ...part,
  });
  const finish = (id: string, part: object) =>
    analyst.call<{ intake: Intake; made: Record<string, string>; error: ErrorBody }>(
      'POST',
      `/api/intakes/${id}/finish`,
      finishOrder(1, { taken: 1, ...part }),
    );
  const assetsNamed = async (wanted: string): Promise<number> =>
    (await test.server.app.pool.query('select 1 from asset where name = $1', [wanted])).rows.length;

  it('makes assets and metrics with their samples, but no metric without a value', async () => {
    const { body } = await begin();
    const plant = name();
    await analyst.call(
      'POST',
      `/api/intakes/${body.id}/parts`,
      filePart(0, [{ metricId: 'new-1', t: [TEST_NOW - DAY], v: [5] }]),
    );
    expect((await analyst.call<unknown[]>('GET', `/api/intakes/${body.id}/check`)).body).toEqual([]);
    const made = {
      assets: [
        { name: plant, parentId: null, parent: null, zone: 'Europe/London' },
        { name: 'Dryer 1', parentId: null, parent: 0, zone: null },
      ],
      metrics: [metric('new-0', 0), metric('new-1', 1)],
    };
    const plans = { a: { to: 'existing', metricId: 'new-1' }, b: { to: 'existing', metricId: 'new-0' } };
    const remember = { shape: 'e'.repeat(64), correct: {}, plans, zone: 'UTC' };
    const done = await finish(body.id, { made, remember });
    expect(done.status).toBe(200);
    expect(Object.keys(done.body.made)).toEqual(['new-1']);
    const { rows } = await test.server.app.pool.query(
      `select asset.name as asset, parent.name as plant from metric
       join asset on asset.id = metric.asset_id join asset parent on parent.id = asset.parent_id where metric.id = $1`,
      [done.body.made['new-1']],
    );
    expect(rows).toEqual([{ asset: 'Dryer 1', plant }]);
    const mapping = await analyst.call('GET', `/api/intake-mappings?shape=${remember.shape}`);
    expect(mapping.body).toMatchObject({
      plans: { a: { to: 'existing', metricId: done.body.made['new-1'] } },
    });
  });

  it('leaves nothing behind when a name is taken, and works when it is tried again', async () => {
    const { assetId, metricId } = await serverWithMetric(analyst);
    const attempt = async (metricName: string) => {
      const { body } = await begin();
      const part = filePart(0, [
        { metricId, t: [TEST_NOW - DAY], v: [9] },
        { metricId: 'new-0', t: [TEST_NOW - DAY], v: [5] },
      ]);
      await analyst.call('POST', `/api/intakes/${body.id}/parts`, part);
      const made = { assets: [], metrics: [metric('new-0', null, { assetId, name: metricName })] };
      return finish(body.id, { made });
    };
    const before = await samples();
    const refused = await attempt('Bed temperature');
    expect([refused.status, refused.body.error.message]).toEqual([
      422,
      expect.stringContaining('already has a metric'),
    ]);
    expect(await samples()).toBe(before);
    expect((await attempt('Another')).status).toBe(200);
    expect(await samples()).toBe(before + 2);
  });

  it('does not let a plant of a taken name grow together with another', async () => {
    const plant = name();
    await analyst.call('POST', '/api/assets', { name: plant, kind: 'plant', zone: 'Europe/London' });
    const { body } = await begin();
    await analyst.call(
      'POST',
      `/api/intakes/${body.id}/parts`,
      filePart(0, [{ metricId: 'new-0', t: [TEST_NOW], v: [1] }]),
    );
    const made = { assets: [{ name: plant, zone: 'Europe/London' }], metrics: [metric('new-0', 0)] };
    expect((await finish(body.id, { made })).status).toBe(422);
    expect(await assetsNamed(plant)).toBe(1);
  });
});

describe('an intake that meets what is stored', () => {
  const at = (days: number): number => TEST_NOW - days * DAY;
  const stored = async (metricId: string): Promise<number[]> =>
    (
      await test.server.app.pool.query<{ v: number }>(
        `select v from metric_samples($1, '2000-01-01', '2100-01-01') order by t`,
        [metricId],
      )
    ).rows.map(({ v }) => v);

  it('says beforehand which stored values would change, and asks what becomes of them', async () => {
    const { metricId, key, token } = await serverWithMetric(analyst);
    await push(test.url, token, [
      { metric: key, t: at(3), v: 1 },
      { metric: key, t: at(2), v: 2 },
    ]);
    const attempt = async (corrections?: string) => {
      const { body } = await begin();
      const part = { metricId, t: [at(3), at(2), at(1)], v: [1, 20, 30] };
      await analyst.call('POST', `/api/intakes/${body.id}/parts`, filePart(0, [part]));
      const check = await analyst.call<object[]>('GET', `/api/intakes/${body.id}/check`);
      const done = await analyst.call<{ intake: Intake }>(
        'POST',
        `/api/intakes/${body.id}/finish`,
        finishOrder(1, { taken: 3, corrections }),
      );
      return { check: check.body, done };
    };
    const refused = await attempt();
    expect(refused.check).toMatchObject([{ metricId, samples: 3, unchanged: 1, corrected: 1 }]);
    expect(refused.done.status).toBe(409);
    expect(await stored(metricId)).toEqual([1, 2]);
    expect((await attempt('keep')).done.body.intake).toMatchObject({ added: 1, corrected: 0, unchanged: 1 });
    expect(await stored(metricId)).toEqual([1, 2, 30]);
    expect((await attempt('replace')).done.body.intake).toMatchObject({
      added: 0,
      corrected: 1,
      unchanged: 2,
    });
    expect(await stored(metricId)).toEqual([1, 20, 30]);
  });

  it('refuses values of one series that contradict each other in the file, unless the last is to hold', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const start = (collisions?: string) =>
      analyst.call<{ id: string }>('POST', '/api/intakes', {
        fileName: 'two.csv',
        fileSize: 9,
        fileHash: 'b'.repeat(64),
        layout: {},
        collisions,
      });
    const send = (id: string, seq: number, v: number[]) =>
      analyst.call<{ error: ErrorBody }>(
        'POST',
        `/api/intakes/${id}/parts`,
        filePart(seq, [{ metricId, t: v.map(() => at(1)), v }]),
      );
    const { body: strict } = await start();
    expect((await send(strict.id, 0, [1, 1])).status).toBe(204);
    expect((await send(strict.id, 1, [1, 2])).body.error).toMatchObject({ path: 'collisions' });
    expect((await send(strict.id, 1, [3])).status).toBe(204);
    const two = finishOrder(2, { taken: 2 });
    expect((await analyst.call('POST', `/api/intakes/${strict.id}/finish`, two)).status).toBe(422);
    const { body: lax } = await start('last');
    await send(lax.id, 0, [1, 2]);
    await send(lax.id, 1, [3]);
    expect((await analyst.call('POST', `/api/intakes/${lax.id}/finish`, two)).status).toBe(200);
    expect(await stored(metricId)).toEqual([3]);
  });
});
