import { QueryClient } from '@tanstack/react-query';
import { forgetAnswers, keepAnswers, restoreAnswers, type AnswerStore } from './keptAnswers';

const DAY = 86_400_000;
const NOW = Date.UTC(2026, 10, 19);

/** A store that copies what it is given, as a database does. */
function memory(): AnswerStore & { readonly held: Map<string, string> } {
  const held = new Map<string, string>();
  return {
    held,
    get: async (key) => (held.has(key) ? JSON.parse(held.get(key)!) : undefined),
    set: async (key, value) => void held.set(key, JSON.stringify(value)),
    del: async (key) => void held.delete(key),
  };
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

async function visited(store: AnswerStore, personId = '1'): Promise<void> {
  const client = new QueryClient();
  const stop = keepAnswers(client, store, personId, () => NOW);
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
    await restoreAnswers(client, store, '1', NOW + DAY);
    expect(client.getQueryData(['boards', '4'])).toEqual({ title: 'Dryers' });
    expect(client.getQueryData(['session'])).toBeUndefined();
    // Shown at once, and read again at once: it may have changed a second after it was kept.
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
    await restoreAnswers(client, store, personId, now);
    expect(client.getQueryData(['boards', '4'])).toBeUndefined();
    expect(store.held.size).toBe(0);
  });

  it('do not stand in the way when the device cannot keep or give them', async () => {
    const broken: AnswerStore = {
      get: () => Promise.reject(new Error('no database')),
      set: () => Promise.reject(new Error('disk full')),
      del: () => Promise.reject(new Error('no database')),
    };
    await visited(broken);
    const client = new QueryClient();
    await expect(restoreAnswers(client, broken, '1', NOW)).resolves.toBeUndefined();
    await expect(forgetAnswers(broken)).resolves.toBeUndefined();
  });

  it('never put an older answer over a newer one', async () => {
    const store = memory();
    await visited(store);
    const client = new QueryClient();
    client.setQueryData(['boards', '4'], { title: 'Renamed' }, { updatedAt: Date.now() + DAY });
    await restoreAnswers(client, store, '1', NOW + DAY);
    expect(client.getQueryData(['boards', '4'])).toEqual({ title: 'Renamed' });
    client.clear();
  });
});
