import { createHash } from 'node:crypto';
import type { PageOf, TrailCheck, TrailEntry } from '@vivid-beacon/core';
import { withTransaction } from '../db/database';
import { onTestServer, push, ruleDraft, serverWithMetric, type Visitor } from '../testing/testServer';
import { tidyTrail } from './kept';
import { checkTrail } from './sql';

const { test, analyst, administrator } = onTestServer('analyst', 'administrator');

async function trail(query = ''): Promise<readonly TrailEntry[]> {
  const { status, body } = await administrator.call<PageOf<TrailEntry>>(
    'GET',
    `/api/trail?limit=500&${query}`,
  );
  expect(status).toBe(200);
  return body.items;
}

const check = async (): Promise<TrailCheck> =>
  (await administrator.call<TrailCheck>('POST', '/api/trail/check')).body;

describe('the trail', () => {
  it('tells the life of a rule: who, when, from where, what before and after', async () => {
    const { metricId } = await serverWithMetric(analyst);
    const { id } = (await analyst.call<{ id: string }>('POST', '/api/alarm-rules', ruleDraft(metricId))).body;
    await analyst.call('PUT', `/api/alarm-rules/${id}/aside`, {
      kind: 'shelved',
      forMs: 3_600_000,
      reason: 'Belt',
    });
    await analyst.call('DELETE', `/api/alarm-rules/${id}`);
    const [withdrawn, added] = await trail(`subject=alarm_rule&subjectId=${id}`);
    expect(added).toMatchObject({
      action: 'added',
      name: 'Too hot',
      personName: 'The analyst',
      address: expect.stringMatching(/127\.0\.0\.1$/) as string,
      request: 'POST /api/alarm-rules',
      at: test.clock.now,
      before: null,
      after: { name: 'Too hot', in_force: true, test: { kind: 'limit', limit: 205 } },
      plantName: expect.stringMatching(/^Plant /) as string,
    });
    // Of a change only what differs.
    expect(withdrawn).toMatchObject({
      action: 'changed',
      request: 'DELETE /api/alarm-rules/:id',
      before: { in_force: true },
      after: { in_force: false },
    });
    expect(Object.keys(withdrawn.after!)).toEqual(['in_force']);
    const [shelved] = await trail(`subject=alarm_rule_event&subjectId=${id}`);
    expect(shelved).toMatchObject({ personName: 'The analyst', after: { reason: 'Belt' } });
  });

  it('has no secrets, and says that they changed', async () => {
    await analyst.call('POST', '/api/push-tokens', { name: 'Boiler house' });
    const [token] = await trail('subject=push_token&search=boiler');
    expect(token.after).toMatchObject({ name: 'Boiler house', token_hash: '(secret)' });
    const hashes = await test.owner.query<{ n: number }>(
      `select count(*)::int as n from trail where after::text ~ 'argon2id' or before::text ~ 'argon2id'`,
    );
    expect(hashes.rows[0].n).toBe(0);
  });

  it('has sign-ins, failed tries, sign-outs and refusals', async () => {
    const visitor = test.visitor();
    await visitor.signIn('viewer@test.example', 'wrong');
    await visitor.signIn('viewer@test.example');
    expect((await visitor.call('POST', '/api/assets', { name: 'X' })).status).toBe(403);
    // A page that asks again is noted once.
    expect((await visitor.call('POST', '/api/assets', { name: 'X' })).status).toBe(403);
    await visitor.call('DELETE', '/api/session');
    const entries = (await trail()).filter(
      ({ subject, name, personName }) =>
        ['session', 'request'].includes(subject) && [name, personName].includes('The viewer'),
    );
    expect(entries.map(({ action, personName, name }) => [action, personName, name])).toEqual([
      ['signedOut', 'The viewer', 'The viewer'],
      ['refused', 'The viewer', 'POST /api/assets'],
      ['signedIn', 'The viewer', 'The viewer'],
      // Whose account it was is certain, not who tried.
      ['signInFailed', null, 'The viewer'],
    ]);
  });

  it('is rolled back with what it tells of, and keeps its numbers without gaps', async () => {
    const before = await check();
    await expect(
      withTransaction(test.server.app.pool, async (db) => {
        await db.query(`insert into flag_cause (name) values ('Never')`);
        throw new Error('undone');
      }),
    ).rejects.toThrow('undone');
    expect(await check()).toEqual(before);
  });

  it('stays one chain when many change things at once', async () => {
    const before = await check();
    const made = await Promise.all(
      Array.from({ length: 20 }, (_, i) => analyst.call('POST', '/api/flag-causes', { name: `Cause ${i}` })),
    );
    expect(new Set(made.map(({ status }) => status))).toEqual(new Set([200]));
    const after = await check();
    expect([after.whole, after.entries]).toEqual([true, before.entries + 20]);
  });

  it('costs samples nothing: a push leaves no entry', async () => {
    const { key, token } = await serverWithMetric(analyst);
    const before = await check();
    await push(test.url, token, [{ metric: key, t: test.clock.now, v: 1 }]);
    expect((await check()).entries).toBe(before.entries);
  });

  it('is exported so that its hashes can be computed elsewhere', async () => {
    const response = await fetch(`${test.url}/api/trail/export`, { headers: administrator.headers() });
    const text = await response.text();
    const lines = text
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as TrailEntry & { previousHash: string });
    expect(lines.length).toBeGreaterThan(20);
    // FIPS 180-4 by another implementation (Node's), over the text that the database hashes.
    const { rows } = await test.owner.query<{ seq: string; content: string }>(
      `select seq::text, (jsonb_build_object('seq', seq, 'at', (extract(epoch from at) * 1000000)::bigint, 'personId', person_id,
         'personName', person_name, 'address', address, 'request', request, 'action', action, 'subject', subject,
         'subjectId', subject_id, 'name', name, 'plantId', plant_id, 'before', before, 'after', after))::text as content
       from trail order by trail.seq`,
    );
    for (const [i, { id, hash, previousHash }] of lines.entries()) {
      const own = createHash('sha256')
        .update(Buffer.from(previousHash, 'hex'))
        .update(rows[i].content)
        .digest('hex');
      expect([id, hash]).toEqual([rows[i].seq, own]);
      if (i > 0) expect(previousHash).toBe(lines[i - 1].hash);
    }
  });
});

describe('whoever would change the trail', () => {
  it('cannot with the rights of the application', async () => {
    const { pool } = test.server.app;
    await expect(pool.query('update trail set person_name = null')).rejects.toThrow('permission denied');
    await expect(pool.query('delete from trail')).rejects.toThrow('permission denied');
    await expect(pool.query('truncate trail')).rejects.toThrow('permission denied');
    await expect(pool.query(`insert into trail (seq) values (1)`)).rejects.toThrow('permission denied');
    await expect(pool.query('update trail_start set seq = 1')).rejects.toThrow('permission denied');
    await expect(pool.query('alter table asset disable trigger all')).rejects.toThrow('must be owner');
  });

  it('cannot by accident with those of the owner, and is found out otherwise', async () => {
    await expect(test.owner.query('delete from trail where seq = 3')).rejects.toThrow('append-only');
    await test.owner.query('alter table trail disable trigger append_only');
    const { rows } = await test.owner.query<{ name: string }>('select name from trail where seq = 5');
    await test.owner.query(`update trail set name = 'Somebody else' where seq = 5`);
    expect(await check()).toMatchObject({ whole: false, broken: 5 });
    // In portions of any size: also where the entry is the first or the last of one.
    for (const inOne of [1, 2, 3, 4, 5, 7]) {
      expect(await checkTrail(test.owner, inOne)).toMatchObject({ whole: false, broken: 5 });
    }
    await test.owner.query('update trail set name = $1 where seq = 5', [rows[0].name]);
    const whole = await check();
    expect(whole).toMatchObject({ whole: true, broken: null });
    for (const inOne of [1, 3, 10, whole.entries]) expect(await checkTrail(test.owner, inOne)).toEqual(whole);
    await test.owner.query('alter table trail enable trigger append_only');
  });
});

describe('every table', () => {
  /** Tables without a trail, and why. */
  const WITHOUT: Readonly<Record<string, string>> = {
    alarm: 'its changes are alarm_event, and those of people are in the trail',
    alarm_period: 'computed',
    alarm_watch: 'computed; setting aside is alarm_rule_event',
    alarm_watch_input: 'computed',
    asset_place: 'computed',
    board_favourite: 'of the person alone',
    board_version: 'itself a history of boards',
    caught_message: 'what a stand-in received',
    indicator_level: 'computed',
    intake_arrived: 'parts of a file under way',
    intake_change: 'what an intake changed, for its undo',
    intake_line: 'what was told of a file',
    intake_metric: 'what came of a file; the intake itself is in the trail',
    intake_part: 'parts of a file under way',
    metric_latest: 'computed',
    metric_title: 'computed',
    migration: 'of the program',
    notice: 'sent by the server',
    push_day: 'counted',
    rollup_day: 'computed',
    sample_correction: 'itself a history of samples',
    sample_day: 'samples: corrections have a history of their own',
    session: 'sign-ins are noted',
    throttle: 'counted',
    trail: 'itself',
    trail_start: 'itself',
  };

  it('is in the trail, or it is said why not', async () => {
    const { rows } = await test.owner.query<{ name: string; watched: boolean }>(
      `select relname as name, exists (select from pg_trigger where tgrelid = pg_class.oid and tgname = 'trail') as watched
       from pg_class where relkind = 'r' and relnamespace = 'public'::regnamespace order by relname`,
    );
    const unwatched = rows.filter(({ watched }) => !watched).map(({ name }) => name);
    expect(unwatched).toEqual(Object.keys(WITHOUT));
  });
});

describe('old entries', () => {
  it('are cut off after the time that is set, and the rest is still whole', async () => {
    const set = (days: number, by: Visitor = administrator) => by.call('PUT', '/api/trail/setting', { days });
    expect((await set(30)).status).toBe(422);
    expect((await set(100, analyst)).status).toBe(403);
    expect((await set(100)).status).toBe(204);
    await analyst.call('POST', '/api/flag-causes', { name: 'Late' });
    // As if the first of them had been written long ago.
    await test.owner.query('alter table trail disable trigger append_only');
    await test.owner.query(`update trail set at = at - interval '400 days' where seq <= 12`);
    await test.owner.query('alter table trail enable trigger append_only');
    const { entries } = await check();
    expect(await tidyTrail(test.server.app.pool, test.clock.now)).toBe(12);
    // One more: that they were cut off.
    expect(await check()).toMatchObject({ whole: true, entries: entries - 12 + 1 });
    expect((await trail())[0]).toMatchObject({ action: 'cut', after: { rows: 12 } });
    expect(await tidyTrail(test.server.app.pool, test.clock.now)).toBe(0);
  });

  it('cannot be cut off earlier by asking the function, also for a later day', async () => {
    const { rows } = await test.server.app.pool.query<{ n: string }>('select trail_cut(0, $1) as n', [
      '2199-01-01',
    ]);
    expect(rows[0].n).toBe('0');
  });
});
