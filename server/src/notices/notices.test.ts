import type { Alarm, AlarmEvent, Flag, Notice, Person } from '@vivid-beacon/core';
import {
  alarmsOf,
  onTestServer,
  push,
  ruleDraft,
  type Visitor,
  serverWithMetric,
  peopleOf,
} from '../testing/testServer';
import { escalate } from '../alarms/alarmNotices';
import { enqueueLateFlagNotices } from '../flags/flagNotices';
import { sendNotices, waitAfter, type Transports } from './send';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const { test, analyst, operator } = onTestServer('analyst', 'operator');
let people: readonly Person[];
beforeAll(async () => {
  people = await peopleOf(analyst);
});

const idOf = (role: string): string => people.find((person) => person.role === role)!.id;
const later = (ms: number): void => void (test.clock.now += ms);
/** A moment after everything before. */
const mark = (): number => (test.clock.now += 1000);
const noticesOf = async (who: Visitor): Promise<Notice[]> =>
  (await who.call<{ notices: Notice[] }>('GET', '/api/notices')).body.notices;
/** Notices since a moment, oldest first, in short. */
const told = async (who: Visitor, since: number): Promise<string[]> =>
  (await noticesOf(who))
    .filter(({ createdAt }) => createdAt >= since)
    .map(({ kind, channel }) => `${kind} by ${channel}`)
    .reverse();
const send = (): Promise<number> => sendNotices(test.server.app, test.server.posts);

interface Hot {
  readonly rule: string;
  readonly metric: Awaited<ReturnType<typeof serverWithMetric>>;
  readonly sample: (v: number) => Promise<unknown>;
  readonly alarm: () => Promise<Alarm>;
}

/** A rule that notifies the operator, and a function that exceeds its limit. */
async function hot(part: object = {}): Promise<Hot> {
  const metric = await serverWithMetric(analyst);
  const draft = ruleDraft(metric.metricId, { told: [idOf('operator')], ...part });
  const { body } = await analyst.call<{ id: string }>('POST', '/api/alarm-rules', draft);
  return {
    rule: body.id,
    metric,
    sample: (v) => {
      later(MINUTE);
      return push(test.url, metric.token, [{ metric: metric.key, t: test.clock.now, v }]);
    },
    alarm: async () => (await alarmsOf(analyst, body.id))[0],
  };
}

const wish = (who: Visitor, part: object = {}) =>
  who.call('PUT', '/api/notice-wish', {
    byEmail: true,
    byText: false,
    phone: null,
    quiet: null,
    zone: 'Europe/London',
    ...part,
  });

describe('a notice of an alarm', () => {
  it('comes on breach and on return, through the mail catcher, to those of the rule only', async () => {
    const since = mark();
    const one = await hot({ message: '{asset} is at {value}', toDo: 'Slow the feed.' });
    await one.sample(230);
    await one.sample(190);
    expect(await told(operator, since)).toEqual(['breach by email', 'return by email']);
    expect(await told(await test.as('viewer'), since)).toEqual([]);
    expect(await send()).toBe(2);
    const [back, breach] = await noticesOf(operator);
    expect(breach).toMatchObject({
      subject: 'Too hot',
      address: `/alarms/${(await one.alarm()).id}`,
      sentTo: 'operator@test.example',
      caughtAt: test.clock.now,
    });
    expect(breach.body).toMatch(/^Plant \w+ is at 230/);
    expect(back.caughtAt).not.toBeNull();
    const { rows } = await test.server.app.pool.query<{ subject: string; body: string }>(
      'select subject, body from caught_message where channel = $1 order by id',
      ['email'],
    );
    expect(rows[0].subject).toBe('Too hot');
    expect(rows[0].body).toContain('Slow the feed.');
    expect(rows[0].body).toContain(`${test.url}/alarms/`);
    // Nothing is left to send.
    expect(await send()).toBe(0);
  });

  it('comes as a text message too where the person wants it', async () => {
    await wish(operator, { byText: true, phone: '+44 1632 960123' });
    const since = mark();
    const one = await hot();
    await one.sample(230);
    expect((await told(operator, since)).sort()).toEqual(['breach by email', 'breach by text']);
    await send();
    const { rows } = await test.server.app.pool.query(
      "select sent_to from caught_message where channel = 'text'",
    );
    expect(rows).toEqual([{ sent_to: '+44 1632 960123' }]);
    await wish(operator);
  });

  it('does not come from a shelved rule, comes once put back, and never from what is old', async () => {
    const since = mark();
    const one = await hot();
    await analyst.call('PUT', `/api/alarm-rules/${one.rule}/aside`, {
      kind: 'shelved',
      forMs: HOUR,
      reason: 'x',
    });
    await one.sample(230);
    expect(await told(operator, since)).toEqual([]);
    await analyst.call('DELETE', `/api/alarm-rules/${one.rule}/aside`);
    expect(await told(operator, since)).toEqual(['breach by email']);

    const old = await hot();
    later(3 * 24 * HOUR);
    const then = test.clock.now - 2 * 24 * HOUR;
    await push(test.url, old.metric.token, [{ metric: old.metric.key, t: then, v: 230 }]);
    expect((await old.alarm()).state).toBe('unacknowledged');
    expect(await told(operator, test.clock.now)).toEqual([]);
  });

  it('is rolled back with what it tells of', async () => {
    const { enqueueNotice } = await import('./enqueueNotice');
    const { withTransaction } = await import('../db/database');
    const since = mark();
    const text = { subject: 'Never', body: '' };
    const telling = {
      about: 'nothing',
      kind: 'flag',
      urgent: false,
      text,
      address: '/',
      plantId: '1',
    } as const;
    await expect(
      withTransaction(test.server.app.pool, async (db) => {
        expect(await enqueueNotice(db, [idOf('operator')], telling, since)).toEqual(['The operator']);
        throw new Error('undone');
      }),
    ).rejects.toThrow('undone');
    expect(await told(operator, since + 1)).toEqual([]);
    await send();
  });
});

describe('quiet hours', () => {
  it('hold a notice until they end, but not one of high priority; several come as one', async () => {
    await send();
    await wish(operator, { quiet: { from: '22:00', to: '06:00' } });
    test.clock.now = Math.ceil(test.clock.now / (24 * HOUR)) * 24 * HOUR + 23 * HOUR;
    const night = test.clock.now;
    const calm = await Promise.all([hot(), hot(), hot()]);
    for (const one of calm) await one.sample(230);
    const urgent = await hot({ priority: 'high' });
    await urgent.sample(230);
    expect(await send()).toBe(1);
    test.clock.now = night + 7 * HOUR;
    expect(await send()).toBe(1);
    const got = (await noticesOf(operator)).filter(({ createdAt }) => createdAt >= night);
    expect(got.find(({ kind }) => kind === 'digest')).toMatchObject({
      subject: expect.stringContaining('3 notices'),
    });
    expect(got.filter(({ digestId }) => digestId !== null)).toHaveLength(3);
    await wish(operator);
  });
});

describe('a flood', () => {
  it('is gathered into digests of which one comes in ten minutes', async () => {
    await send();
    later(HOUR);
    const since = mark();
    const one = await hot();
    for (let i = 0; i < 8; i++) {
      await one.sample(230);
      await one.sample(190);
    }
    expect(await told(operator, since)).toHaveLength(16);
    expect(await send()).toBe(1);
    later(MINUTE);
    const more = await hot();
    await more.sample(230);
    await more.sample(190);
    // The flood is over: these two are sent one by one.
    expect(await send()).toBe(2);
    const all = (await noticesOf(operator)).filter(({ createdAt }) => createdAt >= since);
    const digest = all.find(({ kind }) => kind === 'digest')!;
    expect(digest.body).toContain('Too hot (8 times)');
    expect(all.filter(({ digestId }) => digestId === digest.id)).toHaveLength(16);
  });
});

describe('escalation', () => {
  it('tells others when nobody acknowledges, once for each call', async () => {
    const escalation = { afterMs: 15 * MINUTE, to: [idOf('analyst')] };
    const one = await hot({ escalation });
    await one.sample(230);
    const { pool } = test.server.app;
    later(15 * MINUTE - 1);
    expect(await escalate(pool, test.clock.now)).toBe(0);
    later(1);
    const since = mark();
    const twice = await Promise.all([escalate(pool, since), escalate(pool, since)]);
    expect(twice.reduce((a, b) => a + b)).toBe(1);
    expect(await told(analyst, since)).toEqual(['escalation by email']);
    later(HOUR);
    expect(await escalate(pool, test.clock.now)).toBe(0);
    const { id } = await one.alarm();
    const { body } = await analyst.call<{ events: AlarmEvent[] }>('GET', `/api/alarms/${id}`);
    expect(body.events.find(({ kind }) => kind === 'told')!.remark).toContain('The analyst');

    // It raises again: back to normal, then over the limit once more.
    await one.sample(190);
    await one.sample(240);
    later(16 * MINUTE);
    expect(await escalate(pool, test.clock.now)).toBe(1);
  });

  it('is not needed once somebody has acknowledged', async () => {
    const one = await hot({ escalation: { afterMs: 5 * MINUTE, to: [idOf('analyst')] } });
    await one.sample(230);
    await operator.call('POST', `/api/alarms/${(await one.alarm()).id}/acknowledgement`, { remark: '' });
    later(HOUR);
    expect(await escalate(test.server.app.pool, test.clock.now)).toBe(0);
  });
});

describe('a flag', () => {
  it('is told to the person who takes it, and once more to both when it is late', async () => {
    await send();
    const { assetId } = await serverWithMetric(analyst);
    const since = mark();
    const flag = await analyst.call<Flag>('POST', '/api/flags', {
      title: 'Look at trap B',
      toPersonId: idOf('operator'),
      dueAt: test.clock.now + HOUR,
      assetId,
    });
    expect(flag.status).toBe(200);
    expect(await told(operator, since)).toEqual(['flag by email']);
    const { pool } = test.server.app;
    expect(await enqueueLateFlagNotices(pool, test.clock.now)).toBe(0);
    later(HOUR + 1);
    const late = test.clock.now;
    const twice = await Promise.all([enqueueLateFlagNotices(pool, late), enqueueLateFlagNotices(pool, late)]);
    expect(twice.reduce((a, b) => a + b)).toBe(1);
    expect(await told(operator, late)).toEqual(['lateFlag by email']);
    expect(await told(analyst, late)).toEqual(['lateFlag by email']);
    expect(await enqueueLateFlagNotices(pool, test.clock.now)).toBe(0);
  });
});

describe('a mail server that is down', () => {
  const down: Transports = {
    mail: async () => Promise.reject(Object.assign(new Error('connect'), { code: 'ECONNREFUSED' })),
    text: async () => undefined,
    standIns: { email: false, text: false },
    close: async () => undefined,
  };

  it('for an hour: what was to be sent is kept, tried again ever more seldom, and sent once', async () => {
    await send();
    later(HOUR);
    const one = await hot();
    await one.sample(230);
    const end = test.clock.now + HOUR;
    let tries = 0;
    while (test.clock.now < end) {
      await sendNotices(test.server.app, {
        ...down,
        mail: (message) => {
          tries++;
          return down.mail(message);
        },
      });
      later(5000);
    }
    expect(tries).toBeGreaterThan(5);
    expect(tries).toBeLessThan(20);
    const [waiting] = await noticesOf(operator);
    expect(waiting).toMatchObject({ sentAt: null, lastError: 'ECONNREFUSED', attempts: tries });
    later(10 * MINUTE);
    expect(await send()).toBe(1);
    expect((await noticesOf(operator))[0]).toMatchObject({ lastError: null, caughtAt: test.clock.now });
  });

  it('waits longer after each failure, and ten minutes at most', () => {
    const waits = [0, 1, 2, 3, 10].map(waitAfter);
    expect(waits).toEqual([15_000, 30_000, 60_000, 120_000, 600_000]);
  });
});

describe('two servers on one database', () => {
  it('send each notice once between them', async () => {
    await send();
    later(HOUR);
    const rules = await Promise.all(Array.from({ length: 6 }, () => hot()));
    for (const rule of rules) await rule.sample(230);
    const seen: string[] = [];
    const posts: Transports = {
      ...test.server.posts,
      mail: async ({ messageId }) => {
        seen.push(messageId);
        await new Promise((done) => setTimeout(done, 5));
      },
    };
    const counts = await Promise.all([1, 2, 3].map(() => sendNotices(test.server.app, posts)));
    expect(counts.reduce((a, b) => a + b)).toBe(6);
    expect(new Set(seen).size).toBe(6);
    expect(seen).toHaveLength(6);
  });

  it('send it again when one dies between sending and noting it, and the receiver keeps one', async () => {
    await send();
    later(HOUR);
    const one = await hot();
    await one.sample(230);
    const dying: Transports = {
      ...test.server.posts,
      mail: async (message) => {
        await test.server.posts.mail(message);
        // The connection of this server breaks, as when it is killed: nothing it did is committed.
        await test.owner.query(
          `select pg_terminate_backend(pid) from pg_stat_activity
           where state = 'idle in transaction' and pid <> pg_backend_pid() and datname = current_database()`,
        );
      },
    };
    await expect(sendNotices(test.server.app, dying)).rejects.toThrow();
    expect((await noticesOf(operator))[0].sentAt).toBeNull();
    expect(await send()).toBe(1);
    const [{ id }] = await noticesOf(operator);
    const { rows } = await test.server.app.pool.query(
      'select count(*)::int as n from caught_message where message_id = $1',
      [`notice-${id}`],
    );
    expect(rows).toEqual([{ n: 1 }]);
  });
});

describe('the outbox', () => {
  it('shows everybody their own, and analysts those of all', async () => {
    const mine = await operator.call<{ notices: Notice[]; standIns: object }>('GET', '/api/notices?of=all');
    expect(mine.body.standIns).toEqual({ email: true, text: true });
    expect(new Set(mine.body.notices.map(({ personName }) => personName))).toEqual(new Set(['The operator']));
    const all = await analyst.call<{ notices: Notice[] }>('GET', '/api/notices?of=all');
    expect(new Set(all.body.notices.map(({ personName }) => personName)).size).toBeGreaterThan(1);
  });

  it('is emptied of what is long past, never of what still waits', async () => {
    const { tidyUp } = await import('../jobs/retention');
    await send();
    const one = await hot();
    await one.sample(230);
    const { pool } = test.server.app;
    const count = async (): Promise<number> =>
      (await pool.query<{ n: number }>('select count(*)::int as n from notice')).rows[0].n;
    expect(await count()).toBeGreaterThan(1);
    await tidyUp(pool, test.clock.now + 401 * 24 * HOUR);
    expect(await count()).toBe(1);
    expect((await pool.query('select 1 from caught_message')).rows).toEqual([]);
  });
});
