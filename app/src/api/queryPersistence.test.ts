import { QueryClient } from '@tanstack/react-query';
import { forgetQueries, persistQueries, restoreQueries, type AnswerStore } from './queryPersistence';

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 10, 19);

/** A store that copies what it receives, as a database does. */
function memory(): AnswerStore & { readonly held: Map<string, string> } {
  const held = new Map<string, string>();
  return {
    held,
    values: async () => [...held.values()].map((text) => JSON.parse(text) as unknown),
    set: async (key, value) => void held.set(key, JSON.stringify(value)),
    delMany: async (keys) => keys.forEach((key) => held.delete(key)),
    clear: async () => held.clear(),
  };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

async function visited(store: AnswerStore, personId = '1'): Promise<void> {
  const client = new QueryClient();
  const stop = persistQueries(client, store, personId, () => NOW);
  client.setQueryData(['boards', '4'], { title: 'Dryers' });
  client.setQueryData(['session'], { csrfToken: 'secret' });
  client.setQueryData(['people'], [{ name: 'Somebody' }]);
  await jest.advanceTimersByTimeAsync(3000);
  stop();
  client.clear();
}

describe('answers kept between visits', () => {
  it('are there at once for the same person, and neither session nor people are among them', async () => {
    const store = memory();
    await visited(store);
    const client = new QueryClient();
    await restoreQueries(client, store, '1', NOW + DAY);
    expect(client.getQueryData(['boards', '4'])).toEqual({ title: 'Dryers' });
    expect(client.getQueryData(['session'])).toBeUndefined();
    // Shown at once and refetched at once: it may have changed a second after it was stored.
    expect(client.getQueryState(['boards', '4'])!.isInvalidated).toBe(true);
    expect([...store.held.values()].join()).not.toMatch(/secret|Somebody/);
    client.clear();
  });

  it.each([
    ['another person', '2', NOW + DAY],
    ['somebody who comes back after more than a week', '1', NOW + 8 * DAY],
  ])('are thrown away for %s', async (_who, personId, now) => {
    const store = memory();
    await visited(store);
    const client = new QueryClient();
    await restoreQueries(client, store, personId, now);
    expect(client.getQueryData(['boards', '4'])).toBeUndefined();
    expect(store.held.size).toBe(0);
  });

  it('do not stand in the way when the device cannot keep or give them', async () => {
    const broken: AnswerStore = {
      values: () => Promise.reject(new Error('no database')),
      set: () => Promise.reject(new Error('disk full')),
      delMany: () => Promise.reject(new Error('no database')),
      clear: () => Promise.reject(new Error('no database')),
    };
    await visited(broken);
    const client = new QueryClient();
    await expect(restoreQueries(client, broken, '1', NOW)).resolves.toBeUndefined();
    await expect(forgetQueries(broken)).resolves.toBeUndefined();
  });

  it('are written one at a time, only those that are new, and at most so many', async () => {
    const store = memory();
    const set = jest.spyOn(store, 'set');
    const client = new QueryClient();
    const stop = persistQueries(client, store, '1', () => NOW);
    for (let i = 0; i < 310; i++) client.setQueryData(['boards', String(i)], i, { updatedAt: NOW + i });
    await jest.advanceTimersByTimeAsync(2150);
    expect(set).toHaveBeenCalledTimes(1);
    await jest.advanceTimersByTimeAsync(60_000);
    expect(set).toHaveBeenCalledTimes(300);
    client.setQueryData(['boards', '400'], 400, { updatedAt: NOW + 400 });
    await jest.advanceTimersByTimeAsync(5000);
    expect(set).toHaveBeenCalledTimes(301);
    expect(store.held.size).toBe(300);
    expect(store.held.has('["boards","400"]')).toBe(true);
    expect(store.held.has('["boards","10"]')).toBe(false);
    stop();
    // The next visit writes only what changed since.
    const next = new QueryClient();
    await restoreQueries(next, store, '1', NOW);
    const stopNext = persistQueries(next, store, '1', () => NOW);
    next.setQueryData(['boards', '300'], 'new', { updatedAt: NOW + 500 });
    await jest.advanceTimersByTimeAsync(60_000);
    expect(set).toHaveBeenCalledTimes(302);
    stopNext();
    client.clear();
    next.clear();
  });

  it('never put an older answer over a newer one', async () => {
    const store = memory();
    await visited(store);
    const client = new QueryClient();
    client.setQueryData(['boards', '4'], { title: 'Renamed' }, { updatedAt: Date.now() + DAY });
    await restoreQueries(client, store, '1', NOW + DAY);
    expect(client.getQueryData(['boards', '4'])).toEqual({ title: 'Renamed' });
    client.clear();
  });
});
