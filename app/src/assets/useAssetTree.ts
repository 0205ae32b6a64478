import { useQueries } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import type { Asset, AssetRow } from '@vivid-beacon/core';
import { loadChildren, useAssetPages, useAssetsById, withFacts } from '../api/catalogue';
import { useKept } from '../hooks/useKept';
import { useStableList } from '../hooks/useStableList';
import { useDebounced } from '../hooks/useDebounced';

/** One line of the asset tree. */
export interface TreeRow {
  readonly asset: Asset;
  readonly depth: number;
  readonly children: number;
  readonly metrics: number;
  /** Feeds at or below that need a look. */
  readonly troubled: number;
}

/** The loaded rows of a tree. */
export interface AssetTreeRows {
  readonly rows: readonly TreeRow[] | undefined;
  readonly error: Error | null;
  readonly again: () => void;
  readonly isOpen: (id: string) => boolean;
  readonly toggle: (id: string) => void;
  /** Assets right below those that are open that are too many to be shown; a search finds them. */
  readonly hidden: number;
  /** Matches of a search that have not been loaded; 0 without a search. */
  readonly more: number;
  readonly loadMore: () => void;
}

/** With more plants than this, they are closed at first. */
const OPEN_PLANTS = 10;
const SETTLED_MS = 200;

/**
 * The tree as lines, children under their parents: plants and what hangs on those that are open; with a search, what
 * matches with all that stands above it.
 */
export function useAssetTree(search: string): AssetTreeRows {
  const words = useDebounced(search.trim(), SETTLED_MS);
  const searching = words !== '';
  const [turned, setTurned] = useState<ReadonlySet<string>>(new Set());
  const plants = useChildren(searching ? [] : ['none']);
  const atFirst = plants.byParent.get('none') ?? [];
  const openAtFirst = new Set(atFirst.length > OPEN_PLANTS ? [] : atFirst.map(({ id }) => id));
  const isOpen = (id: string): boolean => searching || turned.has(id) !== openAtFirst.has(id);
  const open = [...new Set([...openAtFirst, ...turned])].filter(isOpen);
  const below = useChildren(searching ? [] : open);
  const searched = useAssetPages({ search: words, facts: true }, searching);
  const matches = useMemo(
    () => searched.data?.pages.flatMap(({ items }) => items.map(withFacts)),
    [searched.data],
  );
  const above = useAssetsById(searching ? (matches ?? []).flatMap(({ path }) => path) : []);
  const rows = useMemo(() => {
    if (searching) return matches && above.whole ? rowsOfMatches(matches, above.byId) : undefined;
    return plants.byParent.get('none') && rowsBelow('none', new Map([...plants.byParent, ...below.byParent]));
  }, [searching, matches, above, plants.byParent, below.byParent]);
  const kept = useKept(rows);
  const failed = [searched, plants, below].find(({ error }) => error);
  return {
    rows: kept.value,
    error: failed?.error ?? null,
    again: () => void failed?.refetch(),
    isOpen,
    toggle: (id) => {
      const next = new Set(turned);
      if (!next.delete(id)) next.add(id);
      setTurned(next);
    },
    hidden: plants.hidden + below.hidden,
    more: searching ? (searched.data?.pages[0].total ?? 0) - (matches?.length ?? 0) : 0,
    loadMore: () => void searched.fetchNextPage(),
  };
}

/** What hangs right below each of these. */
function useChildren(parents: readonly string[]) {
  const wanted = useStableList(parents);
  const levels = useQueries({
    queries: wanted.map((parentId) => ({
      queryKey: ['metrics', 'children', parentId],
      queryFn: () => loadChildren(parentId),
    })),
  });
  const found = useStableList(levels.map(({ data }) => data));
  const byParent = useMemo(
    () => new Map(found.flatMap((page, i) => (page ? [[wanted[i], page.items] as const] : []))),
    [found, wanted],
  );
  return {
    byParent,
    hidden: found.reduce((n, page) => n + (page ? page.total - page.items.length : 0), 0),
    error: levels.find(({ error }) => error)?.error ?? null,
    refetch: () => Promise.all(levels.map(({ refetch }) => refetch())),
  };
}

function rowsBelow(parentId: string, byParent: ReadonlyMap<string, readonly AssetRow[]>): TreeRow[] {
  return (byParent.get(parentId) ?? []).flatMap((asset) => [rowOf(asset), ...rowsBelow(asset.id, byParent)]);
}

function rowOf(asset: AssetRow): TreeRow {
  const { children, metrics, troubled } = asset;
  return { asset, depth: asset.path.length - 1, children, metrics, troubled };
}

/** Matches with what stands above each, once, sorted by full name. */
function rowsOfMatches(matches: readonly AssetRow[], above: ReadonlyMap<string, Asset>): TreeRow[] {
  const byId = new Map(matches.map((asset) => [asset.id, asset]));
  const told = new Set<string>();
  return matches.flatMap(({ path }) =>
    path.flatMap((id, depth): TreeRow[] => {
      if (told.has(id)) return [];
      told.add(id);
      const match = byId.get(id);
      if (match) return [rowOf(match)];
      const asset = above.get(id);
      return asset ? [{ asset, depth, children: 1, metrics: 0, troubled: 0 }] : [];
    }),
  );
}
