import { useQueryClient } from '@tanstack/react-query';
import { clear, createStore, delMany, set, values, type UseStore } from 'idb-keyval';
import { useEffect, useState } from 'react';
import { persistQueries, restoreQueries, type AnswerStore } from './queryPersistence';

let opened: UseStore | null = null;

/** Opened on first use; without IndexedDB nothing is persisted. */
async function answers(): Promise<UseStore> {
  opened ??= createStore('vivid-beacon', 'answers');
  return opened;
}

export const DEVICE_STORE: AnswerStore = {
  values: async () => values(await answers()),
  set: async (key, value) => set(key, value, await answers()),
  delMany: async (keys) => delMany(keys, await answers()),
  clear: async () => clear(await answers()),
};

/** Restores and persists the query results of a person on this device. @returns true once restored. */
export function useQueryPersistence(personId: string | null): boolean {
  const client = useQueryClient();
  const [ready, setReady] = useState<string | null>(null);
  useEffect(() => {
    if (personId === null) return undefined;
    let stop = (): void => undefined;
    let gone = false;
    void restoreQueries(client, DEVICE_STORE, personId, Date.now())
      .catch(() => undefined)
      .then(() => {
        if (gone) return;
        setReady(personId);
        stop = persistQueries(client, DEVICE_STORE, personId, Date.now);
      });
    return () => {
      gone = true;
      stop();
    };
  }, [client, personId]);
  return ready === personId;
}
