import { byUrgency, isSetAside, type Alarm, type Flag } from '@vivid-beacon/core';
import { DEFAULT_METRIC } from './usual';

/* Long lists: a test gives all items, and the stand-in searches and pages them as the server does. */

export type Listed = Readonly<Record<string, unknown>> & { readonly id: string };
type Given = Readonly<Record<string, unknown>>;

function listIn(answers: Given, key: string): readonly Listed[] {
  return (Array.isArray(answers[key]) ? answers[key] : []) as Listed[];
}

/** The answer to a question about a list that the test gives in full; undefined for other questions. */
export function answerFromLists(
  key: string,
  path: string,
  body: unknown,
  answers: Given,
): object | undefined {
  const given = {
    assets: listIn(answers, 'GET /api/assets'),
    metrics: listIn(answers, 'GET /api/metrics').map((each) => ({ ...DEFAULT_METRIC, ...each })),
  };
  if (!(key in answers)) {
    const found = NAMED[key]?.(body, given);
    if (found) return found;
    const [, assetId] = /^GET \/api\/assets\/(\d+)\/metrics-below$/.exec(key) ?? [];
    if (assetId) return metricsBelow(assetId, Number(path.split('depth=')[1] ?? 1), given);
  }
  if (key === 'GET /api/assets/attributes' && !(key in answers))
    return attributesOf(listIn(answers, 'GET /api/assets'));
  if (key === 'GET /api/metrics/feeds' && !(key in answers))
    return countStates(listIn(answers, 'GET /api/metrics'));
  const rows = LISTS[key];
  if (!rows || !Array.isArray(answers[key])) return undefined;
  const asked = new URLSearchParams(path.split('?')[1]);
  const found = rows(answers[key] as Listed[], asked, answers).filter((each) =>
    [...asked].every(([name, value]) => (FILTERS[name] ?? isSame(name))(each, value)),
  );
  const offset = Number(asked.get('offset') ?? 0);
  const page = { items: found.slice(offset, offset + Number(asked.get('limit') ?? 50)), total: found.length };
  if (key !== 'GET /api/alarms') return page;
  return { ...page, setAside: found.filter(({ state }) => isSetAside(state as Alarm['state'])).length };
}

interface Whole {
  readonly assets: readonly Listed[];
  readonly metrics: readonly Listed[];
}

/** What a file speaks of; the server finds the metrics by name and asset too. */
const NAMED: Readonly<Record<string, ((body: unknown, whole: Whole) => object) | undefined>> = {
  'POST /api/metrics/named': (body, { metrics }) => {
    const keys = (body as { metrics: readonly { key: string }[] }).metrics.map(({ key }) => key);
    return metrics.filter(({ key }) => keys.includes(key as string));
  },
  'POST /api/assets/named': (body, { assets }) => {
    const names = (body as { names: readonly string[] }).names.map((each) => each.toLowerCase());
    const found = assets.filter(({ name }) => names.includes(String(name).toLowerCase()));
    return found.map((each) => {
      const { children, metrics, troubled, ...asset } = asTreeRow(each, assets, []) as Listed &
        Record<'children' | 'metrics' | 'troubled', unknown>;
      void [children, metrics, troubled];
      return asset;
    });
  },
};

/** Metrics below an asset, those alike on one level as one. */
function metricsBelow(assetId: string, depth: number, { assets, metrics }: Whole): object {
  const alike = new Map<string, { level: number; metric: Listed; assetIds: string[] }>();
  let level = [assetId];
  for (let down = 0; down <= depth; down++) {
    for (const metric of metrics.filter((each) => level.includes(each.assetId as string))) {
      const { name, unit, kind, origin } = metric;
      const key = [down, name, unit, kind, origin].join(' ');
      const group = alike.get(key) ?? { level: down, metric, assetIds: [] };
      group.assetIds.push(metric.assetId as string);
      alike.set(key, group);
    }
    level = assets.filter(({ parentId }) => level.includes(parentId as string)).map(({ id }) => id);
  }
  return [...alike.values()];
}

/** Filters of a question about a list, apart from those in {@link FILTERS}. */
type Rows = (all: readonly Listed[], asked: URLSearchParams, answers: Given) => readonly Listed[];

const LISTS: Readonly<Record<string, Rows>> = {
  'GET /api/metrics': (all, asked) =>
    (asked.has('feeds') ? feedsOf(all) : all).map((each) => ({ ...DEFAULT_METRIC, ...each })),
  'GET /api/assets': (all, _, answers) =>
    all.map((each) => asTreeRow(each, all, listIn(answers, 'GET /api/metrics'))),
  'GET /api/alarms': (all, asked) =>
    all.filter(({ state }) => (state === 'normal') === (asked.get('list') === 'over')),
  'GET /api/alarm-rules': (all) => all,
  'GET /api/indicators': (all) => all,
  'GET /api/boards': (all) => all,
  'GET /api/people': (all) => all,
  'GET /api/flags': (all, asked, answers) => {
    const session = answers['GET /api/session'] as { person: { id: string } } | undefined;
    const side = SIDES[asked.get('list') ?? 'all'];
    const found = (all as unknown as readonly Flag[]).filter(
      (flag) =>
        (flag.closedAt !== null) === (asked.get('state') === 'closed') &&
        (!side || side(flag) === session?.person.id),
    );
    return found.sort(byUrgency(Date.now())) as unknown as readonly Listed[];
  },
};

const SIDES: Readonly<Record<string, ((flag: Flag) => string) | undefined>> = {
  mine: ({ to }) => to.id,
  given: ({ from }) => from.id,
};

const any = (): boolean => true;
const isSame =
  (name: string) =>
  (each: Listed, value: string): boolean =>
    String(each[name]) === value;

/** How query parameters match an item; others compare for equality. */
const FILTERS: Readonly<Record<string, (each: Listed, value: string) => boolean>> = {
  ids: ({ id }, value) => value.split(',').includes(id),
  search: matches,
  title: ({ title }, value) =>
    value
      .toLowerCase()
      .split(/\s+/)
      .every((word) => String(title).toLowerCase().includes(word)),
  under: ({ path, plantId, assetId }, value) => ((path ?? [plantId, assetId]) as unknown[]).includes(value),
  parentId: ({ parentId }, value) => (parentId ?? 'none') === value,
  origin: ({ origin }, value) => (origin ?? 'samples') === value,
  state: ({ health }, value) => !health || (health as { state: string }).state === value,
  label: ({ labels }, value) => (labels as readonly string[]).includes(value),
  list: any,
  least: any,
  assetId: ({ assetId }, value) => assetId === undefined || assetId === value,
  offset: any,
  limit: any,
  facts: any,
  feeds: any,
};

/** Every word begins a word of the names, kind and facts. */
function matches(each: Listed, search: string): boolean {
  const facts = Object.entries((each.attributes ?? {}) as object).flat();
  const own = [...NAMES.map((name) => each[name]), ...facts]
    .join(' ')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u);
  const words = search.toLowerCase().split(/\s+/);
  return words.every((word) => own.some((part) => part.startsWith(word)));
}

const NAMES = [
  'name',
  'ruleName',
  'title',
  'kind',
  'key',
  'metricName',
  'assetName',
  'plantName',
  'ownerName',
];

/** An asset as the server gives it: with its way down and what hangs on it. */
function asTreeRow(asset: Listed, all: readonly Listed[], metrics: readonly Listed[]): Listed {
  const wayTo = (last: Listed | undefined): Listed[] => {
    const way: Listed[] = [];
    for (let at = last; at; at = all.find(({ id }) => id === at!.parentId)) way.unshift(at);
    return way;
  };
  const way = wayTo(asset);
  const troubled = metrics.filter(({ health }) => !FINE.has((health as { state?: string })?.state));
  return {
    kind: 'machine',
    plantId: way[0]?.id,
    parentId: null,
    ownZone: null,
    zone: 'Europe/London',
    attributes: {},
    path: way.map(({ id }) => id),
    title: way.map(({ name }) => name).join(' / '),
    children: all.filter(({ parentId }) => parentId === asset.id).length,
    metrics: metrics.filter(({ assetId }) => assetId === asset.id).length,
    troubled: troubled.filter(({ assetId }) => wayTo(all.find(({ id }) => id === assetId)).includes(asset))
      .length,
    ...asset,
  };
}

const FINE: ReadonlySet<string | undefined> = new Set([undefined, 'reporting', 'never']);
const FEEDS_IN_ORDER = ['silent', 'outOfRange', 'flat', 'clockAhead', 'never', 'reporting'];
const stateOf = ({ health }: Listed): string => (health as { state: string }).state;

function feedsOf(metrics: readonly Listed[]): Listed[] {
  return metrics
    .filter(({ origin }) => origin === 'samples')
    .sort((a, b) => FEEDS_IN_ORDER.indexOf(stateOf(a)) - FEEDS_IN_ORDER.indexOf(stateOf(b)));
}

function countStates(metrics: readonly Listed[]): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const each of feedsOf(metrics)) counts[stateOf(each)] = (counts[stateOf(each)] ?? 0) + 1;
  return counts;
}

function attributesOf(assets: readonly Listed[]): object[] {
  const found = new Map<string, Set<string | number>>();
  for (const { attributes } of assets) {
    for (const [name, value] of Object.entries((attributes ?? {}) as Record<string, string | number>)) {
      found.set(name, (found.get(name) ?? new Set()).add(value));
    }
  }
  return [...found].map(([name, values]) => ({ name, values: [...values].sort(), many: values.size > 60 }));
}
