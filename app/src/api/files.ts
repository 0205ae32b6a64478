import { MAX_ITEMS } from '@vivid-beacon/core/src/schemas/lists';
import {
  nameKey,
  type BoardDocument,
  type BoardFile,
  type DefinitionsFile,
  type DefinitionsHere,
  type FiledIndicator,
  type FilePerson,
  type IndicatorDefinition,
  type Metric,
  type PageOf,
  type PeriodTarget,
  type RuleInput,
} from '@vivid-beacon/core';
import {
  matchMetrics,
  matchPeople,
  matchPlaces,
  namedIn,
  placesOfBoard,
  writeDefinitionsFile,
  type FoundHere,
  type NamedPlaces,
} from '@vivid-beacon/core/src/boards';
import { findNamedMetrics } from './catalogue';
import { call } from './client';

/* What files of boards, rules and indicators name, written out and found again. */

type Ids<Kind extends string> = Readonly<Record<Kind, readonly string[]>>;

/** All items of a list. */
async function all<Item>(read: (offset: number) => Promise<PageOf<Item>>): Promise<Item[]> {
  const items: Item[] = [];
  for (;;) {
    const page = await read(items.length);
    items.push(...page.items);
    if (page.items.length === 0 || items.length >= page.total) return items;
  }
}

/** Ids in parts that fit into one address. */
function parts(ids: readonly string[]): string[] {
  const most = MAX_ITEMS / 5;
  return Array.from({ length: Math.ceil(ids.length / most) }, (_, i) =>
    ids.slice(i * most, (i + 1) * most).join(','),
  );
}

async function byIds<Item>(
  ids: readonly string[],
  read: (query: { ids: string; limit: number }) => Promise<PageOf<Item>>,
): Promise<Item[]> {
  const pages = await Promise.all(parts(ids).map((each) => read({ ids: each, limit: MAX_ITEMS })));
  return pages.flatMap(({ items }) => items);
}

/** These assets, indicators and boards, by what they are found again with. */
async function namesOf({ assets, indicators, boards }: Ids<keyof NamedPlaces>): Promise<NamedPlaces> {
  const [assetRows, indicatorRows, boardRows] = await Promise.all([
    byIds(assets, (query) => call('GET /api/assets', { query })),
    byIds(indicators, (query) => call('GET /api/indicators', { query })),
    // One that was removed meanwhile, or is not shared, is not named.
    Promise.all(boards.map((id) => call('GET /api/boards/:id', { params: { id } }).catch(() => null))),
  ]);
  return {
    assets: assetRows.map(({ id, title }) => ({ id, title })),
    indicators: indicatorRows.map(({ id, name, place }) => ({ id, name, place })),
    boards: boardRows.flatMap((board) => (board ? [{ id: board.id, title: board.title }] : [])),
  };
}

/** The assets, indicators and boards that a board names. */
export const placesFor = (document: BoardDocument): Promise<NamedPlaces> => namesOf(placesOfBoard(document));

/** What is here of what a file names, but for its metrics. */
export async function findPlaces(file: NamedPlaces): Promise<Omit<FoundHere, 'metrics'>> {
  const own = file.assets.map(({ title }) => title.split(' / ').at(-1)!);
  const [assets, indicators, boards] = await Promise.all([
    own.length === 0 ? [] : call('POST /api/assets/named', { body: { names: [...new Set(own)] } }),
    Promise.all(
      [...new Set(file.indicators.map(({ name }) => name))].map(async (search) => {
        const { items } = await call('GET /api/indicators', { query: { search, limit: MAX_ITEMS } });
        return items;
      }),
    ),
    Promise.all(
      [...new Set(file.boards.map(({ title }) => title))].map(async (search) => {
        const { items } = await call('GET /api/boards', { query: { search, limit: MAX_ITEMS } });
        return items;
      }),
    ),
  ]);
  return matchPlaces(file, { assets, indicators: indicators.flat(), boards: boards.flat() });
}

/** The metrics here that a file may mean. */
export async function findFileMetrics({ metrics }: Pick<BoardFile, 'metrics'>): Promise<readonly Metric[]> {
  if (metrics.length === 0) return [];
  return findNamedMetrics(metrics.map(({ key, name, asset, unit }) => ({ key, name, asset, unit })));
}

const everybody = (): Promise<readonly FilePerson[]> =>
  all((offset) => call('GET /api/people', { query: { offset, limit: MAX_ITEMS } }));

/** Every rule in force with these words, as the text of a file. */
export async function rulesAsFile(search: string): Promise<string> {
  const rules = await all((offset) =>
    call('GET /api/alarm-rules', { query: { search, offset, limit: MAX_ITEMS } }),
  );
  return definitionsAsFile(
    [],
    rules.map(
      ({
        id: _id,
        inForce: _inForce,
        inForceFrom: _from,
        watched: _watched,
        unit: _unit,
        decimals: _decimals,
        ...rule
      }) => ({
        ...rule,
        replaces: null,
      }),
    ),
  );
}

/** Every indicator with these words and its targets, as the text of a file. */
export async function indicatorsAsFile(search: string): Promise<string> {
  const rows = await all((offset) =>
    call('GET /api/indicators', { query: { search, offset, limit: MAX_ITEMS } }),
  );
  const definitions: FiledIndicator[] = [];
  for (const { id, definition } of rows) {
    const targets = definition.target.kind === 'periods' ? await targetsOf(id) : [];
    definitions.push({ id, definition, targets });
  }
  return definitionsAsFile(definitions, []);
}

async function targetsOf(id: string): Promise<readonly PeriodTarget[]> {
  return (await call('GET /api/indicators/:id', { params: { id } })).targets;
}

async function definitionsAsFile(
  definitions: readonly FiledIndicator[],
  rules: readonly RuleInput[],
): Promise<string> {
  const ids = namedIn({ definitions, rules });
  const [metrics, places, people] = await Promise.all([
    byIds(ids.metrics, (query) => call('GET /api/metrics', { query })),
    namesOf(ids),
    ids.people.length === 0 ? [] : everybody(),
  ]);
  const named = people.filter(({ id }) => ids.people.includes(id));
  return writeDefinitionsFile({ definitions, rules }, { ...places, metrics, people: named });
}

/** What is here of what a file of rules and indicators names. */
export async function findForDefinitions(file: DefinitionsFile): Promise<DefinitionsHere> {
  const [metrics, places, people] = await Promise.all([
    findFileMetrics(file),
    findPlaces(file),
    file.people.length === 0 ? [] : everybody(),
  ]);
  return { ...places, metrics: matchMetrics(file, metrics), people: matchPeople(file, people) };
}

/** The indicator here with this name at this asset; null = there is none. */
export async function sameIndicator({ name, assetId }: IndicatorDefinition): Promise<string | null> {
  const { items } = await call('GET /api/indicators', { query: { search: name, limit: MAX_ITEMS } });
  const same = items.find(
    ({ definition }) => definition.assetId === assetId && sameWords(definition.name, name),
  );
  return same?.id ?? null;
}

/** Whether a rule of this name on this metric is in force here. */
export async function hasSameRule({ name, metricId }: RuleInput): Promise<boolean> {
  const { items } = await call('GET /api/alarm-rules', { query: { search: name, limit: MAX_ITEMS } });
  return items.some((rule) => rule.metricId === metricId && sameWords(rule.name, name));
}

const sameWords = (a: string, b: string): boolean => nameKey(a) === nameKey(b);

/** Makes an indicator with its targets. @returns its id. */
export async function makeIndicator(
  definition: IndicatorDefinition,
  targets: readonly PeriodTarget[],
): Promise<string> {
  const { id } = await call('POST /api/indicators', { body: definition });
  if (targets.length > 0) {
    await call('PUT /api/indicators/:id/targets', { params: { id }, body: { values: [...targets] } });
  }
  return id;
}

export const makeRule = (rule: RuleInput) => call('POST /api/alarm-rules', { body: rule });
