import { hashKey, notifyManager, QueryClient, type QueryKey } from '@tanstack/react-query';
import { ApiError } from './client';
import { togetherPerFrame } from './togetherPerFrame';

const hashes = new WeakMap<QueryKey, string>();

/** A key that is the same list as before has the same hash: every readout asks for many at every drawing. */
function keptHash(key: QueryKey): string {
  let hash = hashes.get(key);
  if (hash === undefined) {
    hash = hashKey(key);
    hashes.set(key, hash);
  }
  return hash;
}

/** Rows from the server live here and nowhere else. */
export function makeQueryClient(): QueryClient {
  const client = new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 5_000,
        refetchOnWindowFocus: true,
        queryKeyHashFn: keptHash,
        // A refusal does not get better by asking again; a lost connection may.
        retry: (count, error) => count < 2 && error instanceof ApiError && error.code === 'NO_CONNECTION',
        retryDelay: 1000,
      },
    },
  });
  // One answer is drawn in the task that brings it: the usual timer in between costs a phone half a frame.
  notifyManager.setScheduler(togetherPerFrame(() => client.isFetching() > 0));
  return client;
}
