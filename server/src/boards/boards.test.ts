import {
  WHOLE_SCOPE,
  type Board,
  type ListedBoard,
  type PageOf,
  type Readout,
  type ErrorBody,
} from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION, emptyReadout } from '@vivid-beacon/core/src/boards';
import { onTestServer, serverWithMetric } from '../testing/testServer';

const { test, analyst } = onTestServer('analyst');

async function documentOf(band: object | null = null) {
  const { metricId } = await serverWithMetric(analyst);
  const readout: Readout = {
    ...emptyReadout('r1', 'gauge'),
    measures: [{ metricId, summary: 'mean', per: null }],
    band: band as Readout['band'],
  };
  return {
    version: BOARD_FORMAT_VERSION,
    window: { kind: 'toDate', unit: 'day' },
    scope: WHOLE_SCOPE,
    hours: null,
    readouts: [readout],
  };
}

describe('boards', () => {
  it('come back as they were saved', async () => {
    const document = await documentOf({ direction: 'lower', caution: 3, breach: 4, target: 2.5 });
    const made = await analyst.call<Board>('POST', '/api/boards', { title: 'Dryers', document });
    expect(made.status).toBe(200);
    const read = await analyst.call<Board>('GET', `/api/boards/${made.body.id}`);
    const listed = await analyst.call<PageOf<ListedBoard>>('GET', '/api/boards?search=dryers analyst');
    expect(listed.body.items.map(({ id, readouts }) => [id, readouts])).toEqual([
      [made.body.id, document.readouts.length],
    ]);
    expect((await analyst.call<PageOf<ListedBoard>>('GET', '/api/boards?search=ovens')).body.total).toBe(0);
    expect(read.body).toMatchObject({ title: 'Dryers', revision: 1, document });
  });

  it('are not overwritten by somebody who has not seen the last change', async () => {
    const document = await documentOf();
    const { body } = await analyst.call<Board>('POST', '/api/boards', { title: 'A', document });
    expect(
      (await analyst.call('PUT', `/api/boards/${body.id}`, { title: 'B', document, revision: 1 })).status,
    ).toBe(200);
    const late = await analyst.call<{ error: ErrorBody }>('PUT', `/api/boards/${body.id}`, {
      title: 'C',
      document,
      revision: 1,
    });
    expect(late).toMatchObject({ status: 409, body: { error: { code: 'CHANGED_MEANWHILE' } } });
  });

  it('refuse a bad document and name the place', async () => {
    const swapped = await documentOf({ direction: 'lower', caution: 5, breach: 4, target: null });
    const answer = await analyst.call<{ error: ErrorBody }>('POST', '/api/boards', {
      title: 'A',
      document: swapped,
    });
    expect(answer.body.error.path).toBe('document.readouts[0].band.caution');
    const unknown = { ...(await documentOf()), readouts: [{ id: 'x', form: 'wheel' }] };
    expect(
      (await analyst.call<{ error: ErrorBody }>('POST', '/api/boards', { title: 'A', document: unknown }))
        .body.error.path,
    ).toMatch(/^document\.readouts\[0\]/);
    expect(
      (await analyst.call('POST', '/api/boards', { title: ' ', document: await documentOf() })).status,
    ).toBe(422);
    const nothing = { ...(await documentOf()), readouts: [null] };
    const empty = await analyst.call<{ error: ErrorBody }>('POST', '/api/boards', {
      title: 'A',
      document: nothing,
    });
    expect([empty.status, empty.body.error.path]).toEqual([422, 'document.readouts[0]']);
  });

  it('of the first version are read as ones of this', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const measure = { metricId, summary: 'mean', per: null };
    const first = {
      version: 1,
      window: { kind: 'toDate', unit: 'day' },
      readouts: [
        {
          id: 'r1',
          form: 'trend',
          title: 'Old',
          measure,
          window: null,
          bucket: 'hour',
          band: null,
          decimals: 1,
        },
      ],
    };
    const { pool } = test.server.app;
    const { rows } = await pool.query<{ id: string }>(
      `insert into board (title, document, owner_id, updated_at)
       select 'Old board', $1::jsonb, id, now() from person limit 1 returning id`,
      [JSON.stringify(first)],
    );
    const { body } = await analyst.call<Board>('GET', `/api/boards/${rows[0].id}`);
    expect(body.document).toMatchObject({ version: BOARD_FORMAT_VERSION, scope: WHOLE_SCOPE });
    expect(body.document.readouts[0]).toMatchObject({
      title: 'Old',
      measures: [measure],
      bucket: 'hour',
      decimals: 1,
    });
    const saved = await analyst.call<Board>('PUT', `/api/boards/${rows[0].id}`, {
      title: 'Kept',
      document: body.document,
      revision: body.revision,
    });
    expect(saved.status).toBe(200);
  });

  it('are removed and restored by those who may change them', async () => {
    const document = await documentOf();
    const { body } = await analyst.call<Board>('POST', '/api/boards', { title: 'A', document });
    const path = `/api/boards/${body.id}`;
    expect((await analyst.call('DELETE', path)).status).toBe(204);
    expect((await analyst.call('GET', path)).status).toBe(404);
    const viewer = await test.as('viewer');
    expect((await viewer.call('POST', `${path}/restoration`)).status).toBe(404);
    expect((await analyst.call('POST', `${path}/restoration`)).status).toBe(204);
    expect((await analyst.call('POST', `${path}/restoration`)).status).toBe(404);
    expect((await analyst.call('GET', path)).status).toBe(200);
  });
});
