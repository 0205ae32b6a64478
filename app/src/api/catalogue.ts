import DataLoader from 'dataloader';
import { keepPreviousData, useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import {
  MAX_NAMES,
  type Api,
  type Asset,
  type AssetRow,
  type CallOf,
  type Metric,
  type PageOf,
} from '@vivid-beacon/core';
import { useStableList } from '../hooks/useStableList';
import { call } from './client';
import { usePages } from './pages';

/* Queries of assets and metrics: by id, below an asset, or as pages of a search. */

/** Search filter; absent fields match everything. */
type MetricQuery = NonNullable<CallOf<'GET /api/metrics', Api['GET /api/metrics']>['query']>;
type AssetQuery = NonNullable<CallOf<'GET /api/assets', Api['GET /api/assets']>['query']>;
export type MetricSearch = Omit<MetricQuery, 'ids' | 'feeds' | 'offset' | 'limit'>;
export type AssetSearch = Omit<AssetQuery, 'ids' | 'offset' | 'limit'>;

/** Page size of the server. */
const MAX_ITEMS = 500;

/** Loads entities by id, batched per event-loop turn; null = not found. */
export function byIds<Thing extends { readonly id: string }>(
  read: (ids: string) => Promise<PageOf<Thing>>,
): DataLoader<string, Thing | null> {
  return new DataLoader(
    async (ids) => {
      const { items } = await read(ids.join(','));
      const found = new Map(items.map((item) => [item.id, item]));
      return ids.map((id) => found.get(id) ?? null);
    },
    // Results go to the query cache; one request has as many ids as fit in a URL.
    { cache: false, maxBatchSize: 200, batchScheduleFn: (ask) => setTimeout(ask, 0) },
  );
}
const metricLoader = byIds<Metric>((ids) => call('GET /api/metrics', { query: { ids, limit: MAX_ITEMS } }));
const assetLoader = byIds<Asset>((ids) => call('GET /api/assets', { query: { ids, limit: MAX_ITEMS } }));

/** Entities by id, as far as loaded; removed ones are missing. */
export interface ById<Thing> {
  readonly byId: ReadonlyMap<string, Thing>;
  /** Whether all ids have been answered. */
  readonly whole: boolean;
  readonly error: Error | null;
  readonly again: () => void;
}

export function useById<Thing>(
  /** Prefix of their query key. */
  topic: readonly string[],
  ids: readonly (string | null | undefined)[],
  loader: DataLoader<string, Thing | null>,
  /** Stale time; default: until a change is announced. */
  everyMs?: number,
): ById<Thing> {
  const wanted = useStableList([...new Set(ids)].filter((id): id is string => Boolean(id)));
  const results = useQueries({
    queries: wanted.map((id) => ({
      queryKey: [...topic, id],
      queryFn: () => loader.load(id),
      staleTime: 30_000,
      refetchInterval: everyMs,
    })),
  });
  const found = useStableList(results.map(({ data }) => data));
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

/** Metrics by id, batched into one request. */
export const useMetricsById = (ids: readonly (string | null | undefined)[]): ById<Metric> =>
  useById(['metrics', 'one'], ids, metricLoader);

/** Assets by id, likewise. */
export const useAssetsById = (ids: readonly (string | null | undefined)[]): ById<Asset> =>
  useById(['metrics', 'asset'], ids, assetLoader);

/** The metrics of one asset. @param assetId null = none is asked for. */
export const useMetricsOf = (assetId: string | null) =>
  useQuery({
    queryKey: ['metrics', 'of', assetId],
    queryFn: async () =>
      (await call('GET /api/metrics', { query: { assetId: assetId!, limit: MAX_ITEMS } })).items,
    enabled: assetId !== null,
  });

/** Search results of metrics, paged. */
export const useMetricPages = (filter: MetricSearch, on = true) =>
  usePages(
    ['metrics', 'pages', filter],
    (part) => call('GET /api/metrics', { query: { ...filter, ...part } }),
    on,
  );

/** Metrics of the same name, unit, kind and origin as one, on or below each of these assets. @param limit of each. */
export const useSameMetrics = (
  { name, unit, kind, origin }: Metric,
  under: readonly string[],
  limit: number,
) =>
  useQueries({
    queries: under.map((id) => {
      const query = { name, unit, kind, origin, under: id, limit } as const;
      return {
        queryKey: ['metrics', 'same', query],
        queryFn: () => call('GET /api/metrics', { query }),
      };
    }),
  }).map(({ data }) => data);

/** Search results of feeds, paged; those that need attention first. */
export const useFeedPages = (filter: Pick<MetricSearch, 'search' | 'state'>) =>
  usePages(['metrics', 'feedPages', filter], (part) =>
    call('GET /api/metrics', { query: { ...filter, feeds: true, ...part } }),
  );

/** Search results of assets, paged. */
export const useAssetPages = (filter: AssetSearch, on = true) =>
  usePages(
    ['metrics', 'assetPages', filter],
    (part) => call('GET /api/assets', { query: { ...filter, ...part } }),
    on,
  );

/** Children of an asset, with counts of their dependents. @param parentId "none" = plants. */
export async function loadChildren(parentId: string): Promise<PageOf<AssetRow>> {
  const { items, total } = await call('GET /api/assets', {
    query: { parentId, facts: true, limit: MAX_ITEMS },
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
      (await call('GET /api/assets', { query: { parentId: 'none', limit: MAX_ITEMS } })).items,
  });

/** Number of feeds in each state. */
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

/** The metrics on an asset and on those below it, those alike on one level as one; null = not asked. */
export const useMetricsBelow = (assetId: string | null, depth: number) =>
  useQuery({
    queryKey: ['metrics', 'below', assetId, depth],
    queryFn: () => call('GET /api/assets/:id/metrics-below', { params: { id: assetId! }, query: { depth } }),
    enabled: assetId !== null,
  });

/** Assets with one of these names of their own. */
export const useAssetsNamed = (names: readonly string[]) =>
  useQuery({
    queryKey: ['metrics', 'assetsNamed', names],
    queryFn: async () => {
      const parts = [];
      for (let i = 0; i < names.length; i += MAX_NAMES) {
        parts.push(await call('POST /api/assets/named', { body: { names: names.slice(i, i + MAX_NAMES) } }));
      }
      return parts.flat();
    },
    enabled: names.length > 0,
    placeholderData: keepPreviousData,
  });

/** Metrics that a file speaks of, as far as they are here. */
export const findNamedMetrics = (
  metrics: NonNullable<CallOf<'POST /api/metrics/named', Api['POST /api/metrics/named']>['body']>['metrics'],
) => call('POST /api/metrics/named', { body: { metrics } });
