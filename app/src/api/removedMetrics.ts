import { useChange } from './changes';
import { call } from './client';
import { usePages } from './pages';

/* Metrics that were removed: listed, restored, erased. */

/** Removed metrics that have these words in their names, the newest first, in pages. */
export const useRemovedPages = (search: string) =>
  usePages(['metrics', 'removed', search], (part) =>
    call('GET /api/removed-metrics', { query: { search, ...part } }),
  );

export const useRestoreMetric = () =>
  useChange(
    (id: string) => call('POST /api/removed-metrics/:id/restoration', { params: { id } }),
    ['metrics', 'readings', 'watch'],
  );

export const useEraseMetric = () =>
  useChange(
    ({ id, name }: { readonly id: string; readonly name: string }) =>
      call('DELETE /api/removed-metrics/:id', { params: { id }, query: { name } }),
    ['metrics', 'alarms'],
  );
