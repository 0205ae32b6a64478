import { useQueryClient } from '@tanstack/react-query';
import { clear, createStore, delMany, set, values, type UseStore } from 'idb-keyval';
import { useEffect, useState } from 'react';
import { keepAnswers, restoreAnswers, type AnswerStore } from './keptAnswers';

let opened: UseStore | null = null;

/** Opened when it is first needed: where there is no database, nothing is kept. */
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

/** Puts back and keeps the answers of a person on this device. @returns true once they may be shown. */
export function useKeptAnswers(personId: string | null): boolean {
  const client = useQueryClient();
  const [ready, setReady] = useState<string | null>(null);
  useEffect(() => {
    if (personId === null) return undefined;
    let stop = (): void => undefined;
    let gone = false;
    void restoreAnswers(client, DEVICE_STORE, personId, Date.now())
      .catch(() => undefined)
      .then(() => {
        if (gone) return;
        setReady(personId);
        stop = keepAnswers(client, DEVICE_STORE, personId, Date.now);
      });
    return () => {
      gone = true;
      stop();
    };
  }, [client, personId]);
  return ready === personId;
}
