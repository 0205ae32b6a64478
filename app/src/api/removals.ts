import { useQuery } from '@tanstack/react-query';
import type { RemovedThing, Restorable } from '@vivid-beacon/core';
import { useChange } from './changes';
import { call } from './client';
import { usePages } from './pages';

/* What a removal changes, and what was removed: assets, boards, indicators. */

/** What would change if this were removed. @param on whether somebody asks. */
export const useRemovalEffects = (what: 'metric' | Restorable, id: string, on: boolean) =>
  useQuery({
    queryKey: [what === 'metric' ? 'metrics' : 'removals', 'effects', what, id],
    queryFn: () =>
      what === 'metric'
        ? call('GET /api/metrics/:id/removal', { params: { id } })
        : call('GET /api/removals/:kind/:id', { params: { kind: what, id } }),
    enabled: on,
    staleTime: 0,
  });

/** Removed things that have these words in their names, the newest first, in pages. */
export const useRemovals = (search: string) =>
  usePages(['removals', 'pages', search], async (part) => {
    const { items, total } = await call('GET /api/removals', { query: { search, ...part } });
    // Two kinds may have the same id.
    return { items: items.map((each) => ({ ...each, of: each.id, id: `${each.kind} ${each.id}` })), total };
  });
export type ListedRemoval = RemovedThing & { readonly of: string };

export const useRestore = () =>
  useChange(
    ({ kind, id }: { readonly kind: Restorable; readonly id: string }) =>
      kind === 'board'
        ? call('POST /api/boards/:id/restoration', { params: { id } })
        : call('POST /api/removals/:kind/:id/restoration', { params: { kind, id } }),
    ['removals', 'metrics', 'boards', 'indicators', 'readings', 'watch'],
  );
