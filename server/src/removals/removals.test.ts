import type {
  Board,
  ErrorBody,
  Flag,
  PageOf,
  RemovalEffect,
  RemovedThing,
  Restorable,
} from '@vivid-beacon/core';
import { SHARED_WITH_ALL, WHOLE_SCOPE } from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION, emptyReadout } from '@vivid-beacon/core/src/boards';
import { keepScopes } from '../alarms/rules';
import { indicatorDraft, onTestServer, serverWithMetric, peopleOf } from '../testing/testServer';

const { test, analyst } = onTestServer('analyst');

type Failed = { error: ErrorBody };
const remove = (kind: Restorable, id: string) =>
  analyst.call<Failed>(
    'DELETE',
    `/api/${{ asset: 'assets', board: 'boards', indicator: 'indicators' }[kind]}/${id}`,
  );
const restore = (kind: Restorable, id: string) =>
  analyst.call<Failed>(
    'POST',
    kind === 'board' ? `/api/boards/${id}/restoration` : `/api/removals/${kind}/${id}/restoration`,
  );
const effects = async (kind: Restorable, id: string): Promise<RemovalEffect[]> =>
  (await analyst.call<RemovalEffect[]>('GET', `/api/removals/${kind}/${id}`)).body;
const listed = async (kind: Restorable, id: string): Promise<RemovedThing | undefined> =>
  (await analyst.call<PageOf<RemovedThing>>('GET', '/api/removals?limit=500')).body.items.find(
    (each) => each.kind === kind && each.id === id,
  );
const there = async (path: string): Promise<boolean> => {
  const { status, body } = await analyst.call<PageOf<unknown>>('GET', path);
  return status === 200 && (body.items === undefined || body.items.length > 0);
};

async function boardOn(metricId: string, part: object, assetIds: readonly string[] | null = null) {
  const measures = [{ metricId, summary: 'mean', per: null }];
  const document: object = {
    version: BOARD_FORMAT_VERSION,
    window: { kind: 'toDate', unit: 'day' },
    scope: { ...WHOLE_SCOPE, assetIds },
    hours: null,
    readouts: [{ ...emptyReadout('r1', 'gauge'), measures, ...part }],
  };
  return (
    await analyst.call<Board>('POST', '/api/boards', { title: 'Beds', document, shares: SHARED_WITH_ALL })
  ).body.id;
}

describe('an asset', () => {
  it('goes when its metrics were removed and its flags are closed, and comes back with its name', async () => {
    const { assetId, metricId } = await serverWithMetric(analyst);
    const [{ id: toPersonId }] = await peopleOf(analyst);
    const asked = { title: 'Pads worn', note: '', toPersonId, dueAt: test.clock.now, assetId };
    const flag = await analyst.call<Flag>('POST', '/api/flags', asked);
    expect(flag.status).toBe(200);
    await boardOn(metricId, {}, [assetId]);
    expect(await effects('asset', assetId)).toEqual([{ kind: 'narrowed', total: 1, names: ['Beds'] }]);
    expect((await remove('asset', assetId)).body.error.message).toContain('1 metrics, 1 open flags');
    await analyst.call('DELETE', `/api/metrics/${metricId}`);
    expect((await remove('asset', assetId)).body.error.message).toContain('has 1 open flags.');
    await analyst.call('POST', `/api/flags/${flag.body.id}/outcome`, {
      outcome: 'adjusted',
      note: 'New pads',
    });
    expect((await remove('asset', assetId)).status).toBe(204);
    expect(await there(`/api/assets?ids=${assetId}`)).toBe(false);
    // The flag still says where it was.
    expect(await there(`/api/flags/${flag.body.id}`)).toBe(true);
    expect((await remove('asset', assetId)).status).toBe(404);

    expect((await listed('asset', assetId))?.taken).toBeNull();
    expect((await restore('asset', assetId)).status).toBe(204);
    expect(await there(`/api/assets?ids=${assetId}`)).toBe(true);
    expect((await restore('asset', assetId)).status).toBe(404);
  });

  it('keeps its name from nobody while it is gone, and does not come back where the name is taken', async () => {
    const plant = { name: `Mill ${Date.now()}`, kind: 'plant', zone: 'Europe/London' };
    const first = await analyst.call<{ id: string }>('POST', '/api/assets', plant);
    await remove('asset', first.body.id);
    const second = await analyst.call<{ id: string }>('POST', '/api/assets', plant);
    expect(second.status).toBe(200);
    expect((await listed('asset', first.body.id))?.taken).toContain('Another asset bears its name');
    const refused = await restore('asset', first.body.id);
    expect([refused.status, refused.body.error.code]).toEqual([409, 'WRONG_STATE']);
  });

  it('that was removed takes no children, and comes back before what was removed with it', async () => {
    const { assetId, metricId } = await serverWithMetric(analyst);
    const child = await analyst.call<{ id: string }>('POST', '/api/assets', {
      name: 'Line',
      kind: 'line',
      parentId: assetId,
    });
    await analyst.call('DELETE', `/api/metrics/${metricId}`);
    await remove('asset', child.body.id);
    expect((await remove('asset', assetId)).status).toBe(204);
    expect(
      (await analyst.call<Failed>('POST', '/api/assets', { name: 'Line', kind: 'line', parentId: assetId }))
        .status,
    ).toBe(422);
    expect((await restore('asset', child.body.id)).body.error.message).toContain('Restore that first');
    const metric = await analyst.call<Failed>('POST', `/api/removed-metrics/${metricId}/restoration`);
    expect(metric.body.error.message).toContain('Its asset was removed');
    for (const id of [assetId, child.body.id]) expect((await restore('asset', id)).status).toBe(204);
    expect((await analyst.call('POST', `/api/removed-metrics/${metricId}/restoration`)).status).toBe(204);
  });
});

describe('a board', () => {
  it('leaves the list, is not saved over while it is gone, and comes back as it was', async () => {
    const { assetId, metricId } = await serverWithMetric(analyst);
    const id = await boardOn(metricId, { title: 'Mean bed' });
    const { body: before } = await analyst.call<Board>('GET', `/api/boards/${id}`);
    await analyst.call('POST', '/api/indicators', indicatorDraft(assetId, metricId, { boardId: id }));
    expect(await effects('board', id)).toEqual([
      { kind: 'leads', total: 1, names: [expect.stringMatching(/^Mean, Plant/)] },
    ]);
    expect((await remove('board', id)).status).toBe(204);
    expect(await there(`/api/boards/${id}`)).toBe(false);
    expect((await listed('board', id))?.name).toBe('Beds');
    const { title, document, revision } = before;
    expect((await analyst.call('PUT', `/api/boards/${id}`, { title, document, revision })).status).toBe(404);
    expect((await restore('board', id)).status).toBe(204);
    expect((await analyst.call<Board>('GET', `/api/boards/${id}`)).body).toEqual(before);
  });
});

describe('an indicator', () => {
  it('tells the boards and rules that rest on it, and comes back with its past', async () => {
    const { assetId, metricId } = await serverWithMetric(analyst);
    const draft = indicatorDraft(assetId, metricId);
    const { body } = await analyst.call<{ id: string }>('POST', '/api/indicators', draft);
    await boardOn(metricId, { indicatorId: body.id });
    expect(await effects('indicator', body.id)).toEqual([{ kind: 'board', total: 1, names: ['Beds'] }]);
    await remove('indicator', body.id);
    await keepScopes(test.server.app.pool, test.clock.now);
    expect(await there(`/api/indicators?ids=${body.id}`)).toBe(false);
    expect((await restore('indicator', body.id)).status).toBe(204);
    expect(await there(`/api/indicators?ids=${body.id}`)).toBe(true);
  });

  it('is restored by analysts only', async () => {
    const viewer = await test.as('viewer');
    expect((await viewer.call('POST', '/api/removals/indicator/1/restoration')).status).toBe(403);
    expect((await viewer.call('GET', '/api/removals')).status).toBe(403);
    expect((await analyst.call('GET', '/api/removals/metric/1')).status).toBe(404);
  });
});
