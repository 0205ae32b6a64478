import { dehydrate, hydrate, type DehydratedState, type QueryClient } from '@tanstack/react-query';
import { whenIdle } from '../hooks/whenIdle';

/** Storage of query results between visits, one key each: IndexedDB in the browser, a map in tests. */
export interface AnswerStore {
  readonly values: () => Promise<unknown[]>;
  readonly set: (key: string, value: unknown) => Promise<void>;
  readonly delMany: (keys: string[]) => Promise<void>;
  readonly clear: () => Promise<void>;
}

/** Increased when stored results change their shape; older ones are then discarded. */
const SHAPE = 2;
const OLDEST_MS = 7 * 86_400_000;
const SETTLED_MS = 2000;
const MAX_ANSWERS = 300;
/** Topics that are persisted for the next visit. */
const KEPT: ReadonlySet<unknown> = new Set(['boards', 'metrics', 'readings', 'watch', 'alarms']);

interface Kept {
  readonly shape: number;
  readonly personId: string;
  readonly savedAt: number;
  readonly query: DehydratedState['queries'][number];
}

/**
 * Restores the query results of this person's last visit, so that a board shows at once while it is
 * refetched. Everything is discarded if it belongs to another person or version, and whatever is older than a
 * week.
 */
export async function restoreQueries(
  client: QueryClient,
  store: AnswerStore,
  personId: string,
  now: number,
): Promise<void> {
  const kept = (await store.values().catch(() => [])) as readonly Kept[];
  if (kept.some((each) => each.shape !== SHAPE || each.personId !== personId)) {
    await forgetQueries(store);
    return;
  }
  const old = kept.filter(({ savedAt }) => now - savedAt > OLDEST_MS);
  if (old.length > 0) await store.delMany(old.map(({ query }) => query.queryHash)).catch(() => undefined);
  const queries = kept.filter((each) => !old.includes(each)).map(({ query }) => query);
  hydrate(client, { queries, mutations: [] } satisfies DehydratedState);
  // Marked as stale regardless of age, so that each is refetched when shown.
  await client.invalidateQueries({
    refetchType: 'none',
    predicate: ({ queryKey }) => KEPT.has(queryKey[0]),
  });
}

/**
 * Persists query results as they arrive, one at a time and only while the browser is idle, because copying all
 * at once blocks a phone for 200 ms. The query library's own persister writes each result as soon as it arrives.
 *
 * @returns a function that stops it.
 */
export function persistQueries(
  client: QueryClient,
  store: AnswerStore,
  personId: string,
  now: () => number,
): () => void {
  const cache = client.getQueryCache();
  const wanted = () =>
    cache
      .getAll()
      .filter(({ queryKey, state }) => state.status === 'success' && KEPT.has(queryKey[0]))
      .sort((a, b) => b.state.dataUpdatedAt - a.state.dataUpdatedAt)
      .slice(0, MAX_ANSWERS);
  /** Stored results with their times; initially the restored ones. */
  const written = new Map(wanted().map(({ queryHash, state }) => [queryHash, state.dataUpdatedAt]));
  let stopWaiting: (() => void) | null = null;
  let stopped = false;

  /** Writes the newest unwritten result; if there is none, removes surplus ones. */
  const writeNext = async (): Promise<void> => {
    const all = wanted();
    const next = all.find(({ queryHash, state }) => written.get(queryHash) !== state.dataUpdatedAt);
    if (!next) {
      const chosen = new Set(all.map(({ queryHash }) => queryHash));
      const gone = [...written.keys()].filter((hash) => !chosen.has(hash));
      for (const hash of gone) written.delete(hash);
      stopWaiting = null;
      if (gone.length > 0) await store.delMany(gone);
      return;
    }
    const { queryHash, state } = next;
    written.set(queryHash, state.dataUpdatedAt);
    const { queries } = dehydrate(client, {
      shouldDehydrateQuery: (query) => query.queryHash === queryHash,
      shouldDehydrateMutation: () => false,
    });
    for (const query of queries) {
      await store.set(queryHash, { shape: SHAPE, personId, savedAt: now(), query } satisfies Kept);
    }
    if (!stopped) stopWaiting = whenIdle(begin);
  };

  // A full disk must not disturb the screen.
  const begin = (): void => {
    void writeNext().catch(() => {
      stopWaiting = null;
    });
  };
  const stop = cache.subscribe(({ type }) => {
    if (type !== 'updated' || stopWaiting !== null || stopped) return;
    const timer = setTimeout(() => {
      stopWaiting = whenIdle(begin);
    }, SETTLED_MS);
    stopWaiting = () => clearTimeout(timer);
  });
  return () => {
    stopped = true;
    stopWaiting?.();
    stop();
  };
}

/** Deletes everything on sign-out. */
export async function forgetQueries(store: AnswerStore): Promise<void> {
  await store.clear().catch(() => undefined);
}
