import { dehydrate, hydrate, type DehydratedState, type QueryClient } from '@tanstack/react-query';

/** Where answers are kept between visits: IndexedDB in the browser, a map in tests. */
export interface AnswerStore {
  readonly get: (key: string) => Promise<unknown>;
  readonly set: (key: string, value: unknown) => Promise<void>;
  readonly del: (key: string) => Promise<void>;
}

/** Goes up when answers change their shape; older ones are then thrown away. */
const SHAPE = 1;
const KEY = 'vivid-beacon-answers';
const OLDEST_MS = 7 * 86_400_000;
const SETTLED_MS = 2000;
const MOST_ANSWERS = 300;
/** Topics worth having at once on the next visit. */
const KEPT: ReadonlySet<unknown> = new Set(['boards', 'metrics', 'readings', 'watch', 'alarms']);

interface Kept {
  readonly shape: number;
  readonly personId: string;
  readonly savedAt: number;
  readonly state: DehydratedState;
}

/**
 * Puts back what this person saw last time, so that a board is there at once while it is read again. Answers
 * of another person, of another shape or older than a week are thrown away.
 */
export async function restoreAnswers(
  client: QueryClient,
  store: AnswerStore,
  personId: string,
  now: number,
): Promise<void> {
  const kept = (await store.get(KEY).catch(() => null)) as Kept | null | undefined;
  if (!kept) return;
  if (kept.shape !== SHAPE || kept.personId !== personId || now - kept.savedAt > OLDEST_MS) {
    await forgetAnswers(store);
    return;
  }
  hydrate(client, kept.state);
  // However new they are: what was saved since is not among them, so every one is read again when it is shown.
  await client.invalidateQueries({
    refetchType: 'none',
    predicate: ({ queryKey }) => KEPT.has(queryKey[0]),
  });
}

/** Keeps answers while they come in. @returns stops keeping. */
export function keepAnswers(
  client: QueryClient,
  store: AnswerStore,
  personId: string,
  now: () => number,
): () => void {
  let timer: ReturnType<typeof setTimeout> | null = null;
  const save = (): void => {
    timer = null;
    const newest = client
      .getQueryCache()
      .getAll()
      .filter(({ queryKey, state }) => state.status === 'success' && KEPT.has(queryKey[0]))
      .sort((a, b) => b.state.dataUpdatedAt - a.state.dataUpdatedAt)
      .slice(0, MOST_ANSWERS);
    const chosen = new Set(newest.map(({ queryHash }) => queryHash));
    const state = dehydrate(client, {
      shouldDehydrateQuery: ({ queryHash }) => chosen.has(queryHash),
      shouldDehydrateMutation: () => false,
    });
    const kept: Kept = { shape: SHAPE, personId, savedAt: now(), state };
    // A full disk must not disturb what is being looked at.
    void store.set(KEY, kept).catch(() => undefined);
  };
  const stop = client.getQueryCache().subscribe(({ type }) => {
    if (type === 'updated' && timer === null) timer = setTimeout(save, SETTLED_MS);
  });
  return () => {
    if (timer !== null) clearTimeout(timer);
    stop();
  };
}

/** Forgets everything, when somebody signs out. */
export async function forgetAnswers(store: AnswerStore): Promise<void> {
  await store.del(KEY).catch(() => undefined);
}
