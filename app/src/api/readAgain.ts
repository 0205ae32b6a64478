import type { QueryClient } from '@tanstack/react-query';

/**
 * Reads a topic again because something has changed. A first reading that is still under way began before the change
 * and would be taken for new when it comes: it is followed by another.
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
