import type { AlarmRule, Flag, Handover, PageOf } from '@vivid-beacon/core';
import {
  onTestServer,
  push,
  ruleDraft,
  type Visitor,
  serverWithMetric,
  peopleOf,
} from '../testing/testServer';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const { test, analyst, operator } = onTestServer('analyst', 'operator');

const ask = (plantId: string, shift?: number, who: Visitor = operator) =>
  who.call<Handover>(
    'GET',
    `/api/handover?plantId=${plantId}${shift === undefined ? '' : `&shift=${shift}`}`,
  );

describe('shift handover', () => {
  it('holds what happened in the shift of a plant and what is still open, and nothing of another plant', async () => {
    const metric = await serverWithMetric(analyst);
    const other = await serverWithMetric(analyst);
    await analyst.call('PUT', `/api/calendars/${metric.assetId}`, {
      shifts: [
        { name: 'Early', days: [1, 2, 3, 4, 5, 6, 7], from: '06:00', to: '14:00' },
        { name: 'Late', days: [1, 2, 3, 4, 5, 6, 7], from: '14:00', to: '22:00' },
      ],
      holidays: [],
      firstWeekday: 1,
      financialYearMonth: 1,
    });
    test.clock.now = Date.UTC(2026, 10, 20, 15);
    for (const { metricId } of [metric, other]) {
      await analyst.call('POST', '/api/alarm-rules', ruleDraft(metricId));
    }
    const send = (which: typeof metric, v: number): Promise<unknown> => {
      test.clock.now += MINUTE;
      return push(test.url, which.token, [{ metric: which.key, t: test.clock.now, v }]);
    };
    await send(metric, 230);
    await send(metric, 190);
    await send(other, 230);
    const people = await peopleOf(operator);
    const flag = await operator.call<Flag>('POST', '/api/flags', {
      title: 'Look at trap B',
      toPersonId: people.find(({ role }) => role === 'operator')!.id,
      dueAt: test.clock.now + HOUR,
      assetId: metric.assetId,
    });
    const remark = {
      assetId: metric.assetId,
      start: test.clock.now - HOUR / 2,
      end: test.clock.now - HOUR / 4,
      kind: 'abnormal',
      text: 'Steam off',
    };
    await operator.call('POST', '/api/remarks', remark);

    const { body } = await ask(metric.assetId);
    expect(body.shift).toMatchObject({ name: 'Late', start: Date.UTC(2026, 10, 20, 14) });
    expect(body.shifts[1]).toMatchObject({ name: 'Early' });
    expect(body.raised).toMatchObject([{ metricId: metric.metricId, state: 'returnedUnacknowledged' }]);
    expect(body.standing).toHaveLength(1);
    expect(body.openFlags).toMatchObject([{ title: 'Look at trap B' }]);
    expect(body.closedFlags).toEqual([]);
    expect(body.remarks).toMatchObject([{ text: 'Steam off' }]);

    // The shift before had none of it except what is still open.
    const before = (await ask(metric.assetId, body.shifts[1].start)).body;
    expect(before.raised).toEqual([]);
    expect(before.remarks).toEqual([]);
    expect(before.standing).toHaveLength(1);

    await operator.call('POST', `/api/flags/${flag.body.id}/outcome`, { outcome: 'mended', note: '' });
    const rules = await operator.call<PageOf<AlarmRule>>('GET', '/api/alarm-rules');
    const rule = rules.body.items.find(({ metricId }) => metricId === metric.metricId)!;
    const shelf = { kind: 'shelved', forMs: HOUR, reason: 'Fitter at work' };
    await operator.call('PUT', `/api/alarm-rules/${rule.id}/aside`, shelf);
    const after = (await ask(metric.assetId)).body;
    expect(after.closedFlags).toMatchObject([{ title: 'Look at trap B' }]);
    expect(after.setAside).toMatchObject([{ aside: { reason: 'Fitter at work', by: 'The operator' } }]);
  });

  it('adds up what stood still, an asset at a time and only inside the shift', async () => {
    const metric = await serverWithMetric(analyst);
    // At 15:00 the third of the day that began at 08:00 is under way.
    test.clock.now = Date.UTC(2026, 10, 21, 15);
    const stop = (from: number, to: number) =>
      operator.call('POST', '/api/stops', {
        assetId: metric.assetId,
        start: test.clock.now - from * HOUR,
        end: test.clock.now - to * HOUR,
        category: '',
        reason: 'Belt',
        note: '',
      });
    expect((await stop(9, 6)).status).toBe(200);
    expect((await stop(6.5, 5)).status).toBe(200);
    const { body } = await ask(metric.assetId);
    expect(body.shift.name).toBe('08:00 to 16:00');
    expect(body.stoppedMs).toBe(2 * HOUR);
  });

  it('keeps the words of a shift for the next, in order; viewers write none', async () => {
    const { assetId } = await serverWithMetric(analyst);
    const { shift } = (await ask(assetId)).body;
    const note = (text: string, who: Visitor = operator) =>
      who.call('POST', '/api/handover/notes', { plantId: assetId, shift: shift.start, text });
    expect((await note('Trap B is to be changed.')).status).toBe(200);
    await note('Soap is low.', analyst);
    expect((await note('x', await test.as('viewer'))).status).toBe(403);
    expect((await note(' ')).status).toBe(422);
    expect((await ask(assetId)).body.notes).toMatchObject([
      { text: 'Trap B is to be changed.', author: 'The operator' },
      { text: 'Soap is low.', author: 'The analyst' },
    ]);
    expect((await ask(assetId, shift.start - 1)).status).toBe(404);
    expect((await ask('999999')).status).toBe(404);
  });
});
