import DataLoader from 'dataloader';
import { keepPreviousData, useInfiniteQuery, useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Api, Asset, AssetRow, CallOf, Metric, PageOf } from '@vivid-beacon/core';
import { useSameList } from '../hooks/useSameList';
import { call } from './client';

/* Assets and metrics: a screen loads those that it shows, by id, below an asset, or as pages of what is searched. */

/** What is looked for; what is left out does not matter. */
type MetricQuery = NonNullable<CallOf<'GET /api/metrics', Api['GET /api/metrics']>['query']>;
type AssetQuery = NonNullable<CallOf<'GET /api/assets', Api['GET /api/assets']>['query']>;
export type MetricFilter = Omit<MetricQuery, 'ids' | 'feeds' | 'offset' | 'limit'>;
export type AssetFilter = Omit<AssetQuery, 'ids' | 'offset' | 'limit'>;

const PAGE = 50;
/** The server gives so many at once. */
const MOST_ITEMS = 500;

/** Loads things by id, all that are asked for in one turn together; null = there is none of this id. */
function byIds<Thing extends { readonly id: string }>(
  read: (ids: string) => Promise<PageOf<Thing>>,
): DataLoader<string, Thing | null> {
  return new DataLoader(
    async (ids) => {
      const { items } = await read(ids.join(','));
      const found = new Map(items.map((item) => [item.id, item]));
      return ids.map((id) => found.get(id) ?? null);
    },
    // What is kept is kept with the other answers, and as many ids are asked for as fit an address.
    { cache: false, maxBatchSize: 200, batchScheduleFn: (ask) => setTimeout(ask, 0) },
  );
}
const metricLoader = byIds<Metric>((ids) => call('GET /api/metrics', { query: { ids, limit: MOST_ITEMS } }));
const assetLoader = byIds<Asset>((ids) => call('GET /api/assets', { query: { ids, limit: MOST_ITEMS } }));

/** Things by id, as far as they have come; those that are gone are not among them. */
export interface ById<Thing> {
  readonly byId: ReadonlyMap<string, Thing>;
  /** Whether all have been answered for. */
  readonly whole: boolean;
  readonly error: Error | null;
  readonly again: () => void;
}

function useById<Thing>(
  topic: string,
  ids: readonly (string | null | undefined)[],
  loader: DataLoader<string, Thing | null>,
): ById<Thing> {
  const wanted = useSameList([...new Set(ids)].filter((id): id is string => Boolean(id)));
  const results = useQueries({
    queries: wanted.map((id) => ({
      queryKey: ['metrics', topic, id],
      queryFn: () => loader.load(id),
      staleTime: 30_000,
    })),
  });
  const found = useSameList(results.map(({ data }) => data));
  const byId = useMemo(
    () => new Map(found.flatMap((each, i): [string, Thing][] => (each ? [[wanted[i], each]] : []))),
    [wanted, found],
  );
  return {
    byId,
    whole: results.every(({ data }) => data !== undefined),
    error: results.find(({ error }) => error)?.error ?? null,
    again: () => void Promise.all(results.map(({ refetch }) => refetch())),
  };
}

/** Metrics by id; all that are asked for at one moment come in one answer. */
export const useMetricsById = (ids: readonly (string | null | undefined)[]): ById<Metric> =>
  useById('one', ids, metricLoader);

/** Assets by id, likewise. */
export const useAssetsById = (ids: readonly (string | null | undefined)[]): ById<Asset> =>
  useById('asset', ids, assetLoader);

/** The metrics of one asset. @param assetId null = none is asked for. */
export const useMetricsOf = (assetId: string | null) =>
  useQuery({
    queryKey: ['metrics', 'of', assetId],
    queryFn: async () =>
      (await call('GET /api/metrics', { query: { assetId: assetId!, limit: MOST_ITEMS } })).items,
    enabled: assetId !== null,
  });

type Part = { readonly offset: number; readonly limit: number };

/** A page after the other of a long list. */
function usePages<Item>(key: readonly unknown[], read: (part: Part) => Promise<PageOf<Item>>, on = true) {
  return useInfiniteQuery({
    queryKey: key,
    queryFn: ({ pageParam }) => read({ offset: pageParam, limit: PAGE }),
    initialPageParam: 0,
    getNextPageParam: (last, pages) => {
      const read = pages.reduce((n, { items }) => n + items.length, 0);
      return read < last.total && last.items.length > 0 ? read : undefined;
    },
    placeholderData: keepPreviousData,
    enabled: on,
  });
}

/** Metrics that are searched, in pages. */
export const useMetricPages = (filter: MetricFilter, on = true) =>
  usePages(
    ['metrics', 'pages', filter],
    (part) => call('GET /api/metrics', { query: { ...filter, ...part } }),
    on,
  );

/** Metrics with samples of the same name, unit and kind as one, on or below each of these assets. @param limit of each. */
export const useSameMetrics = ({ name, unit, kind }: Metric, under: readonly string[], limit: number) =>
  useQueries({
    queries: under.map((id) => {
      const query = { name, unit, kind, origin: 'samples', under: id, limit } as const;
      return {
        queryKey: ['metrics', 'same', query],
        queryFn: () => call('GET /api/metrics', { query }),
      };
    }),
  }).map(({ data }) => data);

/** Feeds that are searched, those that need a look first. */
export const useFeedPages = (filter: Pick<MetricFilter, 'search' | 'state'>) =>
  usePages(['metrics', 'feedPages', filter], (part) =>
    call('GET /api/metrics', { query: { ...filter, feeds: true, ...part } }),
  );

/** Assets that are searched, in pages. */
export const useAssetPages = (filter: AssetFilter, on = true) =>
  usePages(
    ['metrics', 'assetPages', filter],
    (part) => call('GET /api/assets', { query: { ...filter, ...part } }),
    on,
  );

/** Assets right below one, with what hangs on each. @param parentId "none" = plants. */
export async function loadChildren(parentId: string): Promise<PageOf<AssetRow>> {
  const { items, total } = await call('GET /api/assets', {
    query: { parentId, facts: true, limit: MOST_ITEMS },
  });
  return { items: items.map(withFacts), total };
}

/** The server tells facts where they were asked for. */
export const withFacts = (asset: PageOf<Asset & Partial<AssetRow>>['items'][number]): AssetRow => ({
  ...asset,
  children: asset.children ?? 0,
  metrics: asset.metrics ?? 0,
  troubled: asset.troubled ?? 0,
});

/** The plants. */
export const usePlants = () =>
  useQuery({
    queryKey: ['metrics', 'plants'],
    queryFn: async () =>
      (await call('GET /api/assets', { query: { parentId: 'none', limit: MOST_ITEMS } })).items,
  });

/** How many feeds there are in each state. */
export const useFeedCounts = () =>
  useQuery({
    queryKey: ['metrics', 'feeds'],
    queryFn: () => call('GET /api/metrics/feeds'),
    refetchInterval: 60_000,
  });

export const useAttributes = (on = true) =>
  useQuery({
    queryKey: ['metrics', 'attributes'],
    queryFn: () => call('GET /api/assets/attributes'),
    enabled: on,
  });
