import type { QueryClient } from '@tanstack/react-query';

/**
 * Refetches a topic after a change. A first fetch still in progress began before the change, so it is
 * followed by another.
 */
export function readAgain(client: QueryClient, topic: string): void {
  const under = client
    .getQueryCache()
    .findAll({ queryKey: [topic] })
    .filter(({ state }) => state.data === undefined && state.fetchStatus === 'fetching');
  void client.invalidateQueries({ queryKey: [topic] });
  for (const query of under) {
    const follow = (): void => void client.invalidateQueries({ queryKey: query.queryKey, exact: true });
    query.promise?.then(follow, follow);
  }
}
