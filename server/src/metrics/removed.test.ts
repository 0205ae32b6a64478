import type { ErrorBody, Metric, PageOf, RemovalEffect, RemovedMetric } from '@vivid-beacon/core';
import { SHARED_WITH_ALL, WHOLE_SCOPE } from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION, emptyReadout } from '@vivid-beacon/core/src/boards';
import {
  alarmsOf,
  indicatorDraft,
  onTestServer,
  push,
  ruleDraft,
  serverWithMetric,
  type Visitor,
} from '../testing/testServer';
import { keepScopes } from '../alarms/rules';

const CAUTION = { kind: 'limit', side: 'above', limit: 195, deadband: 4 };
const { test, analyst } = onTestServer('analyst');
let administrator: Visitor;
beforeAll(async () => {
  administrator = await test.as('administrator');
});

/** A removed metric with two samples and an alarm. */
async function removed() {
  const metric = await serverWithMetric(analyst);
  const { body: rule } = await analyst.call<{ id: string }>(
    'POST',
    '/api/alarm-rules',
    ruleDraft(metric.metricId),
  );
  const now = test.clock.now;
  await push(test.url, metric.token, [
    { metric: metric.key, t: now - 86_400_000, v: 200 },
    { metric: metric.key, t: now, v: 210 },
  ]);
  await analyst.call('DELETE', `/api/metrics/${metric.metricId}`);
  await keepScopes(test.server.app.pool, now);
  return { ...metric, ruleId: rule.id };
}
const listed = async (id: string, as: Visitor = analyst): Promise<RemovedMetric | undefined> => {
  const { body } = await as.call<PageOf<RemovedMetric>>('GET', '/api/removed-metrics?limit=500');
  return body.items.find((each) => each.id === id);
};

describe('what rests on a metric', () => {
  it('is told before it is removed, by kind, and nothing where nothing does', async () => {
    const { metricId, assetId } = await serverWithMetric(analyst);
    const effects = async (): Promise<RemovalEffect[]> =>
      (await analyst.call<RemovalEffect[]>('GET', `/api/metrics/${metricId}/removal`)).body;
    expect(await effects()).toEqual([]);
    await analyst.call('POST', '/api/alarm-rules', ruleDraft(metricId, { caution: { test: CAUTION } }));
    await analyst.call('POST', '/api/indicators', indicatorDraft(assetId, metricId));
    await analyst.call('POST', '/api/derived', {
      assetId,
      name: 'Twice',
      kind: 'level',
      unit: '°C',
      decimals: 1,
      way: 'samples',
      expression: 'bed + bed - bed',
      bindings: { bed: { kind: 'metric', metricId, summary: null } },
    });
    const readout = { ...emptyReadout('r1', 'gauge'), measures: [{ metricId, summary: 'mean', per: null }] };
    const document = {
      version: BOARD_FORMAT_VERSION,
      window: { kind: 'toDate', unit: 'day' },
      scope: WHOLE_SCOPE,
      hours: null,
      readouts: [readout],
    };
    await analyst.call('POST', '/api/boards', { title: 'Beds', document, shares: SHARED_WITH_ALL });
    expect(await effects()).toMatchObject([
      { kind: 'rule', total: 1, names: ['Too hot'] },
      { kind: 'derived', total: 1, names: [expect.stringMatching(/^Twice, Plant/)] },
      { kind: 'indicator', total: 1, names: [expect.stringMatching(/^Mean, Plant/)] },
      { kind: 'board', total: 1, names: ['Beds'] },
    ]);
  });
});

describe('a removed metric', () => {
  it('is listed with what it still has, and restored to where it was', async () => {
    const { metricId, key } = await removed();
    expect((await analyst.call('GET', `/api/metrics/${metricId}`)).status).toBe(404);
    expect(await listed(metricId)).toMatchObject({
      name: 'Bed temperature',
      samples: 2,
      alarms: 1,
      taken: null,
    });
    expect((await analyst.call('POST', `/api/removed-metrics/${metricId}/restoration`)).status).toBe(204);
    const { body } = await analyst.call<Metric>('GET', `/api/metrics/${metricId}`);
    expect(body).toMatchObject({ name: 'Bed temperature', key, last: { v: 210 } });
    expect(await listed(metricId)).toBeUndefined();
    expect((await analyst.call('POST', `/api/removed-metrics/${metricId}/restoration`)).status).toBe(404);
  });

  it('cannot be restored while another bears its name', async () => {
    const { metricId, assetId } = await removed();
    const form = { assetId, name: 'bed temperature', unit: '°C', kind: 'level', intervalMs: 60_000 };
    await analyst.call('POST', '/api/metrics', form);
    expect(await listed(metricId)).toMatchObject({
      taken: 'Another metric bears its name now. Rename that one first.',
    });
    const { status, body } = await analyst.call<{ error: ErrorBody }>(
      'POST',
      `/api/removed-metrics/${metricId}/restoration`,
    );
    expect([status, body.error.message]).toEqual([409, expect.stringContaining('Rename that one first')]);
  });

  it('is erased by an administrator who types its name, with samples, aggregates and alarms', async () => {
    const { metricId, ruleId } = await removed();
    expect(await alarmsOf(analyst, ruleId)).toHaveLength(1);
    const erase = (name: string, as: Visitor) =>
      as.call<{ error: ErrorBody }>(
        'DELETE',
        `/api/removed-metrics/${metricId}?name=${encodeURIComponent(name)}`,
      );
    expect((await erase('Bed temperature', analyst)).status).toBe(403);
    const wrong = await erase('Bed', administrator);
    expect([wrong.status, wrong.body.error.message]).toEqual([
      422,
      'Type "Bed temperature" to erase it, got "Bed".',
    ]);
    expect((await erase('bed temperature', administrator)).status).toBe(204);
    for (const table of ['sample_day', 'rollup_day', 'alarm', 'alarm_watch']) {
      const { rows } = await test.server.app.pool.query(`select 1 from ${table} where metric_id = $1`, [
        metricId,
      ]);
      expect([table, rows.length]).toEqual([table, 0]);
    }
    expect(await listed(metricId, administrator)).toBeUndefined();
  });

  it('that stands is not erased', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const path = `/api/removed-metrics/${metricId}?name=Bed%20temperature`;
    expect((await administrator.call('DELETE', path)).status).toBe(404);
    expect((await analyst.call('GET', `/api/metrics/${metricId}`)).status).toBe(200);
  });
});
