import { dehydrate, hydrate, type DehydratedState, type QueryClient } from '@tanstack/react-query';
import { whenIdle } from '../hooks/whenIdle';

/** Where answers are kept between visits, each under a key of its own: IndexedDB in the browser, a map in tests. */
export interface AnswerStore {
  readonly values: () => Promise<unknown[]>;
  readonly set: (key: string, value: unknown) => Promise<void>;
  readonly delMany: (keys: string[]) => Promise<void>;
  readonly clear: () => Promise<void>;
}

/** Goes up when answers change their shape; older ones are then thrown away. */
const SHAPE = 2;
const OLDEST_MS = 7 * 86_400_000;
const SETTLED_MS = 2000;
const MOST_ANSWERS = 300;
/** Topics worth having at once on the next visit. */
const KEPT: ReadonlySet<unknown> = new Set(['boards', 'metrics', 'readings', 'watch', 'alarms']);

interface Kept {
  readonly shape: number;
  readonly personId: string;
  readonly savedAt: number;
  readonly query: DehydratedState['queries'][number];
}

/**
 * Puts back what this person saw last time, so that a board is there at once while it is read again. If anything
 * is of another person or of another shape, all is thrown away; what is older than a week is, too.
 */
export async function restoreAnswers(
  client: QueryClient,
  store: AnswerStore,
  personId: string,
  now: number,
): Promise<void> {
  const kept = (await store.values().catch(() => [])) as readonly Kept[];
  if (kept.some((each) => each.shape !== SHAPE || each.personId !== personId)) {
    await forgetAnswers(store);
    return;
  }
  const old = kept.filter(({ savedAt }) => now - savedAt > OLDEST_MS);
  if (old.length > 0) await store.delMany(old.map(({ query }) => query.queryHash)).catch(() => undefined);
  const queries = kept.filter((each) => !old.includes(each)).map(({ query }) => query);
  hydrate(client, { queries, mutations: [] } satisfies DehydratedState);
  // However new they are: what was saved since is not among them, so every one is read again when it is shown.
  await client.invalidateQueries({
    refetchType: 'none',
    predicate: ({ queryKey }) => KEPT.has(queryKey[0]),
  });
}

/**
 * Keeps answers while they come in: each by itself and only while nothing is drawn or touched, for copying
 * all of them at once stops a phone for a fifth of a second.
 *
 * @returns stops keeping.
 */
export function keepAnswers(
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
      .slice(0, MOST_ANSWERS);
  /** What lies in the store, with when each answer came: at first, what was put back from it. */
  const written = new Map(wanted().map(({ queryHash, state }) => [queryHash, state.dataUpdatedAt]));
  let stopWaiting: (() => void) | null = null;
  let stopped = false;

  /** Writes the newest answer that is not written yet; with none left, takes away those that are too many. */
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

  // A full disk must not disturb what is being looked at.
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

/** Forgets everything, when somebody signs out. */
export async function forgetAnswers(store: AnswerStore): Promise<void> {
  await store.clear().catch(() => undefined);
}
