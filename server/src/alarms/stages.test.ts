import type {
  AlarmEvent,
  CourseAnswer,
  ErrorBody,
  PageOf,
  RehearsalAnswer,
  WholeRule,
  AlarmRule,
} from '@vivid-beacon/core';
import { alarmsOf, onTestServer, push, ruleDraft, serverWithMetric } from '../testing/testServer';

const MINUTE = 60_000;
const { test, analyst } = onTestServer('analyst');

const at = (limit: number) => ({ kind: 'limit', side: 'above', limit, deadband: 0 });

/** A bed with a rule: Caution above 195, told to nobody, and Breach above 205. */
async function bed(part: object = {}) {
  const metric = await serverWithMetric(analyst);
  const { body: me } = await analyst.call<{ person: { id: string } }>('GET', '/api/session');
  const draft = ruleDraft(metric.metricId, {
    test: at(205),
    priority: 'high',
    told: [me.person.id],
    caution: { test: at(195), priority: 'low', told: [] },
    ...part,
  });
  const { status, body } = await analyst.call<{ id: string; error?: ErrorBody }>(
    'POST',
    '/api/alarm-rules',
    draft,
  );
  const send = async (v: number): Promise<void> => {
    test.clock.now += MINUTE;
    await push(test.url, metric.token, [{ metric: metric.key, t: test.clock.now, v }]);
  };
  return { ...metric, draft, status, body, send };
}
const standing = async (rule: string): Promise<string[]> =>
  (await alarmsOf(analyst, rule)).map(
    ({ level, priority, state, returnedAt }) =>
      `${level} ${priority} ${state}${returnedAt === null ? '' : ' over'}`,
  );

describe('a rule of two stages', () => {
  it('raises the Caution first, the Breach beside it, each with its own priority', async () => {
    const { body, send } = await bed();
    await send(190);
    expect(await standing(body.id)).toEqual([]);
    await send(200);
    expect(await standing(body.id)).toEqual(['caution low unacknowledged']);
    await send(210);
    expect((await standing(body.id)).sort()).toEqual([
      'breach high unacknowledged',
      'caution low unacknowledged',
    ]);
    await send(200);
    await send(190);
    expect((await standing(body.id)).sort()).toEqual([
      'breach high returnedUnacknowledged over',
      'caution low returnedUnacknowledged over',
    ]);
  });

  it('tells each stage to its own people', async () => {
    const { body, send } = await bed();
    await send(210);
    const { rows } = await test.server.app.pool.query<{ n: number }>(
      `select count(*)::int as n from notice join alarm on alarm.id = notice.alarm_id
       join alarm_rule rule on rule.id = alarm.rule_id where $1 in (rule.id, rule.stage_of) and rule.level = 'caution'`,
      [body.id],
    );
    expect(rows[0].n).toBe(0);
  });

  it('is acknowledged with its Breach, not the other way round', async () => {
    const { body, send } = await bed();
    await send(210);
    const [breach, caution] = await alarmsOf(analyst, body.id);
    expect([breach.level, caution.level]).toEqual(['breach', 'caution']);
    await analyst.call('POST', `/api/alarms/${caution.id}/acknowledgement`, { remark: '' });
    expect((await standing(body.id)).sort()).toEqual([
      'breach high unacknowledged',
      'caution low acknowledged',
    ]);
    const other = await bed();
    await other.send(210);
    const [first, second] = await alarmsOf(analyst, other.body.id);
    await analyst.call('POST', `/api/alarms/${first.id}/acknowledgement`, { remark: 'Seen' });
    expect((await standing(other.body.id)).sort()).toEqual([
      'breach high acknowledged',
      'caution low acknowledged',
    ]);
    const { body: whole } = await analyst.call<{ events: AlarmEvent[] }>('GET', `/api/alarms/${second.id}`);
    expect(whole.events.at(-1)).toMatchObject({
      kind: 'acknowledged',
      remark: 'Acknowledged with the Breach of the same rule.',
    });
  });

  it('is one rule: listed once, shelved and withdrawn with its Caution', async () => {
    const { body, send, metricId } = await bed();
    const { body: list } = await analyst.call<PageOf<AlarmRule>>('GET', '/api/alarm-rules?limit=500');
    const mine = list.items.filter((rule) => rule.metricId === metricId);
    expect(mine).toMatchObject([
      { id: body.id, level: 'breach', caution: { test: at(195), priority: 'low', told: [] } },
    ]);
    await analyst.call('PUT', `/api/alarm-rules/${body.id}/aside`, {
      kind: 'shelved',
      forMs: 3_600_000,
      reason: 'Fitter',
    });
    await send(210);
    expect((await standing(body.id)).sort()).toEqual(['breach high shelved', 'caution low shelved']);
    await analyst.call('DELETE', `/api/alarm-rules/${body.id}/aside`);
    expect((await standing(body.id)).sort()).toEqual([
      'breach high unacknowledged',
      'caution low unacknowledged',
    ]);
    expect((await analyst.call('DELETE', `/api/alarm-rules/${body.id}`)).status).toBe(204);
    const { rows } = await test.server.app.pool.query(
      'select 1 from alarm_watch join alarm_rule rule on rule.id = rule_id where $1 in (rule.id, rule.stage_of)',
      [body.id],
    );
    expect(rows).toEqual([]);
    const { body: whole } = await analyst.call<WholeRule>('GET', `/api/alarm-rules/${body.id}`);
    expect(whole.rule).toMatchObject({ inForce: false, caution: { test: at(195) } });
  });

  it('is rehearsed with both stages', async () => {
    const { draft, send } = await bed();
    for (const v of [190, 200, 190, 210, 190, 200]) await send(v);
    test.clock.now += MINUTE;
    const { body } = await analyst.call<RehearsalAnswer>('POST', '/api/alarm-rules/rehearsal', {
      ...draft,
      days: 1,
    });
    expect([body.alarms.length, body.caution?.alarms.length]).toEqual([1, 3]);
  });

  it('shows on its course what is compared with the limit, of a metric that it would watch', async () => {
    const { draft, send, metricId } = await bed();
    for (const v of [190, 200]) await send(v);
    test.clock.now += MINUTE;
    const ask = (courseOf: string) =>
      analyst.call<CourseAnswer & { error?: ErrorBody }>('POST', '/api/alarm-rules/rehearsal/course', {
        ...draft,
        days: 1,
        courseOf,
        columns: 500,
      });
    expect((await ask(metricId)).body).toMatchObject({ v: [190, 200], unit: '°C' });
    const other = await serverWithMetric(analyst);
    const refused = await ask(other.metricId);
    expect([refused.status, refused.body.error?.message]).toEqual([
      422,
      'The rule would not watch this metric.',
    ]);
  });

  it.each([
    ['a Caution that is not milder', { caution: { test: at(205) } }],
    ['a Caution of another kind', { caution: { test: { kind: 'silence', forMs: MINUTE } } }],
    ['a Caution before a Caution', { level: 'caution' }],
  ])('refuses %s', async (_, part) => {
    const { status, body } = await bed(part);
    expect([status, body.error?.message]).toEqual([
      422,
      expect.stringContaining('must come before the Breach'),
    ]);
  });
});
