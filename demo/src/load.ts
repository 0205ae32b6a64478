import { DateTime } from 'luxon';
import { rightsEverywhere, SHARED_WITH_ALL, type DemoAccount, type Series } from '@vivid-beacon/core';
import { sortSamples } from '@vivid-beacon/core/src/aggregation';
import {
  acknowledgeAlarm,
  addAsset,
  createBoard,
  addCause,
  addFlag,
  addIndicator,
  addMetric,
  addPerson,
  addToken,
  hashPassword,
  hashToken,
  listMetrics,
  pageOfAlarms,
  readAsServer,
  storeSamples,
  putInForce,
  readSetting,
  withTransaction,
  writeSetting,
  writeTargets,
  type Pool,
} from '@vivid-beacon/server';
import accounts from '../accounts.json';
import { comparingBoard } from './comparing';
import { metricKey } from './keys';
import { definitionOf, demoBoards, demoIndicators, type DemoIndicator, type IdOf } from './layout';
import { demoRules, periodRules } from './rules';
import { setUpDemo } from './setUp';
import { PLANTS, samplesBetween, scenario, type ScenarioMetric } from './scenario';

export const DEMO_DAYS = 90;
const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;
const RULES_SINCE_MS = 14 * DAY_MS;
/** Nobody has acknowledged alarms of rules over periods yet, so that they begin later. */
const PERIOD_RULES_SINCE_MS = 2 * DAY_MS;
const METRICS_AT_ONCE = 12;

interface DemoState {
  readonly anchor: number;
  readonly tokenId: string;
  /** Whether the first load is complete. */
  readonly complete: boolean;
}

/**
 * Lays out Hollowmere Linen for the moment `now`, or, if it exists already, adds what its devices would have
 * sent since. Safe to run again after an interruption.
 */
export async function loadDemo(
  pool: Pool,
  options: { now: number; plantToken: string; days?: number; say?: (line: string) => void },
): Promise<{ anchor: number; samples: number }> {
  const say = options.say ?? (() => undefined);
  const before = await readSetting<DemoState>(pool, 'demo');
  const anchor = before?.anchor ?? options.now;
  const metrics = scenario(anchor);
  const people = await addPeople(pool, options.now, new Map());
  const analyst = people.get('Ines Varga')!;
  const tokenId =
    before?.tokenId ??
    (await addToken(pool, {
      name: 'Simulated plant',
      hash: hashToken(options.plantToken),
      createdBy: analyst,
      at: anchor,
    }));
  await writeSetting(pool, 'demo', {
    anchor,
    tokenId,
    complete: before?.complete ?? false,
  } satisfies DemoState);

  const assets = await addAssets(pool, metrics);
  for (const [name, id] of await addPeople(pool, options.now, assets)) people.set(name, id);
  await addMetrics(pool, metrics, assets, anchor);
  const rows = await listMetrics(readAsServer(pool));
  const byKey = new Map(rows.map((row) => [row.key, row]));
  const idOf: IdOf = (name) => {
    const [plant, asset, metric] = name.split('/');
    return byKey.get(metricKey({ plant, asset, name: metric }))!.id;
  };
  const first = !before?.complete;
  const rules = demoRules(
    idOf,
    (name) => people.get(name)!,
    (place) => assets.get(place)!,
  );
  if (first) {
    const { rows: standing } = await pool.query('select 1 from alarm_rule limit 1');
    if (standing.length === 0) {
      for (const rule of rules) await putInForce(pool, rule, analyst, anchor - RULES_SINCE_MS);
    }
  }
  const start = anchor - (options.days ?? DEMO_DAYS) * DAY_MS;
  const fill = { pool, byKey, start, tokenId };
  let samples = 0;
  if (first) {
    // Day by day where there are alarm rules, so that people acknowledge each alarm before the next.
    const ruled = new Set(await watchedMetricIds(pool));
    const watched = metrics.filter((metric) => ruled.has(byKey.get(metricKey(metric))!.id));
    for (let end = anchor - RULES_SINCE_MS; end <= options.now; end += DAY_MS) {
      samples += await fillSamples(fill, watched, end);
      await acknowledgeOld(pool, people.get('Dele Marsh')!, end);
    }
  }
  samples += await fillSamples(fill, metrics, options.now, say);
  if (first) {
    await addIndicators(pool, demoIndicators(idOf), assets, analyst, anchor);
    const { rows: boards } = await pool.query('select 1 from board limit 1');
    if (boards.length === 0) {
      const comparing = {
        title: 'Comparing machines and meters',
        labels: ['Comparisons'],
        document: comparingBoard(idOf, (place) => assets.get(place)!),
      };
      for (const board of [...demoBoards(idOf), comparing])
        await createBoard(pool, { ...board, ownerId: analyst, shares: SHARED_WITH_ALL, at: anchor });
    }
    const { rows: flags } = await pool.query('select 1 from flag limit 1');
    if (flags.length === 0) await addFlags(pool, people, assets, anchor);
    await settleNotices(pool, anchor);
    await writeSetting(pool, 'demo', { anchor, tokenId, complete: true } satisfies DemoState);
  }
  if (await setUpDemo({ pool, assets, idOf, personId: analyst, anchor })) {
    const derived = new Map(
      (await listMetrics(readAsServer(pool)))
        .filter(({ origin }) => origin === 'derived')
        .map((row) => [`${row.assetName}/${row.name}`, row.id]),
    );
    for (const rule of periodRules((name) => derived.get(name)!, people.get('Marit Oduya')!)) {
      await putInForce(pool, rule, analyst, anchor - PERIOD_RULES_SINCE_MS);
    }
  }
  return { anchor, samples };
}

/** The accounts whose plants are there; those without plants of their own see all. @param plants ids by name. */
async function addPeople(
  pool: Pool,
  now: number,
  plants: ReadonlyMap<string, string>,
): Promise<Map<string, string>> {
  const ids = new Map<string, string>();
  for (const { email, name, role, plants: own, password } of accounts as DemoAccount[]) {
    if (!own.every((plant) => plants.has(plant))) continue;
    const { rows } = await pool.query<{ id: string }>('select id from person where email = $1', [email]);
    const rights =
      own.length === 0
        ? rightsEverywhere(role)
        : { everywhere: null, plants: Object.fromEntries(own.map((plant) => [plants.get(plant)!, role])) };
    const id =
      rows[0]?.id ??
      (await addPerson(pool, { email, name, rights, passwordHash: await hashPassword(password), at: now }));
    ids.set(name, id);
  }
  return ids;
}

/** Plants, areas and assets; the key is "plant/asset". An area and an asset with the same name are one. */
async function addAssets(pool: Pool, metrics: readonly ScenarioMetric[]): Promise<Map<string, string>> {
  const ids = new Map<string, string>();
  const ensure = async (
    key: string,
    name: string,
    kind: string,
    parentId: string | null,
    zone: string | null,
  ): Promise<string> => {
    if (ids.has(key)) return ids.get(key)!;
    const { rows } = await pool.query<{ id: string }>(
      'select id from asset where parent_id is not distinct from $1::bigint and name = $2',
      [parentId, name],
    );
    const id = rows[0]?.id ?? (await addAsset(pool, { parentId, name, kind, zone }))!;
    ids.set(key, id);
    return id;
  };
  for (const { name, zone } of PLANTS) await ensure(name, name, 'plant', null, zone);
  for (const { plant, area, asset } of metrics) {
    const areaId = await ensure(`${plant}/${area}`, area, 'area', ids.get(plant)!, null);
    if (asset !== area) await ensure(`${plant}/${asset}`, asset, 'machine', areaId, null);
  }
  return ids;
}

async function addMetrics(
  pool: Pool,
  metrics: readonly ScenarioMetric[],
  assets: ReadonlyMap<string, string>,
  at: number,
): Promise<void> {
  for (const metric of metrics) {
    await addMetric(pool, {
      assetId: assets.get(`${metric.plant}/${metric.asset}`)!,
      key: metricKey(metric),
      name: metric.name,
      unit: metric.unit,
      kind: metric.kind,
      intervalMs: metric.intervalMs,
      maxGapMs: metric.maxGapMs,
      rollover: null,
      decimals: metric.decimals,
      at,
    });
  }
}

interface Fill {
  readonly pool: Pool;
  readonly byKey: ReadonlyMap<string, { readonly id: string }>;
  readonly start: number;
  readonly tokenId: string;
}

/** Stores what the devices sent from their newest sample (or the start) up to `until`. @returns how many. */
async function fillSamples(
  { pool, byKey, start, tokenId }: Fill,
  metrics: readonly ScenarioMetric[],
  until: number,
  say: (line: string) => void = () => undefined,
): Promise<number> {
  const newest = new Map((await listMetrics(readAsServer(pool))).map(({ id, lastT }) => [id, lastT]));
  let total = 0;
  for (let i = 0; i < metrics.length; i += METRICS_AT_ONCE) {
    const incoming = new Map<string, Series>();
    for (const metric of metrics.slice(i, i + METRICS_AT_ONCE)) {
      const { id } = byKey.get(metricKey(metric))!;
      const { t, v } = samplesBetween(metric, newest.get(id) ?? start, until);
      if (t.length > 0) incoming.set(id, sortSamples(t, v));
      total += t.length;
    }
    if (incoming.size === 0) continue;
    await withTransaction(pool, (db) => storeSamples(db, incoming, { name: 'demo', tokenId }, until));
    say(`${Math.min(i + METRICS_AT_ONCE, metrics.length)} of ${metrics.length} metrics`);
  }
  return total;
}

async function addIndicators(
  pool: Pool,
  indicators: readonly DemoIndicator[],
  assets: ReadonlyMap<string, string>,
  personId: string,
  anchor: number,
): Promise<void> {
  const month = DateTime.fromMillis(anchor, { zone: PLANTS[0].zone }).startOf('month');
  for (const indicator of indicators) {
    const definition = definitionOf(indicator, assets.get(indicator.place)!, personId);
    // As if it had been set up before the first sample.
    const id = await addIndicator(pool, definition, personId, anchor - DEMO_DAYS * DAY_MS);
    if (id === undefined || !indicator.months) continue;
    const values = Object.entries(indicator.months).map(([ahead, value]) => ({
      start: month.plus({ months: Number(ahead) }).toISODate()!,
      value,
      month: false,
    }));
    await writeTargets(pool, id, values);
  }
}

async function watchedMetricIds(pool: Pool): Promise<string[]> {
  const { rows } = await pool.query<{ id: string }>('select metric_id as id from alarm_watch');
  return rows.map(({ id }) => id);
}

/** Notices of the days before the demo count as sent long ago, so that nobody gets them all at once. */
async function settleNotices(pool: Pool, anchor: number): Promise<void> {
  await pool.query(
    `update notice set sent_at = due_at, attempts = 1,
            sent_to = (select email from person where person.id = notice.person_id)
     where sent_at is null and due_at < $1`,
    [new Date(anchor - HOUR_MS)],
  );
}

/** People have seen everything older than an hour and a half. */
async function acknowledgeOld(pool: Pool, personId: string, at: number): Promise<void> {
  const { items } = await pageOfAlarms(readAsServer(pool), { list: 'standing' }, { offset: 0, limit: 1000 });
  for (const alarm of items) {
    if (alarm.raisedAt < at - 1.5 * HOUR_MS) {
      await acknowledgeAlarm(
        pool,
        alarm.id,
        personId,
        'Slowed the feed and watched it come down.',
        alarm.raisedAt + 4 * 60_000,
      );
    }
  }
}

/** The causes the laundries have listed so far. */
const FLAG_CAUSES = [
  'Lint in the filter',
  'Damper out of place',
  'Steam trap stuck',
  'Belt or bearing worn',
  'Dosing off',
  'Sensor wrong',
  'Setting of the programme',
];

async function addFlags(
  pool: Pool,
  people: ReadonlyMap<string, string>,
  assets: ReadonlyMap<string, string>,
  anchor: number,
): Promise<void> {
  const common = {
    alarmId: null,
    metricId: null,
    evidence: null,
    kind: 'loss',
    priority: 'normal',
    at: anchor - 20 * HOUR_MS,
  } as const;
  for (const cause of FLAG_CAUSES) await addCause(pool, cause);
  await addFlag(pool, {
    ...common,
    title: 'Check exhaust damper, Dryer 3',
    note: 'Gas per kg has crept up for five weeks.',
    assetId: assets.get('Foundry Lane/Dryer 3')!,
    fromPersonId: people.get('Ines Varga')!,
    toPersonId: people.get('Marit Oduya')!,
    dueAt: anchor + 2.5 * HOUR_MS,
  });
  await addFlag(pool, {
    ...common,
    title: 'Find cause of hotel rewash',
    note: 'Rewash share peaks on evenings with hotel linen.',
    assetId: assets.get('Quayside/Wash house')!,
    fromPersonId: people.get('Runa Feld')!,
    toPersonId: people.get('Dele Marsh')!,
    dueAt: anchor - 22 * HOUR_MS,
  });
}
