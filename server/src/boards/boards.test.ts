import type { Board, WireError } from '@vivid-beacon/core';
import { startTestServer, withMetric, type TestServer, type Visitor } from '../testing/testServer';

let test: TestServer;
let analyst: Visitor;
beforeAll(async () => {
  test = await startTestServer();
  analyst = await test.as('analyst');
});
afterAll(() => test.stop());

async function documentOf(band: object | null = null) {
  const { metricId } = await withMetric(analyst);
  const readout = {
    id: 'r1',
    form: 'gauge',
    title: null,
    measure: { metricId, summary: 'mean', per: null },
    window: null,
    bucket: null,
    band,
    decimals: null,
  };
  return { version: 1, window: { kind: 'toDate', unit: 'day' }, readouts: [readout] };
}

describe('boards', () => {
  it('come back as they were saved', async () => {
    const document = await documentOf({ direction: 'lower', caution: 3, breach: 4, target: 2.5 });
    const made = await analyst.call<Board>('POST', '/api/boards', { title: 'Dryers', document });
    expect(made.status).toBe(200);
    const read = await analyst.call<Board>('GET', `/api/boards/${made.body.id}`);
    expect(read.body).toMatchObject({ title: 'Dryers', revision: 1, document });
  });

  it('are not overwritten by somebody who has not seen the last change', async () => {
    const document = await documentOf();
    const { body } = await analyst.call<Board>('POST', '/api/boards', { title: 'A', document });
    expect(
      (await analyst.call('PUT', `/api/boards/${body.id}`, { title: 'B', document, revision: 1 })).status,
    ).toBe(200);
    const late = await analyst.call<{ error: WireError }>('PUT', `/api/boards/${body.id}`, {
      title: 'C',
      document,
      revision: 1,
    });
    expect(late).toMatchObject({ status: 409, body: { error: { code: 'CHANGED_MEANWHILE' } } });
  });

  it('refuse a bad document and name the place', async () => {
    const swapped = await documentOf({ direction: 'lower', caution: 5, breach: 4, target: null });
    const answer = await analyst.call<{ error: WireError }>('POST', '/api/boards', {
      title: 'A',
      document: swapped,
    });
    expect(answer.body.error.path).toBe('document.readouts[0].band.caution');
    const unknown = { ...(await documentOf()), readouts: [{ id: 'x', form: 'wheel' }] };
    expect(
      (await analyst.call<{ error: WireError }>('POST', '/api/boards', { title: 'A', document: unknown }))
        .body.error.path,
    ).toMatch(/^document\.readouts\[0\]/);
    expect(
      (await analyst.call('POST', '/api/boards', { title: ' ', document: await documentOf() })).status,
    ).toBe(422);
  });

  it('are built by analysts only, and can be removed', async () => {
    const viewer = await test.as('viewer');
    const document = await documentOf();
    expect((await viewer.call('POST', '/api/boards', { title: 'A', document })).status).toBe(403);
    const { body } = await analyst.call<Board>('POST', '/api/boards', { title: 'A', document });
    expect((await analyst.call('DELETE', `/api/boards/${body.id}`)).status).toBe(204);
    expect((await analyst.call('GET', `/api/boards/${body.id}`)).status).toBe(404);
  });
});
