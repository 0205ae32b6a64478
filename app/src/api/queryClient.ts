import { hashKey, notifyManager, QueryClient, type QueryKey } from '@tanstack/react-query';
import { ApiError } from './client';
import { frameBatcher } from './frameBatcher';

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

/** Server data lives here and nowhere else. */
export function makeQueryClient(): QueryClient {
  const client = new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 5_000,
        refetchOnWindowFocus: true,
        queryKeyHashFn: keptHash,
        // Retries lost connections only; a refusal would be refused again.
        retry: (count, error) => count < 2 && error instanceof ApiError && error.code === 'NO_CONNECTION',
        retryDelay: 1000,
      },
    },
  });
  // Notifies in the same task: the default timer costs a phone half a frame.
  notifyManager.setScheduler(frameBatcher(() => client.isFetching() > 0));
  return client;
}
