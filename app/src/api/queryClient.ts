import { notifyManager, QueryClient } from '@tanstack/react-query';
import { ApiError } from './client';

// An answer is drawn in the task that brings it: the usual timer in between costs a phone half a frame.
notifyManager.setScheduler(queueMicrotask);

/** Rows from the server live here and nowhere else. */
export function makeQueryClient(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 5_000,
        refetchOnWindowFocus: true,
        // A refusal does not get better by asking again; a lost connection may.
        retry: (count, error) => count < 2 && error instanceof ApiError && error.code === 'NO_CONNECTION',
        retryDelay: 1000,
      },
    },
  });
}
