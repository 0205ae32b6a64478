import type { FirstSteps } from '@vivid-beacon/core';
import { WHOLE_SCOPE } from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION, emptyReadout } from '@vivid-beacon/core/src/boards';
import { onTestServer, push, ruleDraft, serverWithMetric } from '../testing/testServer';

const { test, analyst } = onTestServer('analyst');
const steps = async (): Promise<FirstSteps> =>
  (await analyst.call<FirstSteps>('GET', '/api/first-steps')).body;

describe('first steps', () => {
  it('are ticked one by one as they are done, and unticked when that goes', async () => {
    const nothing = {
      plant: false,
      data: false,
      board: false,
      band: false,
      rule: false,
      people: true,
      away: false,
    };
    expect(await steps()).toEqual(nothing);
    const { metricId, key, token } = await serverWithMetric(analyst);
    expect(await steps()).toEqual({ ...nothing, plant: true });
    await push(test.url, token, [{ metric: key, t: test.clock.now, v: 200 }]);
    expect(await steps()).toMatchObject({ data: true, board: false });
    const readout = { ...emptyReadout('r1', 'gauge'), measures: [{ metricId, summary: 'mean', per: null }] };
    const band = { direction: 'lower', caution: 3, breach: 4, target: null };
    const document = (readouts: readonly object[]): object => ({
      version: BOARD_FORMAT_VERSION,
      window: { kind: 'toDate', unit: 'day' },
      scope: WHOLE_SCOPE,
      hours: null,
      readouts,
    });
    await analyst.call('POST', '/api/boards', { title: 'Empty', document: document([]) });
    expect(await steps()).toMatchObject({ board: false });
    await analyst.call('POST', '/api/boards', { title: 'A', document: document([readout]) });
    expect(await steps()).toMatchObject({ board: true, band: false });
    const judged = await analyst.call<{ id: string }>('POST', '/api/boards', {
      title: 'B',
      document: document([{ ...readout, band }]),
    });
    expect(await steps()).toMatchObject({ band: true, rule: false });
    await analyst.call('POST', '/api/alarm-rules', ruleDraft(metricId));
    expect(await steps()).toMatchObject({ rule: true });
    await analyst.call('DELETE', `/api/boards/${judged.body.id}`);
    expect(await steps()).toMatchObject({ band: false });
  });

  it('are put away by each person for themselves, for good', async () => {
    const viewer = await test.as('viewer');
    expect((await analyst.call('PUT', '/api/first-steps', { away: true })).status).toBe(204);
    expect((await steps()).away).toBe(true);
    expect((await viewer.call<FirstSteps>('GET', '/api/first-steps')).body.away).toBe(false);
    await analyst.call('PUT', '/api/first-steps', { away: false });
    expect((await steps()).away).toBe(false);
  });
});
