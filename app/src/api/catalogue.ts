import DataLoader from 'dataloader';
import { keepPreviousData, useInfiniteQuery, useQueries, useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Asset, AssetRow, FeedState, Metric, PageOf } from '@vivid-beacon/core';
import { useSameList } from '../hooks/useSameList';
import { call } from './client';

/* Assets and metrics: a screen loads those that it shows, by id, below an asset, or as pages of what is searched. */

/** What is looked for; what is left out does not matter. */
export interface MetricFilter {
  readonly search?: string;
  readonly assetId?: string;
  readonly under?: string;
  readonly name?: string;
  readonly unit?: string;
  readonly kind?: Metric['kind'];
  readonly origin?: Metric['origin'];
  readonly state?: FeedState;
}

export interface AssetFilter {
  /** The beginnings of words in name, kind and facts. */
  readonly search?: string;
  /** Words anywhere in the names from the plant down. */
  readonly title?: string;
  /** "none" = plants. */
  readonly parentId?: string;
  readonly under?: string;
  readonly facts?: boolean;
}

const PAGE = 50;
/** The server gives so many at once. */
const MOST_ITEMS = 500;

function addressOf(path: string, parts: object): string {
  const params = new URLSearchParams();
  for (const [name, value] of Object.entries(parts)) {
    if (value !== undefined && value !== '') params.set(name, String(value));
  }
  return `${path}?${params.toString()}`;
}

/** Loads things by id, all that are asked for in one turn together; null = there is none of this id. */
function byIds<Thing extends { readonly id: string }>(path: string): DataLoader<string, Thing | null> {
  return new DataLoader(
    async (ids) => {
      const { items } = await call<PageOf<Thing>>(
        'GET',
        addressOf(path, { ids: ids.join(','), limit: MOST_ITEMS }),
      );
      const found = new Map(items.map((item) => [item.id, item]));
      return ids.map((id) => found.get(id) ?? null);
    },
    // What is kept is kept with the other answers, and as many ids are asked for as fit an address.
    { cache: false, maxBatchSize: 200, batchScheduleFn: (ask) => setTimeout(ask, 0) },
  );
}
const metricLoader = byIds<Metric>('/api/metrics');
const assetLoader = byIds<Asset>('/api/assets');

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
      (await call<PageOf<Metric>>('GET', addressOf('/api/metrics', { assetId, limit: MOST_ITEMS }))).items,
    enabled: assetId !== null,
  });

/** A page after the other of a long list. */
function usePages<Item>(key: readonly unknown[], path: string, filter: object, on = true) {
  return useInfiniteQuery({
    queryKey: key,
    queryFn: ({ pageParam }) =>
      call<PageOf<Item>>('GET', addressOf(path, { ...filter, offset: pageParam, limit: PAGE })),
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
  usePages<Metric>(['metrics', 'pages', filter], '/api/metrics', filter, on);

/** Metrics with samples of the same name, unit and kind as one, on or below each of these assets. @param limit of each. */
export const useSameMetrics = ({ name, unit, kind }: Metric, under: readonly string[], limit: number) =>
  useQueries({
    queries: under.map((id) => {
      const filter = { name, unit, kind, origin: 'samples', under: id, limit };
      return {
        queryKey: ['metrics', 'same', filter],
        queryFn: () => call<PageOf<Metric>>('GET', addressOf('/api/metrics', filter)),
      };
    }),
  }).map(({ data }) => data);

/** Feeds that are searched, those that need a look first. */
export const useFeedPages = (filter: Pick<MetricFilter, 'search' | 'state'>) =>
  usePages<Metric>(['metrics', 'feedPages', filter], '/api/metrics', { ...filter, feeds: true });

/** Assets that are searched, in pages. */
export const useAssetPages = (filter: AssetFilter, on = true) =>
  usePages<AssetRow>(['metrics', 'assetPages', filter], '/api/assets', filter, on);

/** Assets right below one, with what hangs on each. @param parentId "none" = plants. */
export const loadChildren = (parentId: string): Promise<PageOf<AssetRow>> =>
  call('GET', addressOf('/api/assets', { parentId, facts: true, limit: MOST_ITEMS }));

/** The plants. */
export const usePlants = () =>
  useQuery({
    queryKey: ['metrics', 'plants'],
    queryFn: async () =>
      (await call<PageOf<Asset>>('GET', addressOf('/api/assets', { parentId: 'none', limit: MOST_ITEMS })))
        .items,
  });

/** How many feeds there are in each state. */
export const useFeedCounts = () =>
  useQuery({
    queryKey: ['metrics', 'feeds'],
    queryFn: () => call<Partial<Record<FeedState, number>>>('GET', '/api/metrics/feeds'),
    refetchInterval: 60_000,
  });

/** An attribute that assets have, with the values it takes. */
export interface AttributeValues {
  readonly name: string;
  /** In order; of many different ones the first sixty. */
  readonly values: readonly (string | number)[];
  readonly many: boolean;
}

export const useAttributes = (on = true) =>
  useQuery({
    queryKey: ['metrics', 'attributes'],
    queryFn: () => call<AttributeValues[]>('GET', '/api/assets/attributes'),
    enabled: on,
  });
