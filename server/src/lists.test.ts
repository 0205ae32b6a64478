import {
  ALARM_PRIORITIES,
  type Alarm,
  type AlarmRule,
  type Flag,
  type IndicatorReading,
  type PageOf,
} from '@vivid-beacon/core';
import {
  countSetAside,
  countStanding,
  findAlarm,
  pageOfAlarms,
  raisedOnTime,
  urgentAlarms,
} from './alarms/listSql';
import { countRules, findRule, pageOfRules, watchesOfRule } from './alarms/rulesSql';
import { readAs, readAsServer, type Reader } from './db/reader';
import { countOpenFlags, findFlag, pageOfFlags } from './flags/sql';
import { refreshLevels } from './indicators/storedLevels';
import { countStoredLevels } from './indicators/levelSql';
import { findIndicator, pageOfIndicators } from './indicators/sql';
import {
  indicatorDraft,
  onTestServer,
  push,
  ruleDraft,
  TEST_NOW,
  serverWithMetric,
  peopleOf,
} from './testing/testServer';

/* Lists that grow: searched, sorted and paged by the database, and of each only what the asker may see. */

const MINUTE = 60_000;
const { test, analyst, operator } = onTestServer('analyst', 'operator');
const ALL = { offset: 0, limit: 500 };
const now = TEST_NOW;

interface Machine {
  readonly metric: {
    readonly key: string;
    readonly token: string;
    readonly metricId: string;
    readonly assetId: string;
  };
  readonly rule: string;
  readonly flag: string;
  readonly indicator: string;
}

/** A plant with a rule whose alarm stands, an open flag and an indicator. */
async function machine(name: string, v: number): Promise<Machine> {
  const metric = await serverWithMetric(analyst);
  const made = async (path: string, body: object): Promise<string> => {
    const answer = await analyst.call<{ id: string }>('POST', path, body);
    expect([path, answer.status]).toEqual([path, 200]);
    return answer.body.id;
  };
  const rule = await made('/api/alarm-rules', { ...ruleDraft(metric.metricId), name: `Rule ${name}` });
  const indicator = await made(
    '/api/indicators',
    indicatorDraft(metric.assetId, metric.metricId, { name: `Indicator ${name}` }),
  );
  const people = await peopleOf(analyst);
  const flag = await made('/api/flags', {
    title: `Flag ${name}`,
    note: '',
    toPersonId: people.find((each) => each.name === 'The operator')!.id,
    dueAt: now + Number(name) * MINUTE,
    alarmId: null,
    assetId: metric.assetId,
    metricId: metric.metricId,
    evidence: null,
    kind: 'breach',
    priority: name === '10' ? 'high' : 'normal',
  });
  await push(test.url, metric.token, [{ metric: metric.key, t: test.clock.now + MINUTE, v }]);
  return { metric, rule, flag, indicator };
}

let two: Machine;
let ten: Machine;
let calm: Machine;
beforeAll(async () => {
  // The first sample comes after the rule began.
  two = await machine('2', 210);
  ten = await machine('10', 230);
  calm = await machine('300', 90);
  test.clock.now += 2 * MINUTE;
});

const page = async <Item>(path: string): Promise<PageOf<Item>> =>
  (await operator.call<PageOf<Item>>('GET', path)).body;

describe('a long list', () => {
  it('of alarms is told in full, comes in parts, and is searched by rule and place', async () => {
    const first = await page<Alarm>('/api/alarms?limit=1');
    const second = await page<Alarm>('/api/alarms?limit=1&offset=1');
    expect([first.total, second.total]).toEqual([2, 2]);
    expect(first.items[0].id).not.toBe(second.items[0].id);
    expect((await page<Alarm>('/api/alarms?search=rule 10')).items.map(({ ruleId }) => ruleId)).toEqual([
      ten.rule,
    ]);
    const { items } = await page<Alarm>(`/api/alarms?ruleId=${two.rule}`);
    const found = await page<Alarm>(`/api/alarms?search=${encodeURIComponent(items[0].plantName)}`);
    expect(found.items.map(({ id }) => id)).toContain(items[0].id);
    expect((await page<Alarm>('/api/alarms?search=100%25')).total).toBe(0);
    expect((await page<Alarm>('/api/alarms?list=over')).total).toBe(0);
    // A page behind the end is empty and still tells how many there are.
    expect(await page<Alarm>('/api/alarms?offset=50')).toEqual({ items: [], total: 2, setAside: 0 });
  });

  it('of alarms counts those set aside apart', async () => {
    const aside = { kind: 'shelved', forMs: 60 * MINUTE, reason: 'Fitter' };
    await operator.call('PUT', `/api/alarm-rules/${two.rule}/aside`, aside);
    const { total, setAside, items } = (await page<Alarm>('/api/alarms')) as PageOf<Alarm> & {
      setAside: number;
    };
    expect([total, setAside]).toEqual([2, 1]);
    expect(items.at(-1)).toMatchObject({ ruleId: two.rule, state: 'shelved' });
    const [rule] = (await page<AlarmRule>('/api/alarm-rules?search=rule 2')).items;
    expect(rule.watched).toMatchObject({ metrics: 1, aside: 1, how: { kind: 'shelved', reason: 'Fitter' } });
    await operator.call('DELETE', `/api/alarm-rules/${two.rule}/aside`);
  });

  it('of rules has 2 before 10 and finds words in any order', async () => {
    const { items, total } = await page<AlarmRule>('/api/alarm-rules');
    expect([total, items.map(({ name }) => name)]).toEqual([3, ['Rule 2', 'Rule 10', 'Rule 300']]);
    expect((await page<AlarmRule>('/api/alarm-rules?search=300 rule')).total).toBe(1);
  });

  it('of flags is mine or given, and the most urgent come first', async () => {
    const titles = async (query: string): Promise<string[]> =>
      (await page<Flag>(`/api/flags?${query}`)).items.map(({ title }) => title);
    // The first is late by now; of the others the high priority counts before the time.
    test.clock.now = now + 2.5 * MINUTE;
    expect(await titles('list=mine')).toEqual(['Flag 2', 'Flag 10', 'Flag 300']);
    expect(await titles('list=given')).toEqual([]);
    expect(await titles('search=flag 300')).toEqual(['Flag 300']);
    expect(await titles('state=closed')).toEqual([]);
  });

  it('of indicators has the worst first, once their levels are kept', async () => {
    await refreshLevels(test.server.app);
    const names = (await page<IndicatorReading>('/api/indicators')).items.map(({ name, reading }) => [
      name,
      reading.level,
    ]);
    const { rows } = await test.server.app.pool.query<{ level: string }>('select level from indicator_level');
    expect(rows).toHaveLength(3);
    expect(names.map(([, level]) => level).sort()).toEqual(rows.map(({ level }) => level).sort());
    const one = await page<IndicatorReading>(`/api/indicators?ids=${calm.indicator}`);
    expect(one.items.map(({ name }) => name)).toEqual(['Indicator 300']);
    expect((await page<IndicatorReading>('/api/indicators?search=indicator 10')).total).toBe(1);
    // Those that were judged within the last minute are left alone, and all are judged again after it.
    expect(await refreshLevels(test.server.app)).toBe(0);
    test.clock.now += 2 * MINUTE;
    expect(await refreshLevels(test.server.app)).toBe(3);
  });

  it('of indicators forgets the level of a definition that is not in force any more', async () => {
    const kept = async (): Promise<unknown> =>
      (await findIndicator(readAsServer(test.server.app.pool), calm.indicator))!.keptLevel;
    expect(await kept()).not.toBeNull();
    const definition = indicatorDraft(calm.metric.assetId, calm.metric.metricId, { name: 'Indicator 300' });
    const put = { from: 1, definition };
    expect((await analyst.call('PUT', `/api/indicators/${calm.indicator}`, put)).status).toBe(204);
    expect(await kept()).toBeNull();
    // Not known yet comes first.
    const { items } = await pageOfIndicators(readAsServer(test.server.app.pool), {}, ALL);
    expect(items[0].id).toBe(calm.indicator);
  });
});

describe('whoever may see one plant', () => {
  const asker = (sites: string[]): Reader =>
    readAs(test.server.app.pool, { personId: null, sites, keys: [] });
  const window = { start: now - 60 * MINUTE, end: now + 60 * MINUTE };
  const alarmId = async (ruleId: string): Promise<string> =>
    (await page<Alarm>(`/api/alarms?ruleId=${ruleId}`)).items[0].id;

  /** Every way to read what lies on an asset, as ids of plants or how many there are. */
  const READS: Readonly<Record<string, (db: Reader, of: Machine) => Promise<number>>> = {
    'alarms that stand': async (db) => (await pageOfAlarms(db, { list: 'standing' }, ALL)).total,
    'alarms by words': async (db) =>
      (await pageOfAlarms(db, { list: 'standing', words: ['rule'] }, ALL)).total,
    'urgent alarms': async (db) =>
      (await urgentAlarms(db, { states: ['unacknowledged'], priorities: ALARM_PRIORITIES, most: 10 })).length,
    'counted alarms': async (db) => (await countStanding(db)).reduce((sum, { n }) => sum + n, 0),
    'one alarm': async (db, of) => ((await findAlarm(db, await alarmId(of.rule))) ? 1 : 0),
    'alarms on time': async (db, of) => (await raisedOnTime(db, [of.metric.metricId], window)).length,
    'rules in force': async (db) => (await pageOfRules(db, [], ALL)).total,
    'counted rules': async (db) => countRules(db),
    'one rule': async (db, of) => ((await findRule(db, of.rule)) ? 1 : 0),
    'watched metrics': async (db, of) => (await watchesOfRule(db, of.rule)).length,
    'open flags': async (db) => (await pageOfFlags(db, { state: 'open', list: 'all' }, ALL, { now })).total,
    'counted flags': async (db) =>
      Object.values(await countOpenFlags(db, now)).reduce((sum, { late, later }) => sum + late + later, 0),
    'one flag': async (db, of) => ((await findFlag(db, of.flag)) ? 1 : 0),
    indicators: async (db) => (await pageOfIndicators(db, {}, ALL)).total,
    'levels of indicators': async (db) => (await countStoredLevels(db)).reduce((sum, { n }) => sum + n, 0),
    'one indicator': async (db, of) => ((await findIndicator(db, of.indicator)) ? 1 : 0),
  };

  it.each(Object.keys(READS))('sees there only: %s', async (name) => {
    const { assetId } = ten.metric;
    expect(await READS[name](asker([assetId]), ten)).toBe(1);
    expect(await READS[name](asker([calm.metric.assetId, assetId]), ten)).toBeGreaterThanOrEqual(1);
    expect(await READS[name](asker([]), ten)).toBe(0);
  });

  it('is told of none that is set aside elsewhere', async () => {
    expect(await countSetAside(asker([ten.metric.assetId]), { list: 'standing' })).toBe(0);
  });
});
